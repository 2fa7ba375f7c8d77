import { Button, Form, Input, Radio } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { today } from "../../../shared/format";
import { DateInput } from "../../../shared/ui";
import styles from "./ReadinessField.module.css";

type Readiness = Schemas["ReadinessEntry"];
type Answer = "yes" | "no";

/** The questions before training; a yes asks for medical clearance, without which a plan stays a draft. */
export function ReadinessField({ questions }: { questions: Schemas["ReadinessQuestion"][] }) {
  const { t } = useTranslation();
  const form = Form.useFormInstance();
  const asked = Form.useWatch<Readiness | null | undefined>("readiness", form);
  const cleared = Form.useWatch<Schemas["ClearanceEntry"] | null | undefined>("clearance", form);
  const set = (field: string, value: unknown) => form.setFieldValue(field, value);
  // Seven open questions, each answered by hand: nothing is kept until the last one is.
  const [answers, setAnswers] = useState<Record<string, Answer>>();
  const [note, setNote] = useState<string>();
  const yes = asked?.yes ?? [];
  const answerOf = (id: string): Answer | undefined =>
    asked ? (yes.includes(id) ? "yes" : "no") : answers?.[id];
  const answer = (id: string, given: Answer) => {
    if (asked) {
      const others = yes.filter((one) => one !== id);
      set("readiness", { ...asked, yes: given === "yes" ? [...others, id] : others });
      return;
    }
    const all = { ...answers, [id]: given };
    setAnswers(all);
    if (questions.every((question) => all[question.id]))
      set("readiness", {
        asked_on: today(),
        yes: questions.filter((question) => all[question.id] === "yes").map((question) => question.id),
      });
  };
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
      {!asked && <p className="quiet">{t("brief.notAsked")}</p>}
      {!asked && !answers && <Button onClick={() => setAnswers({})}>{t("brief.askNow")}</Button>}
      {asked && (
        <Form.Item name={["readiness", "asked_on"]} label={t("brief.askedOn")}>
          <DateInput max={today()} />
        </Form.Item>
      )}
      {(asked || answers) &&
        questions.map(({ id, asks }) => (
          <div key={id} className={styles.question} data-yes={answerOf(id) === "yes"}>
            <span>{asks}</span>
            <Radio.Group
              size="small"
              optionType="button"
              aria-label={asks}
              value={answerOf(id)}
              options={(["no", "yes"] as const).map((value) => ({ value, label: t(`tests.${value}`) }))}
              onChange={(event) => answer(id, event.target.value as Answer)}
            />
          </div>
        ))}
      {asked && (
        <>
          {yes.length > 0 && (
            <p className={styles.needed} role="status">
              {t(current ? "brief.cleared" : "brief.clearanceNeeded")}
            </p>
          )}
          {yes.length > 0 && !cleared && note === undefined && (
            <Button type="primary" onClick={() => setNote("")}>
              {t("brief.recordClearance")}
            </Button>
          )}
          {yes.length > 0 && !cleared && note !== undefined && (
            <div className={styles.writing}>
              <div>
                {t("brief.clearanceNote")}
                <Input.TextArea
                  aria-label={t("brief.clearanceNote")}
                  rows={2}
                  autoFocus
                  maxLength={400}
                  value={note}
                  onChange={(event) => setNote(event.target.value)}
                />
              </div>
              <Button
                type="primary"
                disabled={!note.trim()}
                onClick={() => {
                  set("clearance", { given_on: today(), note: note.trim() });
                  setNote(undefined);
                }}
              >
                {t("brief.keepClearance")}
              </Button>
            </div>
          )}
          {cleared && (
            <>
              <Form.Item name={["clearance", "given_on"]} label={t("brief.clearedOn")}>
                <DateInput max={today()} />
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
