import { Button, Form, Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf } from "../../../shared/api/client";
import { Dialog, Wrong } from "../../../shared/ui";
import { useSignIn } from "../api";
import { Doorway } from "./Doorway";

interface Fields {
  login: string;
  password: string;
  code?: string;
}

/** The way in. */
export function SignInForm() {
  const { t } = useTranslation();
  return (
    <Doorway lead={t("signIn.lead")}>
      <SignInFields />
    </Doorway>
  );
}

/** The same over a page whose session ended: it goes on where it was. */
export function SignInAgain({ open }: { open: boolean }) {
  const { t } = useTranslation();
  // A dialog also tells that it was closed when signing in closed it.
  const leave = () => {
    if (open) window.location.assign("/");
  };
  return (
    <Dialog open={open} title={t("signIn.again")} onClose={leave}>
      <p>{t("signIn.againWhy")}</p>
      <SignInFields />
    </Dialog>
  );
}

function SignInFields() {
  const { t } = useTranslation();
  const signIn = useSignIn();
  const [asked, setAsked] = useState(false);
  const send = (body: Fields) =>
    signIn.mutate(
      { body },
      // The password was right: from now on the code is asked for too.
      { onError: (error) => problemOf(error)?.errors?.[0]?.pointer === "/code" && setAsked(true) },
    );
  return (
    <Form layout="vertical" requiredMark={false} onFinish={send}>
      <Form.Item name="login" label={t("signIn.login")} rules={[{ required: true }]}>
        <Input autoFocus autoComplete="username" size="large" />
      </Form.Item>
      <Form.Item name="password" label={t("signIn.password")} rules={[{ required: true }]}>
        <Input.Password autoComplete="current-password" size="large" />
      </Form.Item>
      {asked && (
        <Form.Item name="code" label={t("signIn.factor")} rules={[{ required: true }]}>
          <Input autoFocus autoComplete="one-time-code" size="large" />
        </Form.Item>
      )}
      <div style={{ minHeight: 28 }}>
        <Wrong>{signIn.error && (problemOf(signIn.error)?.detail ?? t("error.unknown"))}</Wrong>
      </div>
      <Button type="primary" htmlType="submit" size="large" block loading={signIn.isPending}>
        {t("signIn.submit")}
      </Button>
    </Form>
  );
}
