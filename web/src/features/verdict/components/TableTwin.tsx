import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { percent, sd, signed } from "../../../shared/format";
import { type Assessment, standing } from "../model";

/** The chart as a table, for screen readers and for whoever prefers numbers. */
export function TableTwin({ assessment }: { assessment: Assessment }) {
  const { t } = useTranslation();
  const names = useNames();
  return (
    <details style={{ marginTop: 12, fontSize: 14 }}>
      <summary>{t("verdict.table")}</summary>
      <table style={{ width: "100%", textAlign: "left" }}>
        <thead>
          <tr>
            <th>{t("verdict.region")}</th>
            <th>{t("verdict.standing")}</th>
            <th>{t("verdict.estimate")}</th>
            <th>{t("verdict.sideEstimate")}</th>
          </tr>
        </thead>
        <tbody>
          {assessment.regions.map((region) => (
            <tr key={region.region}>
              <td>{names.region(region.region)}</td>
              <td>{t(`verdict.${standing(region)}`)}</td>
              <td>
                {signed(region.bulk.mean, sd)} ± {sd(1.96 * region.bulk.sd)}
              </td>
              <td>
                {region.asymmetry
                  ? `${signed(region.asymmetry.mean, percent)} ± ${percent(1.96 * region.asymmetry.sd)}`
                  : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
