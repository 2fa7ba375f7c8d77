import { Select } from "antd";
import { useTranslation } from "react-i18next";
import type { Measures } from "../format";

const LENGTHS = ["cm", "in", "in-eighths"] as const;
const MASSES = ["kg", "lb"] as const;

interface Props {
  value?: Measures;
  onChange?: (measures: Measures) => void;
}

/** In which units a person reads and types; what is left out is metric. */
export function UnitChoices({ value = {}, onChange }: Props) {
  const { t } = useTranslation();
  const { length = "cm", mass = "kg" } = value;
  return (
    <span style={{ display: "grid", gridTemplateColumns: "repeat(2, minmax(0, 170px))", gap: 8 }}>
      <Select
        value={length}
        aria-label={t("units.length")}
        popupMatchSelectWidth={false}
        options={LENGTHS.map((one) => ({ value: one, label: t(`units.lengths.${one}`) }))}
        onChange={(length) => onChange?.({ length, mass })}
      />
      <Select
        value={mass}
        aria-label={t("units.mass")}
        popupMatchSelectWidth={false}
        options={MASSES.map((one) => ({ value: one, label: t(`units.masses.${one}`) }))}
        onChange={(mass) => onChange?.({ length, mass })}
      />
    </span>
  );
}
