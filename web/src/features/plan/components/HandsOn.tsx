import { Checkbox } from "antd";
import { useTranslation } from "react-i18next";
import { useSetUp } from "../../../shared/api/setUp";
import { ErrorNote } from "../../../shared/ui";
import { BOUNDS, parseWithin } from "../dose";
import styles from "./CardPanel.module.css";
import { Field } from "./Field";

/** Longest sentence about a station. */
const NOTE_CHARS = 300;

/** The coach's hand on the muscle: soft at rest, hard at work, and at which angle, and what else to remember; kept for this client. */
export function HandsOn({ clientId, exercise }: { clientId: string; exercise: string }) {
  const { t } = useTranslation();
  const { kept, error, keep } = useSetUp(clientId, exercise);
  if (error) return <ErrorNote error={error} />;
  if (!kept) return null;
  const check = kept.check ?? undefined;
  const put = (change: Partial<NonNullable<typeof check>>) =>
    keep({ check: { soft_at_rest: false, hard_at_work: false, ...check, ...change } });
  return (
    <fieldset className={styles.hands}>
      <legend>{t("card.hand")}</legend>
      {(["soft_at_rest", "hard_at_work"] as const).map((what) => (
        <Checkbox
          key={what}
          checked={check?.[what] ?? false}
          onChange={(event) => put({ [what]: event.target.checked })}
        >
          {t(`card.hands.${what}`)}
        </Checkbox>
      ))}
      <Field
        label={t("card.hands.hardest")}
        unit="°"
        written={check?.hardest_deg == null ? "" : String(check.hardest_deg)}
        usual=""
        example="90"
        parse={(typed) => parseWithin(typed, BOUNDS.angle_deg)}
        onWrite={(hardest_deg) => put({ hardest_deg })}
      />
      <label className={styles.wide}>
        <span>{t("card.hands.note")}</span>
        <input
          key={kept.note ?? ""}
          className="typed"
          defaultValue={kept.note ?? ""}
          maxLength={NOTE_CHARS}
          onBlur={({ target }) => {
            const note = target.value.trim();
            if (note !== (kept.note ?? "")) keep({ note: note || null });
          }}
        />
      </label>
      {check && (
        <button type="button" className="text-button" onClick={() => keep({ check: null })}>
          {t("card.hands.forget")}
        </button>
      )}
    </fieldset>
  );
}
