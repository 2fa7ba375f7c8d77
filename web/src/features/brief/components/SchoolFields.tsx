import { Form, Select } from "antd";
import { useTranslation } from "react-i18next";
import { schoolsByAbout } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { Section } from "../../../shared/ui";
import styles from "./BriefForm.module.css";

/** The questions on which coaches disagree, folded: each has a default, and few clients need another. */
export function SchoolFields({ schools }: { schools: Schemas["School"][] }) {
  const { t } = useTranslation();
  const chosen: Record<string, string | undefined> | undefined = Form.useWatch("schools");
  const changed = Object.values(chosen ?? {}).filter(Boolean).length;
  return (
    <details className={styles.schools}>
      <summary>{t("brief.schoolsSummary", { count: schools.length, changed })}</summary>
      {schoolsByAbout(schools).map(([about, questions]) => (
        <Section title={t(`schools.about.${about}`)} level={3} key={about}>
          {questions.map((school) => {
            const answer = school.option.find(({ id }) => id === (chosen?.[school.id] ?? school.default));
            return (
              <Form.Item
                key={school.id}
                name={["schools", school.id]}
                label={school.question}
                extra={answer?.effect}
              >
                <Select
                  allowClear
                  placeholder={school.option.find((option) => option.id === school.default)?.name}
                  options={school.option.map((option) => ({ value: option.id, label: option.name }))}
                />
              </Form.Item>
            );
          })}
        </Section>
      ))}
    </details>
  );
}
