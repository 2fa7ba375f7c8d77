import { Button, Form, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { BodyFigure } from "../../../shared/figure";
import { tenths } from "../../../shared/format";
import { lookWeight, WEIGHTS, withWeight } from "../model";
import styles from "./LookField.module.css";

interface Props {
  looks: Schemas["Look"][];
  regions: Schemas["Region"][];
}

/** The look, why it weighs what it weighs, and the weights on the figure, where the coach can change them. */
export function LookField({ looks, regions }: Props) {
  const { t } = useTranslation();
  const chosen = Form.useWatch<string>("look");
  const look = looks.find(({ id }) => id === chosen);
  return (
    <>
      <Form.Item name="look" extra={look?.reason}>
        <Select
          aria-label={t("brief.goal")}
          options={looks.map(({ id, name }) => ({ value: id, label: name }))}
        />
      </Form.Item>
      <Form.Item name="look_weights" noStyle>
        <LookWeights look={look} regions={regions} />
      </Form.Item>
    </>
  );
}

interface WeightsProps {
  look?: Schemas["Look"];
  regions: Schemas["Region"][];
  value?: Record<string, number>;
  onChange?: (value: Record<string, number>) => void;
}

/** Weights on the figure: brass counts more, the darker the more; pale counts less. The form gives value and change. */
function LookWeights({ look, regions, value = {}, onChange }: WeightsProps) {
  const { t } = useTranslation();
  const [picked, setPicked] = useState<string>();
  const weight = (region: string) => value[region] ?? lookWeight(look, region);
  const set = (region: string, to: number) => onChange?.(withWeight(value, look, region, to));
  const shade = (region: string) => {
    const w = weight(region);
    if (w === 1) return { fill: "var(--level)", opacity: 0.22 };
    return w > 1
      ? { fill: "var(--accent)", opacity: Math.min(1, 0.3 + (w - 1) * 0.9) }
      : { fill: "var(--level)", opacity: 0.22 * w };
  };
  const changed = Object.keys(value);
  const listed = regions.filter(({ id }) => weight(id) !== 1 || changed.includes(id) || id === picked);
  return (
    <div className={styles.look}>
      <BodyFigure
        label={t("brief.weights")}
        words={{ front: t("figure.front"), back: t("figure.back"), left: "L", right: "R" }}
        shade={shade}
        picked={picked}
        onPick={setPicked}
        width={330}
      />
      <p className="quiet">{t("brief.weightsHint")}</p>
      <Select
        showSearch={{ optionFilterProp: "label" }}
        value={picked ?? null}
        placeholder={t("brief.weightOf")}
        aria-label={t("brief.weightOf")}
        className={styles.pick}
        onChange={setPicked}
        options={regions.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <ul className={styles.weights}>
        {[...listed]
          .sort((a, b) => weight(b.id) - weight(a.id))
          .map(({ id, name }) => (
            <li key={id} data-picked={id === picked} data-changed={changed.includes(id)}>
              <span>{name}</span>
              <button
                type="button"
                aria-label={t("brief.less", { name })}
                onClick={() => set(id, weight(id) - WEIGHTS.step)}
              >
                −
              </button>
              <output aria-label={t("brief.weightNow", { name })}>×{tenths(weight(id))}</output>
              <button
                type="button"
                aria-label={t("brief.more", { name })}
                onClick={() => set(id, weight(id) + WEIGHTS.step)}
              >
                +
              </button>
            </li>
          ))}
      </ul>
      {changed.length > 0 && (
        <Button type="text" size="small" onClick={() => onChange?.({})}>
          {t("brief.asLook", { count: changed.length })}
        </Button>
      )}
    </div>
  );
}
