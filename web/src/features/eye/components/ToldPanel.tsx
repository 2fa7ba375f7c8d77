import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { tenths } from "../../../shared/format";
import { shortcut } from "../../../shared/ui/acts";
import { useKeys } from "../../../shared/ui/keys";
import { asShown, sized, type Told } from "../model";
import styles from "./Eye.module.css";
import { EyeLine } from "./EyeLine";
import { useWord } from "./useWord";

interface Props {
  told: Told;
  /** What was said of the same figure before, of the figure itself. */
  before?: Told;
  last: boolean;
  onNext: () => void;
}

/** What was said, and what is true of the picture that is still there. */
export function ToldPanel({ told, before, last, onNext }: Props) {
  const { t } = useTranslation();
  const word = useWord();
  useKeys({ goOn: onNext });
  const shown = asShown(told);
  const earlier = before && asShown({ ...before, seen_at: told.seen_at });
  const now = { value: shown.answer ?? undefined, again: earlier !== undefined };
  const answers = earlier ? [{ value: earlier.answer ?? undefined, again: false }, now] : [now];
  return (
    <div className={styles.told} aria-live="polite">
      {typeof shown.truth === "number" && (
        <>
          <EyeLine
            kind={told.kind}
            truth={shown.truth_steps ?? undefined}
            answers={answers}
            width={230}
            height={34}
          />
          <p className={styles.truth}>
            <Truth kind={told.kind} truth={shown.truth} />
          </p>
        </>
      )}
      <p>
        {typeof shown.answer === "number"
          ? t("eye.said", { word: word(told.kind, shown.answer) })
          : t("eye.notTold")}
      </p>
      {earlier && (
        <p>
          {typeof earlier.answer === "number"
            ? t("eye.turned", { at: earlier.place + 1, word: word(told.kind, earlier.answer) })
            : t("eye.turnedNotTold", { at: earlier.place + 1 })}
        </p>
      )}
      {typeof shown.truth !== "number" && <p className="quiet">{t("eye.later")}</p>}
      <Button type="primary" onClick={onNext} aria-keyshortcuts={shortcut("goOn")}>
        {t(last ? "eye.results" : "eye.next")} <kbd>Enter</kbd>
      </Button>
    </div>
  );
}

/** The truth in a sentence. */
export function Truth({ kind, truth }: { kind: Told["kind"]; truth: number }) {
  const { t } = useTranslation();
  const by = kind === "standing" ? tenths(Math.abs(truth)) : sized(kind, Math.abs(truth));
  if (kind === "standing") return t(truth < 0 ? "eye.trueBehind" : "eye.trueAhead", { by });
  return t("eye.trueSides", { side: t(truth > 0 ? "eye.left" : "eye.right"), by });
}
