import { App, Button, Form, Input, InputNumber, Segmented, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { ErrorNote } from "../../../shared/ui";
import { useAddClient, useSaveBrief } from "../api";
import { type Brief, emptyBrief, fieldPath, tidied } from "../model";
import styles from "./BriefForm.module.css";
import { ConsentField } from "./ConsentField";
import { EquipmentField } from "./EquipmentField";
import { LookField } from "./LookField";
import { PainFields } from "./PainFields";
import { SchoolFields } from "./SchoolFields";

/** The brief on one page: who, look, week, equipment, pain and screens, schools. */
export function BriefForm({ client }: { client?: Schemas["ClientView"] }) {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const navigate = useNavigate();
  const [form] = Form.useForm<Brief>();
  const [touched, setTouched] = useState(false);
  const atlas = useAtlas();
  const saving = useSaveBrief(client?.id ?? "");
  const adding = useAddClient();
  const [failure, setFailure] = useState<string>();

  const explain = (error: unknown) => {
    const problem = problemOf(error);
    const fields = problem?.errors?.map(({ pointer, says }) => ({
      name: fieldPath(pointer) as never,
      errors: [says],
    }));
    form.setFields(fields ?? []);
    setFailure(problem?.detail ?? t("error.unknown"));
  };
  const done = { onError: explain };
  const submit = (fields: Brief) => {
    setFailure(undefined);
    const brief = tidied({ ...fields, look_weights: client?.brief.look_weights ?? {} });
    if (!client) {
      adding.mutate({ body: brief }, { ...done, onSuccess: (added) => navigate(`/clients/${added.id}`) });
      return;
    }
    const body = { revision: client.revision, brief };
    const params = { path: { client_id: client.id } };
    saving.mutate(
      { params, body },
      {
        ...done,
        onSuccess: () => {
          setTouched(false);
          message.success(t("brief.saved"));
        },
      },
    );
  };

  if (atlas.error) return <ErrorNote error={atlas.error} onRetry={() => atlas.refetch()} />;
  if (!atlas.data) return null;
  const number = (name: keyof Brief, label: string, step = 1) => (
    <Form.Item name={name} label={label} rules={[{ required: true }]}>
      <InputNumber step={step} className={styles.number} />
    </Form.Item>
  );
  return (
    <Form
      form={form}
      layout="vertical"
      requiredMark={false}
      initialValues={client?.brief ?? emptyBrief}
      onFinish={submit}
      onValuesChange={() => setTouched(true)}
      className={styles.brief}
    >
      <section>
        <h2>{t("brief.who")}</h2>
        <Form.Item name="name" label={t("brief.name")} rules={[{ required: true }]}>
          <Input />
        </Form.Item>
        <div className={styles.pair}>
          <Form.Item name="birth_date" label={t("brief.birth")} rules={[{ required: true }]}>
            <Input type="date" />
          </Form.Item>
          {number("height_cm", t("brief.height"), 0.5)}
        </div>
        <Form.Item name="sex" label={t("brief.sex")}>
          <Segmented
            options={[
              { value: "female", label: t("brief.female") },
              { value: "male", label: t("brief.male") },
            ]}
          />
        </Form.Item>
        <Form.Item name="dominant_hand" label={t("brief.hand")}>
          <Segmented
            options={(["left", "right", "both"] as const).map((value) => ({
              value,
              label: t(`brief.hands.${value}`),
            }))}
          />
        </Form.Item>
        <Form.Item name="experience" label={t("brief.experience")}>
          <Select
            options={(["beginner", "intermediate", "advanced"] as const).map((value) => ({
              value,
              label: t(`brief.experiences.${value}`),
            }))}
          />
        </Form.Item>
        <h2>{t("consent.title")}</h2>
        <ConsentField client={client} />
      </section>
      <section>
        <h2>{t("brief.goal")}</h2>
        <LookField looks={atlas.data.looks} regions={atlas.data.regions} />
        <h2>{t("brief.week")}</h2>
        <div className={styles.pair}>
          {number("days_per_week", t("brief.days"))}
          {number("minutes_per_session", t("brief.minutes"), 5)}
        </div>
        {number("max_exercises_per_session", t("brief.exercises"))}
        <h2>{t("brief.schools")}</h2>
        <SchoolFields schools={atlas.data.schools} />
      </section>
      <section>
        <h2>{t("brief.equipment")}</h2>
        <EquipmentField kits={atlas.data.kits} equipment={atlas.data.equipment} />
        <h2>{t("brief.care")}</h2>
        <PainFields />
        <Form.Item name="excluded_exercises" label={t("brief.excluded")}>
          <Select
            mode="multiple"
            optionFilterProp="label"
            options={atlas.data.exercises.map(({ id, name }) => ({ value: id, label: name }))}
          />
        </Form.Item>
        <p className="quiet">{t("brief.notMedical")}</p>
      </section>
      <footer className={styles.foot}>
        <Button type="primary" htmlType="submit" loading={saving.isPending || adding.isPending}>
          {client ? t("brief.save") : t("brief.create")}
        </Button>
        {failure ? (
          <span role="alert" style={{ color: "var(--danger)" }}>
            {failure}
          </span>
        ) : (
          touched && <span className="quiet">{t("brief.unsaved")}</span>
        )}
      </footer>
    </Form>
  );
}
