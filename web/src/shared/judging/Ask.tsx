import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { useKeys } from "../ui/keys";
import styles from "./Judging.module.css";
import { type Kind, Scale, SIDE_KEYS, STANDING_KEYS, STOPS } from "./Scale";

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
    <Button size="small" onClick={onClick} aria-keyshortcuts="x">
      {t("judging.cannotTell")} <kbd className={styles.key}>x</kbd>
    </Button>
  );
}

/** One question alone, by button or key; null when it cannot be told. */
export function Ask({ kind, onAnswer }: { kind: Kind; onAnswer: (value: number | null) => void }) {
  const keys = kind === "standing" ? STANDING_KEYS : SIDE_KEYS;
  useKeys({
    ...Object.fromEntries(keys.map((key, i) => [key, () => onAnswer(STOPS[kind][i] ?? 0)])),
    x: () => onAnswer(null),
  });
  return (
    <>
      <KindAsked kind={kind} onRate={onAnswer} />
      <CannotTell onClick={() => onAnswer(null)} />
    </>
  );
}
