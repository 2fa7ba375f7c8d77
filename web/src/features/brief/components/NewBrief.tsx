import { Button, Form } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import type { Atlas } from "../../../shared/api/atlas";
import { problemOf } from "../../../shared/api/client";
import { useAddClient } from "../api";
import { type Brief, emptyBrief, fieldPath, tidied } from "../model";
import { BriefForm } from "./BriefForm";
import styles from "./BriefForm.module.css";

/** A client to be added: nothing is kept before the button is pressed. */
export function NewBrief({ atlas }: { atlas: Atlas }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const [form] = Form.useForm<Brief>();
  const adding = useAddClient();
  const [failure, setFailure] = useState<string>();
  const add = (brief: Brief) => {
    setFailure(undefined);
    adding.mutate(
      { body: tidied(brief) },
      {
        onSuccess: (added) => navigate(`/clients/${added.id}`),
        onError: (error) => {
          const problem = problemOf(error);
          const wrong = problem?.errors?.map(({ pointer, says }) => ({
            name: fieldPath(pointer) as never,
            errors: [says],
          }));
          form.setFields(wrong ?? []);
          setFailure(problem?.detail ?? t("error.unknown"));
        },
      },
    );
  };
  return (
    <BriefForm
      form={form}
      atlas={atlas}
      initial={emptyBrief}
      onSend={add}
      foot={
        <footer className={styles.foot}>
          <Button type="primary" htmlType="submit" loading={adding.isPending}>
            {t("brief.create")}
          </Button>
          {failure && (
            <span role="alert" style={{ color: "var(--danger)" }}>
              {failure}
            </span>
          )}
        </footer>
      }
    />
  );
}
