import { InputNumber, type InputNumberProps } from "antd";

/** A number, typed with a point or a comma. */
export function NumberInput(props: InputNumberProps<number>) {
  const { parser: _, ...others } = props;
  return (
    <InputNumber<number>
      inputMode="decimal"
      parser={(typed) => Number((typed ?? "").replace(",", "."))}
      {...others}
    />
  );
}
