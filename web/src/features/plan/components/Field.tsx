import { useTranslation } from "react-i18next";
import { Wrong } from "../../../shared/ui";
import styles from "./CardPanel.module.css";
import { useTyped } from "./useTyped";

interface Props<T> {
  label: string;
  unit?: string;
  /** What the coach wrote; empty when nothing. */
  written: string;
  /** What holds without it. */
  usual: string;
  example: string;
  parse: (typed: string) => T | undefined;
  onWrite: (value: T | undefined) => void;
}

/** A field of a card: the default pale in it, what is written in ink; what cannot be read is said and not kept. */
export function Field<T>({ label, unit, written, usual, example, parse, onWrite }: Props<T>) {
  const { t } = useTranslation();
  const { value, wrong, onChange, onBlur } = useTyped(written, parse, onWrite);
  return (
    <label className={styles.field} data-touched={written !== "" || undefined}>
      <span>{label}</span>
      <input
        value={value}
        placeholder={usual}
        aria-invalid={wrong || undefined}
        onChange={(event) => onChange(event.target.value)}
        onBlur={onBlur}
      />
      {unit && <span className="quiet">{unit}</span>}
      {wrong && <Wrong>{t("card.wrong", { example })}</Wrong>}
    </label>
  );
}
