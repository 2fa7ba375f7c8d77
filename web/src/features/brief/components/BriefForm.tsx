import { Form, type FormInstance, Input, Radio, Select } from "antd";
import { type ReactNode, useEffect, useEffectEvent } from "react";
import { useTranslation } from "react-i18next";
import type { Atlas } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { type Quantity, today, useQuantities } from "../../../shared/format";
import { DateInput, NumberInput, Section, UnitChoices } from "../../../shared/ui";
import type { Brief } from "../model";
import styles from "./BriefForm.module.css";
import { ConsentField } from "./ConsentField";
import { EquipmentField } from "./EquipmentField";
import { LookField } from "./LookField";
import { PainFields } from "./PainFields";
import { ReadinessField } from "./ReadinessField";
import { SchoolFields } from "./SchoolFields";

interface Props {
  form: FormInstance<Brief>;
  atlas: Atlas;
  client?: Schemas["ClientView"];
  initial: Partial<Brief>;
  /** Called with the whole brief after every change, whoever made it. */
  onChange?: (brief: Brief) => void;
  /** Called with the whole brief when the form is sent. */
  onSend?: (brief: Brief) => void;
  /** What stands above and below the three columns. */
  head?: ReactNode;
  foot?: ReactNode;
}

/** The brief on one page: who and ready, look and week, equipment and care. */
export function BriefForm({ form, atlas, client, initial, onChange, onSend, head, foot }: Props) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const all = Form.useWatch([], { form, preserve: true });
  const changed = useEffectEvent((brief: Brief) => onChange?.(brief));
  // Watched rather than told: some fields change others.
  useEffect(() => {
    if (all) changed(form.getFieldsValue(true));
  }, [all, form]);
  const number = (name: keyof Brief, label: string, step = 1, quantity?: Quantity) => (
    <Form.Item name={name} label={label} rules={[{ required: true }]}>
      <NumberInput step={step} quantity={quantity} className={styles.number} />
    </Form.Item>
  );
  return (
    <Form
      form={form}
      layout="vertical"
      requiredMark={false}
      initialValues={initial}
      onFinish={() => onSend?.(form.getFieldsValue(true))}
      className={styles.brief}
    >
      {head && <div className={styles.head}>{head}</div>}
      <Section title={t("brief.who")}>
        <Form.Item name="name" label={t("brief.name")} rules={[{ required: true }]}>
          <Input />
        </Form.Item>
        <div className={styles.pair}>
          <Form.Item name="birth_date" label={t("brief.birth")} rules={[{ required: true }]}>
            <DateInput max={today()} />
          </Form.Item>
          {number("height_cm", t("brief.height", { unit: length.unit }), 0.5, length)}
        </div>
        <Form.Item name="sex" label={t("brief.sex")} rules={[{ required: true }]}>
          <Radio.Group
            optionType="button"
            options={[
              { value: "female", label: t("brief.female") },
              { value: "male", label: t("brief.male") },
            ]}
          />
        </Form.Item>
        <Form.Item name="dominant_hand" label={t("brief.hand")} rules={[{ required: true }]}>
          <Radio.Group
            optionType="button"
            options={(["left", "right", "both"] as const).map((value) => ({
              value,
              label: t(`brief.hands.${value}`),
            }))}
          />
        </Form.Item>
        <Form.Item name="experience" label={t("brief.experience")} rules={[{ required: true }]}>
          <Select
            options={(["beginner", "intermediate", "advanced"] as const).map((value) => ({
              value,
              label: t(`brief.experiences.${value}`),
            }))}
          />
        </Form.Item>
        <Form.Item name="tags" label={t("brief.tags")}>
          <Select mode="tags" tokenSeparators={[","]} open={false} suffixIcon={null} />
        </Form.Item>
        <Form.Item name="measures" label={t("brief.measures")}>
          <UnitChoices />
        </Form.Item>
        <h2>{t("brief.readiness")}</h2>
        <ReadinessField questions={atlas.readiness} />
        <h2 className={styles.later}>{t("consent.title")}</h2>
        <ConsentField client={client} />
      </Section>
      <Section title={t("brief.goal")}>
        <LookField looks={atlas.looks} regions={atlas.regions} />
        <h2>{t("brief.week")}</h2>
        <div className={styles.three}>
          {number("days_per_week", t("brief.days"))}
          {number("minutes_per_session", t("brief.minutes"), 5)}
          {number("max_exercises_per_session", t("brief.exercises"))}
        </div>
        <h2>{t("brief.schools")}</h2>
        <SchoolFields schools={atlas.schools} />
      </Section>
      <Section title={t("brief.equipment")}>
        <EquipmentField kits={atlas.kits} equipment={atlas.equipment} />
        <h2>{t("brief.care")}</h2>
        <PainFields screens={atlas.screens} />
        <Form.Item name="excluded_exercises" label={t("brief.excluded")}>
          <Select
            mode="multiple"
            showSearch={{ optionFilterProp: "label" }}
            options={atlas.exercises.map(({ id, name }) => ({ value: id, label: name }))}
          />
        </Form.Item>
        <p className="quiet">{t("brief.notMedical")}</p>
      </Section>
      {foot}
    </Form>
  );
}
