import { Button, Form } from "antd";
import { use, useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import type { Atlas } from "../../../shared/api/atlas";
import { problemOf } from "../../../shared/api/client";
import { OwnMeasures } from "../../../shared/format";
import { draftOf, dropDraft, keepDraft } from "../../../shared/save";
import { Wrong } from "../../../shared/ui";
import { useAddClient } from "../api";
import { type Brief, emptyBrief, fieldPath, tidied } from "../model";
import { BriefForm } from "./BriefForm";
import styles from "./BriefForm.module.css";

/** Its draft in this browser. */
const DRAFT = "new-client";

/** A client to be added: what is typed stays in this browser until the button is pressed. */
export function NewBrief({ atlas, onStartOver }: { atlas: Atlas; onStartOver: () => void }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const [form] = Form.useForm<Brief>();
  const adding = useAddClient();
  const measures = use(OwnMeasures);
  const [failure, setFailure] = useState<string>();
  const [draft] = useState(() => draftOf<Brief>(DRAFT)?.value);
  const startOver = () => {
    dropDraft(DRAFT);
    onStartOver();
  };
  const add = (brief: Brief) => {
    setFailure(undefined);
    adding.mutate(
      { body: tidied(brief) },
      {
        onSuccess: (added) => {
          dropDraft(DRAFT);
          navigate(`/clients/${added.id}`);
        },
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
      // Who reads pounds has clients who do, until they say otherwise.
      initial={draft ?? { ...emptyBrief, measures }}
      onChange={(brief) => brief.name && keepDraft(DRAFT, { value: brief })}
      onSend={add}
      foot={
        <footer className={styles.foot}>
          <Button type="primary" htmlType="submit" loading={adding.isPending}>
            {t("brief.create")}
          </Button>
          {draft && (
            <button type="button" className="text-button" onClick={startOver}>
              {t("brief.startOver")}
            </button>
          )}
          <Wrong>{failure}</Wrong>
        </footer>
      }
    />
  );
}
