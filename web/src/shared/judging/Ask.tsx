import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { shortcut } from "../ui/acts";
import { useKeys } from "../ui/keys";
import styles from "./Judging.module.css";
import { type Kind, Scale, STOPS } from "./Scale";

interface Props {
  kind: Kind;
  value?: number;
  onRate: (value: number) => void;
}

/** One of the two scales under its question. */
export function KindAsked({ kind, value, onRate }: Props) {
  const { t } = useTranslation();
  return (
    <fieldset className={styles.ask}>
      <legend>{t(kind === "standing" ? "judging.standing" : "judging.sides")}</legend>
      <Scale kind={kind} value={value} onRate={onRate} />
    </fieldset>
  );
}

export function CannotTell({ onClick }: { onClick: () => void }) {
  const { t } = useTranslation();
  return (
    <Button size="small" onClick={onClick} aria-keyshortcuts={shortcut("cannotTell")}>
      {t("judging.cannotTell")} <kbd className={styles.key}>x</kbd>
    </Button>
  );
}

/** One question alone, by button or key; null when it cannot be told. */
export function Ask({ kind, onAnswer }: { kind: Kind; onAnswer: (value: number | null) => void }) {
  const rate = (stop: number) => onAnswer(STOPS[kind][stop] ?? 0);
  useKeys({
    [kind === "standing" ? "standing" : "sides"]: rate,
    cannotTell: () => onAnswer(null),
  });
  return (
    <>
      <KindAsked kind={kind} onRate={onAnswer} />
      <CannotTell onClick={() => onAnswer(null)} />
    </>
  );
}
