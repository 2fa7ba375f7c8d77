import { Form, Select } from "antd";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { unevenWeights } from "../model";
import styles from "./LookField.module.css";

interface Props {
  looks: Schemas["Look"][];
  regions: Schemas["Region"][];
}

/** Heaviest weight a bar has room for. */
const MOST = 2;

/** The look, why it weighs what it weighs, and the weights as bars about neutral. */
export function LookField({ looks, regions }: Props) {
  const { t } = useTranslation();
  const chosen = Form.useWatch<string>("look");
  const look = looks.find(({ id }) => id === chosen);
  const weights = unevenWeights(look);
  const name = (key: string) =>
    regions.find(({ id }) => id === key)?.name ?? `${key.charAt(0).toUpperCase()}${key.slice(1)}`;
  return (
    <>
      <Form.Item name="look" extra={look?.reason}>
        <Select
          aria-label={t("brief.goal")}
          options={looks.map(({ id, name }) => ({ value: id, label: name }))}
        />
      </Form.Item>
      {weights.length === 0 ? (
        <p className="quiet">{t("brief.neutral")}</p>
      ) : (
        <table className={styles.weights} aria-label={t("brief.weights")}>
          <tbody>
            {weights.map(([key, weight]) => (
              <tr key={key}>
                <th scope="row">{name(key)}</th>
                <td>
                  <svg width="120" height="12" aria-hidden="true">
                    <rect
                      x={Math.min(60, (weight / MOST) * 120)}
                      y="3"
                      width={Math.abs(weight / MOST - 0.5) * 120}
                      height="6"
                      fill={weight > 1 ? "var(--accent)" : "var(--level)"}
                    />
                    <path d="M60 0V12" stroke="var(--ink)" opacity="0.55" />
                  </svg>
                </td>
                <td>×{weight}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
