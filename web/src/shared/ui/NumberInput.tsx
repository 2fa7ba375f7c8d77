import { InputNumber, type InputNumberProps } from "antd";
import type { Quantity } from "../format";

interface Props extends InputNumberProps<number> {
  /** In which it is typed; the value is metric. */
  quantity?: Quantity;
}

/** A number, typed with a point or a comma, in the units of whoever types. */
export function NumberInput({ quantity, parser: _, step, ...others }: Props) {
  const inUnit = quantity && {
    // What is being typed stays as it is under the fingers.
    formatter: (
      value: number | string | undefined,
      { userTyping, input }: { userTyping: boolean; input: string },
    ) => (userTyping ? input : value === undefined || value === "" ? "" : quantity.typed(Number(value))),
    step: quantity.from(Number(step ?? 1)),
  };
  return (
    <InputNumber<number>
      inputMode="decimal"
      step={step}
      parser={(typed) =>
        quantity ? (quantity.parse(typed ?? "") ?? Number.NaN) : Number((typed ?? "").replace(",", "."))
      }
      {...inUnit}
      {...others}
    />
  );
}
