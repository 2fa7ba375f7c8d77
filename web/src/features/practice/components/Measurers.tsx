import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { hundredths, percent } from "../../../shared/format";
import { Rows, Section } from "../../../shared/ui";
import { ErrorPath } from "./ErrorPath";
import styles from "./Practice.module.css";

type Measurer = Schemas["MeasurerView"];

/** Each measurer's learned error, as it came to be, and by site. */
export function Measurers({ measurers }: { measurers: Measurer[] }) {
  const { t } = useTranslation();
  const names = useNames();
  const known = measurers.filter(({ pairs }) => pairs > 0);
  return (
    <Section title={t("practice.measurers")}>
      <p className="quiet">
        {known[0]
          ? t("practice.measurersHint", { default: percent(known[0].default_pct) })
          : t("practice.noMeasurers")}
      </p>
      {known.map((measurer) => (
        <div key={measurer.name} className={styles.measurer}>
          <span>
            <strong>{measurer.name}</strong>
            <br />
            {t("practice.tem", { percent: hundredths(measurer.tem_pct), pairs: measurer.pairs })}
            <br />
            <span className="quiet">
              {t(measurer.placing_values > 0 ? "practice.placing" : "practice.placingAssumed", {
                percent: hundredths(measurer.placing_pct),
                count: measurer.placing_values,
              })}
            </span>
          </span>
          <ErrorPath name={measurer.name} points={measurer.over_time} assumed={measurer.default_pct} />
          <details>
            <summary>{t("practice.bySite")}</summary>
            <Rows
              label={t("practice.tableOf", { name: measurer.name })}
              rows={measurer.sites}
              rowKey={({ site, fold }) => `${site} ${fold}`}
              columns={[
                {
                  key: "site",
                  names: true,
                  title: t("practice.site"),
                  of: ({ site, fold }) => `${names.site(site)}${fold ? ` (${t("practice.fold")})` : ""}`,
                },
                { key: "error", title: t("practice.error"), of: ({ tem_pct }) => hundredths(tem_pct) },
                {
                  key: "default",
                  title: t("practice.default"),
                  of: ({ default_pct }) => percent(default_pct),
                },
                { key: "pairs", title: t("practice.pairs"), numbers: true, of: ({ pairs }) => pairs },
              ]}
            />
          </details>
        </div>
      ))}
      {known[0] && known[0].hand_pairs > 0 && (
        <p className="quiet">
          {t("practice.hand", { percent: hundredths(known[0].hand_pct), count: known[0].hand_pairs })}
        </p>
      )}
    </Section>
  );
}
