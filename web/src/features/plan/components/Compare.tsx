import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { dayName, sets } from "../../../shared/format";
import { Rows } from "../../../shared/ui";
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
      <Rows
        label={t("plan.exercise")}
        rows={cards}
        rowKey={(card) => `${card.day} ${card.exercise}`}
        columns={[
          {
            key: "exercise",
            names: true,
            title: t("plan.exercise"),
            of: (card, index) => (
              <>
                {card.day !== cards[index - 1]?.day && <strong>{dayName(card.day)}</strong>}
                {names.exercise(card.exercise)}
              </>
            ),
          },
          { key: "before", title: version, numbers: true, of: (card) => card.before || "–" },
          { key: "now", title: t("plan.thisWeek"), numbers: true, of: (card) => card.now || "–" },
        ]}
      />
      <Rows
        label={t("plan.weeklySets")}
        rows={regions}
        rowKey={({ region }) => region}
        columns={[
          {
            key: "region",
            names: true,
            title: t("plan.weeklySets"),
            of: ({ region }) => names.region(region),
          },
          { key: "before", title: version, numbers: true, of: ({ before }) => sets(before) },
          { key: "now", title: t("plan.thisWeek"), numbers: true, of: ({ now }) => sets(now) },
        ]}
      />
    </div>
  );
}
