import { useEffect, useState } from "react";
import { parseNumber, type Quantity, shortest } from "../../../shared/format";
import styles from "./Phone.module.css";

interface Props {
  label: string;
  unit: string;
  value: number | undefined;
  /** In whose unit it is typed; `value` is metric. */
  quantity?: Quantity;
  /** Nothing typed means none, as a load that is only the body. */
  optional?: boolean;
  /** Not above this. */
  most?: number;
  /** Whether what stands in the field can be taken. */
  onFits: (fits: boolean) => void;
  onStep: (direction: 1 | -1) => void;
  onType: (value: number | undefined) => void;
}

/** A number by thumb or by typing. */
export function Stepper({
  label,
  unit,
  value,
  quantity,
  optional = false,
  most,
  onStep,
  onType,
  onFits,
}: Props) {
  const shown = value === undefined ? "" : (quantity?.typed(value) ?? shortest(value, 2));
  const [text, setText] = useState(shown);
  const [fits, setFits] = useState(true);
  useEffect(() => setText(shown), [shown]);
  const judge = (good: boolean) => {
    setFits(good);
    onFits(good);
  };
  const typed = (next: string) => {
    setText(next);
    const number = quantity ? quantity.parse(next) : parseNumber(next);
    const none = optional && next.trim() === "";
    judge(none || (number !== undefined && number > 0));
    if (number !== undefined && number > 0) onType(most === undefined ? number : Math.min(number, most));
    else if (none) onType(undefined);
  };
  const step = (direction: 1 | -1) => {
    setText(shown);
    judge(true);
    onStep(direction);
  };
  return (
    <div>
      <p className={styles.unit}>{unit ? `${label}, ${unit}` : label}</p>
      <div className={styles.stepper}>
        <button
          type="button"
          aria-label={`${label} −`}
          disabled={value === undefined}
          onClick={() => step(-1)}
        >
          −
        </button>
        <input
          inputMode="decimal"
          aria-label={unit ? `${label}, ${unit}` : label}
          value={text}
          data-long={text.length > 4 || undefined}
          placeholder="–"
          onChange={(event) => typed(event.target.value)}
          onFocus={(event) => event.target.select()}
          aria-invalid={!fits || undefined}
          onBlur={() => fits && setText(shown)}
        />
        <button
          type="button"
          aria-label={`${label} +`}
          disabled={most !== undefined && value !== undefined && value >= most}
          onClick={() => step(1)}
        >
          +
        </button>
      </div>
    </div>
  );
}
