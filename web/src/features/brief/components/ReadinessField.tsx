import { Button, Form, Input, Segmented } from "antd";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { today } from "../../../shared/format";
import styles from "./ReadinessField.module.css";

type Readiness = Schemas["ReadinessEntry"];

/** The questions before training; a yes asks for medical clearance, without which a plan stays a draft. */
export function ReadinessField({ questions }: { questions: Schemas["ReadinessQuestion"][] }) {
  const { t } = useTranslation();
  const form = Form.useFormInstance();
  const asked = Form.useWatch<Readiness | null | undefined>("readiness", form);
  const cleared = Form.useWatch<Schemas["ClearanceEntry"] | null | undefined>("clearance", form);
  const set = (field: string, value: unknown) => form.setFieldValue(field, value);
  const yes = asked?.yes ?? [];
  const current = cleared && asked && cleared.given_on >= asked.asked_on;
  return (
    <>
      {/* Registered even while nothing is there, so that the form keeps them. */}
      <Form.Item name="readiness" hidden>
        <Input />
      </Form.Item>
      <Form.Item name="clearance" hidden>
        <Input />
      </Form.Item>
      {!asked && (
        <>
          <p className="quiet">{t("brief.notAsked")}</p>
          <Button onClick={() => set("readiness", { asked_on: today(), yes: [] })}>
            {t("brief.askNow")}
          </Button>
        </>
      )}
      {asked && (
        <>
          <Form.Item name={["readiness", "asked_on"]} label={t("brief.askedOn")}>
            <Input type="date" max={today()} />
          </Form.Item>
          {questions.map(({ id, asks }) => (
            <div key={id} className={styles.question} data-yes={yes.includes(id)}>
              <span>{asks}</span>
              <Segmented
                size="small"
                aria-label={asks}
                value={yes.includes(id) ? "yes" : "no"}
                options={(["no", "yes"] as const).map((value) => ({ value, label: t(`tests.${value}`) }))}
                onChange={(answer) =>
                  set("readiness", {
                    ...asked,
                    yes: answer === "yes" ? [...yes, id] : yes.filter((one) => one !== id),
                  })
                }
              />
            </div>
          ))}
          {yes.length > 0 && (
            <p className={styles.needed} role="status">
              {t(current ? "brief.cleared" : "brief.clearanceNeeded")}
            </p>
          )}
          {yes.length > 0 && !cleared && (
            <Button
              type="primary"
              onClick={() => set("clearance", { given_on: today(), note: t("brief.clearedBy") })}
            >
              {t("brief.recordClearance")}
            </Button>
          )}
          {cleared && (
            <>
              <Form.Item name={["clearance", "given_on"]} label={t("brief.clearedOn")}>
                <Input type="date" max={today()} />
              </Form.Item>
              <Form.Item name={["clearance", "note"]} label={t("brief.clearanceNote")}>
                <Input.TextArea rows={2} />
              </Form.Item>
              <Button type="text" onClick={() => set("clearance", undefined)}>
                {t("brief.removeClearance")}
              </Button>
            </>
          )}
        </>
      )}
    </>
  );
}
