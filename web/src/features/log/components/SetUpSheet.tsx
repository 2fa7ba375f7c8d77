import { useState } from "react";
import { useTranslation } from "react-i18next";
import { PLAIN, type Quantities, type Quantity, useQuantities } from "../../../shared/format";
import { Dialog, Wrong } from "../../../shared/ui";
import type { ExercisePart, Item } from "../model";
import styles from "./Phone.module.css";
import own from "./SetUpSheet.module.css";

/** The variant and numbers as they hold now, in a line: `with a rope · Pulley 7 notch`. */
export function setUpText({ length }: Quantities, item: Item, part: ExercisePart): string {
  const variant = part.variant ?? item.item.variant;
  const name = item.variants.find(({ id }) => id === variant)?.name;
  const numbers = { ...item.item.set_up, ...part.set_up };
  const shown = item.set_up_fields.flatMap((field) => {
    const value = numbers[field.name];
    if (value == null) return [];
    if (field.unit === "cm") return [`${field.says} ${length.full(value)}`];
    return [`${field.says} ${value}${field.unit === "°" ? "°" : ` ${field.unit}`}`];
  });
  return [name, ...shown].filter(Boolean).join(" · ");
}

interface Props {
  open: boolean;
  item: Item;
  part: ExercisePart;
  onClose: () => void;
  onTell: (change: Partial<ExercisePart>) => void;
}

/** How the station is set for this client: kept with the set, shown the next time. */
export function SetUpSheet({ open, item, part, onClose, onTell }: Props) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const variant = part.variant ?? item.item.variant ?? "";
  const numbers: Record<string, number> = { ...item.item.set_up, ...part.set_up };
  return (
    <Dialog open={open} onClose={onClose} title={t("setUp.title")}>
      {item.variants.length > 0 && (
        <div className={styles.choices}>
          {item.variants.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              aria-pressed={variant === id}
              onClick={() => onTell({ variant: id })}
            >
              {name}
            </button>
          ))}
        </div>
      )}
      {item.set_up_fields.map(({ name, says, hint, unit, range }) => (
        <SetUpNumber
          key={name}
          label={[says, hint, unit === "cm" ? length.unit : unit].filter(Boolean).join(", ")}
          quantity={unit === "cm" ? length : PLAIN}
          value={numbers[name]}
          range={[range[0] ?? 0, range[1] ?? 0]}
          onType={(value) => onTell({ set_up: { ...numbers, [name]: value } })}
        />
      ))}
      <button type="button" className={styles.big} onClick={onClose}>
        {t("pain.done")}
      </button>
    </Dialog>
  );
}

interface NumberProps {
  label: string;
  /** In which it is typed; `value` and `range` are as they are kept. */
  quantity: Quantity;
  value: number | undefined;
  range: [number, number];
  onType: (value: number) => void;
}

function SetUpNumber({ label, quantity, value, range: [low, high], onType }: NumberProps) {
  const { t } = useTranslation();
  const [text, setText] = useState(value === undefined ? "" : quantity.typed(value));
  const read = (typed: string) => {
    const number = quantity.parseSigned(typed);
    return number !== undefined && number >= low && number <= high ? number : undefined;
  };
  const wrong = text.trim() !== "" && read(text) === undefined;
  return (
    <label className={own.line}>
      <span>{label}</span>
      <input
        inputMode="decimal"
        value={text}
        aria-invalid={wrong || undefined}
        onChange={(event) => {
          setText(event.target.value);
          const number = read(event.target.value);
          if (number !== undefined) onType(number);
        }}
      />
      {wrong && <Wrong>{t("setUp.range", { low: quantity.typed(low), high: quantity.typed(high) })}</Wrong>}
    </label>
  );
}
