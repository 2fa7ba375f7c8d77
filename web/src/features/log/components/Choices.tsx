import styles from "./Phone.module.css";

interface Props<T> {
  label: string;
  options: readonly T[];
  text: (option: T) => string;
  picked: (option: T) => boolean;
  onPick: (option: T) => void;
}

/** One thing of a few, each big enough for a thumb. */
export function Choices<T extends string | number>({ label, options, text, picked, onPick }: Props<T>) {
  return (
    <fieldset className={styles.group}>
      <legend className={styles.unit}>{label}</legend>
      <div className={styles.choices}>
        {options.map((option) => (
          <button key={option} type="button" aria-pressed={picked(option)} onClick={() => onPick(option)}>
            {text(option)}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
