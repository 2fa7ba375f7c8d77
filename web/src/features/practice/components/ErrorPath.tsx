import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { OverTime } from "../../../shared/charts";
import { hundredths } from "../../../shared/format";

interface Props {
  /** Whose error it is. */
  name: string;
  points: Schemas["MeasuringPoint"][];
  /** What is assumed of someone unknown, %. */
  assumed: number;
}

/** A measurer's error as it was known after each day: from what is assumed of anyone, dotted, to what their readings say. */
export function ErrorPath({ name, points, assumed }: Props) {
  const { t } = useTranslation();
  const marks = points.map(({ date, tem_pct }) => ({ on: date, value: tem_pct, band: 0 }));
  const most = Math.max(2 * assumed, ...points.map(({ tem_pct }) => tem_pct));
  return (
    <OverTime
      label={t("practice.overTime", { name })}
      marks={marks}
      format={hundredths}
      unit="%"
      width={300}
      span={[0, most]}
      level={assumed}
    />
  );
}
