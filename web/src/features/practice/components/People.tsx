import { App, Button, Form, Input, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { Rows, Section } from "../../../shared/ui";
import { useAddPerson, useRemovePerson, useSavePerson } from "../api";
import styles from "./Practice.module.css";
import { SecondFactor } from "./SecondFactor";

type Person = Schemas["PersonView"];
type Role = Schemas["Role"];

const ROLES: Role[] = ["owner", "coach", "assistant"];

interface Props {
  people: Person[];
  acts: Schemas["ActView"][];
  mayChange: boolean;
}

/** Who may sign in, and what they may do. */
export function People({ people, acts, mayChange }: Props) {
  const { t } = useTranslation();
  return (
    <Section title={t("practice.people")}>
      {!mayChange && <p className="quiet">{t("practice.only")}</p>}
      {people.map((person) => (
        <PersonLine key={person.id} person={person} mayChange={mayChange} />
      ))}
      {mayChange && <NewPerson />}
      <Roles acts={acts} />
    </Section>
  );
}

/** Who may do what, by role. */
function Roles({ acts }: { acts: Props["acts"] }) {
  const { t } = useTranslation();
  return (
    <details className={styles.roles}>
      <summary>{t("practice.whoMay")}</summary>
      <Rows
        label={t("practice.whoMay")}
        rows={acts}
        rowKey={({ act }) => act}
        columns={[
          { key: "act", names: true, title: t("practice.may"), of: ({ says }) => says },
          ...ROLES.map((role) => ({
            key: role,
            title: t(`practice.roles.${role}`),
            of: ({ roles }: Schemas["ActView"]) => t(roles.includes(role) ? "practice.yes" : "practice.no"),
          })),
        ]}
      />
    </details>
  );
}

function PersonLine({ person, mayChange }: { person: Person; mayChange: boolean }) {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const saving = useSavePerson();
  const removing = useRemovePerson();
  const [password, setPassword] = useState<string>();
  const [old, setOld] = useState("");
  const [leaving, setLeaving] = useState(false);
  const params = { path: { account_id: person.id } };
  const stay = () => setLeaving(false);
  const explain = (error: unknown) => {
    const problem = problemOf(error);
    message.error(problem?.errors?.[0]?.says ?? problem?.detail ?? t("error.unknown"));
  };
  const set = () =>
    saving.mutate(
      { params, body: person.you ? { password, old_password: old } : { password } },
      {
        onError: explain,
        onSuccess: () => {
          setPassword(undefined);
          setOld("");
          message.success(t("practice.passwordSet"));
        },
      },
    );
  return (
    <div className={styles.person}>
      <span>
        <strong>{person.name}</strong> <span className="quiet">{person.login}</span>
      </span>
      {mayChange ? (
        <Select
          size="small"
          aria-label={`${t("practice.role")}: ${person.name}`}
          value={person.role}
          options={ROLES.map((value) => ({ value, label: t(`practice.roles.${value}`) }))}
          onChange={(role) => saving.mutate({ params, body: { role } }, { onError: explain })}
        />
      ) : (
        t(`practice.roles.${person.role}`)
      )}
      {(mayChange || person.you) && (
        <span className={password === undefined ? styles.personTools : styles.personTyping}>
          {leaving ? null : password === undefined ? (
            <Button size="small" type="text" onClick={() => setPassword("")}>
              {t("practice.newPassword")}
            </Button>
          ) : (
            <>
              {person.you && (
                <Input.Password
                  size="small"
                  autoComplete="current-password"
                  placeholder={t("practice.oldPassword")}
                  aria-label={t("practice.oldPassword")}
                  value={old}
                  onChange={({ target }) => setOld(target.value)}
                />
              )}
              <Input.Password
                size="small"
                autoComplete="new-password"
                placeholder={t("practice.newPassword")}
                aria-label={`${t("practice.newPassword")}: ${person.name}`}
                value={password}
                onChange={({ target }) => setPassword(target.value)}
                onPressEnter={set}
              />
              <Button size="small" onClick={set} loading={saving.isPending}>
                {t("practice.setPassword")}
              </Button>
            </>
          )}
          {!leaving && password === undefined && (person.you || person.second_factor) && (
            <SecondFactor person={person} />
          )}
          {!mayChange ? null : leaving ? (
            <>
              <Button
                size="small"
                danger
                loading={removing.isPending}
                onClick={() => removing.mutate({ params }, { onError: explain, onSettled: stay })}
              >
                {t("practice.remove", { name: person.name })}
              </Button>
              <Button size="small" type="text" onClick={stay}>
                {t("practice.stays")}
              </Button>
            </>
          ) : (
            <Button
              size="small"
              type="text"
              aria-label={`${t("practice.remove", { name: person.name })}…`}
              onClick={() => setLeaving(true)}
            >
              ×
            </Button>
          )}
        </span>
      )}
    </div>
  );
}

function NewPerson() {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const [form] = Form.useForm<Schemas["NewPerson"]>();
  const adding = useAddPerson();
  const submit = (body: Schemas["NewPerson"]) =>
    adding.mutate(
      { body },
      {
        onSuccess: ({ name }) => {
          form.resetFields();
          message.success(t("practice.added", { name }));
        },
        onError: (error) => {
          const problem = problemOf(error);
          const errors = problem?.errors?.length
            ? problem.errors
            : [{ pointer: "/login", says: problem?.detail ?? t("error.unknown") }];
          form.setFields(
            errors.map(({ pointer, says }) => ({ name: pointer.slice(1) as never, errors: [says] })),
          );
        },
      },
    );
  return (
    <details className={styles.newPerson}>
      <summary>{t("practice.add")}</summary>
      <Form
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ role: "coach" }}
        onFinish={submit}
      >
        <div className={styles.fields}>
          <Form.Item name="name" label={t("practice.name")}>
            <Input autoComplete="off" />
          </Form.Item>
          <Form.Item name="login" label={t("practice.login")}>
            <Input autoComplete="off" />
          </Form.Item>
          <Form.Item name="password" label={t("practice.password")} extra={t("practice.passwordHint")}>
            <Input.Password autoComplete="new-password" />
          </Form.Item>
          <Form.Item name="role" label={t("practice.role")}>
            <Select options={ROLES.map((value) => ({ value, label: t(`practice.roles.${value}`) }))} />
          </Form.Item>
        </div>
        <Button type="primary" htmlType="submit" loading={adding.isPending}>
          {t("practice.add")}
        </Button>
      </Form>
    </details>
  );
}
