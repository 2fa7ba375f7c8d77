import { Button, Form, Input } from "antd";
import { useTranslation } from "react-i18next";
import { problemOf } from "../../../shared/api/client";
import { Wrong } from "../../../shared/ui";
import { useMakeOwner } from "../api";
import { Doorway } from "./Doorway";

interface Owner {
  name: string;
  login: string;
  password: string;
  code?: string;
}

/** The first start: the owner's account. */
export function OwnerForm({ asksForCode }: { asksForCode: boolean }) {
  const { t } = useTranslation();
  const make = useMakeOwner();
  const problem = problemOf(make.error);
  const at = (pointer: string) => problem?.errors?.find((error) => error.pointer === pointer)?.says;
  const field = (pointer: string) => ({
    validateStatus: at(pointer) ? ("error" as const) : undefined,
    help: at(pointer),
  });
  return (
    <Doorway lead={t("signIn.newLead")}>
      <Form layout="vertical" requiredMark={false} onFinish={(body: Owner) => make.mutate({ body })}>
        <Form.Item name="name" label={t("signIn.name")} rules={[{ required: true }]} {...field("/name")}>
          <Input autoFocus autoComplete="name" size="large" />
        </Form.Item>
        <Form.Item name="login" label={t("signIn.login")} rules={[{ required: true }]} {...field("/login")}>
          <Input autoComplete="username" size="large" />
        </Form.Item>
        <Form.Item
          name="password"
          label={t("signIn.password")}
          extra={t("signIn.passwordHint")}
          rules={[{ required: true }]}
          {...field("/password")}
        >
          <Input.Password autoComplete="new-password" size="large" />
        </Form.Item>
        {asksForCode && (
          <Form.Item
            name="code"
            label={t("signIn.code")}
            extra={t("signIn.codeHint")}
            rules={[{ required: true }]}
            {...field("/code")}
          >
            <Input autoComplete="off" inputMode="numeric" size="large" />
          </Form.Item>
        )}
        {problem && !problem.errors?.length && (
          <div style={{ marginBottom: 16 }}>
            <Wrong>{problem.detail}</Wrong>
          </div>
        )}
        <Button type="primary" htmlType="submit" size="large" block loading={make.isPending}>
          {t("signIn.create")}
        </Button>
      </Form>
    </Doorway>
  );
}
