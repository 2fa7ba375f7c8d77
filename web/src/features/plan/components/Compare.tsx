import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { dayName, sets } from "../../../shared/format";
import { differences, ledgerDifferences, type Plan, type Week } from "../model";
import styles from "./Compare.module.css";

interface Props {
  then: Schemas["IssuedView"];
  week: Week;
  plan: Plan;
}

/** Two plans side by side where they differ: exercises by day, and what the regions get. */
export function Compare({ then, week, plan }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const cards = differences(then.week, week);
  const regions = ledgerDifferences(then.plan, plan);
  const version = t("plan.version", { version: then.version });
  if (cards.length === 0) return <p>{t("plan.same", { version })}</p>;
  return (
    <div className={styles.compare}>
      <table>
        <thead>
          <tr>
            <th>{t("plan.exercise")}</th>
            <th>{version}</th>
            <th>{t("plan.thisWeek")}</th>
          </tr>
        </thead>
        <tbody>
          {cards.map((card, index) => (
            <tr key={`${card.day} ${card.exercise}`}>
              <th scope="row">
                {card.day !== cards[index - 1]?.day && <strong>{dayName(card.day)}</strong>}
                {names.exercise(card.exercise)}
              </th>
              <td>{card.before || "–"}</td>
              <td>{card.now || "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table>
        <thead>
          <tr>
            <th>{t("plan.weeklySets")}</th>
            <th>{version}</th>
            <th>{t("plan.thisWeek")}</th>
          </tr>
        </thead>
        <tbody>
          {regions.map(({ region, before, now }) => (
            <tr key={region}>
              <th scope="row">{names.region(region)}</th>
              <td>{sets(before)}</td>
              <td>{sets(now)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
