import { memo } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { sets } from "../../../shared/format";
import { Section } from "../../../shared/ui";
import type { Plan } from "../model";
import styles from "./BlockStrip.module.css";

interface Props {
  plan: Plan;
  /** Week that is shown on the board, from 1. */
  number: number;
  onShow: (number: number) => void;
}

const HEIGHT = 34;

/** The weeks of the block: the chosen regions' sets as columns; a week is picked to see its sets on the board. */
export const BlockStrip = memo(function BlockStrip({ plan, number, onShow }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const regions = Object.keys(plan.weeks[0]?.doses ?? {});
  const most = Math.max(1, ...plan.weeks.flatMap(({ doses }) => Object.values(doses)));
  const says = plan.weeks[number - 1]?.says ?? [];
  return (
    <Section title={t("plan.blockTitle")} className={styles.block}>
      <table>
        <thead>
          <tr>
            <td />
            {plan.weeks.map((week) => (
              <th key={week.number} scope="col">
                <button
                  type="button"
                  aria-pressed={week.number === number}
                  aria-label={t("plan.showWeek", { number: week.number })}
                  onClick={() => onShow(week.number)}
                >
                  {week.number}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {regions.map((region) => (
            <tr key={region}>
              <th scope="row">{names.region(region)}</th>
              {plan.weeks.map((week) => {
                const dose = week.doses[region] ?? 0;
                return (
                  <td key={week.number}>
                    <svg width="14" height={HEIGHT} aria-hidden="true">
                      <rect
                        x="0"
                        width="14"
                        y={HEIGHT - (HEIGHT * dose) / most}
                        height={(HEIGHT * dose) / most}
                        fill={week.lighter ? "var(--level)" : "var(--ahead)"}
                      />
                    </svg>
                    <span>{sets(Math.round(dose * 10) / 10)}</span>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        {regions.length === 0 && `${t("plan.blockEven")} `}
        {says.length > 0 ? says.join(" ") : number === 1 ? t("plan.weekOne") : t("plan.weekSame")}
        {number > 1 && ` ${t("plan.editInWeekOne")}`}
      </p>
    </Section>
  );
});
