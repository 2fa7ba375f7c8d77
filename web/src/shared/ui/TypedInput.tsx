import type { InputHTMLAttributes, Ref } from "react";
import { type Quantity, useOwnText } from "../format";

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, "value" | "onChange"> {
  ref?: Ref<HTMLInputElement>;
  /** What is kept: metric. */
  text: string;
  onText: (text: string) => void;
  /** In which it is typed; left out where there is one unit for everybody. */
  quantity?: Quantity;
}

/** A number of a typing sheet, in the units of whoever types. A plain input: nothing between the fingers and the number. */
export function TypedInput({ text, onText, quantity, className = "typed", ...input }: Props) {
  const { value, type } = useOwnText(text, onText, quantity);
  return (
    <input
      inputMode="decimal"
      autoComplete="off"
      {...input}
      className={className}
      value={value}
      onChange={(event) => type(event.target.value)}
    />
  );
}
