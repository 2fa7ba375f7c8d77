import { memo } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { hundredths, percent, sd, signed, useQuantities } from "../../../shared/format";
import { type Assessment, standing } from "../model";

/** The chart as a table, for screen readers and for whoever prefers numbers. */
export const TableTwin = memo(function TableTwin({ assessment }: { assessment: Assessment }) {
  const { t } = useTranslation();
  const names = useNames();
  return (
    <details style={{ marginTop: 12, fontSize: 14 }}>
      <summary>{t("verdict.table")}</summary>
      <GirthTable assessment={assessment} />
      <table style={{ width: "100%", textAlign: "left" }} aria-label={t("verdict.region")}>
        <thead>
          <tr>
            <th>{t("verdict.region")}</th>
            <th>{t("verdict.standing")}</th>
            <th>{t("verdict.estimate")}</th>
            <th>{t("verdict.sideEstimate")}</th>
            <th>{t("verdict.need")}</th>
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
              <td>{hundredths(region.bulk.need)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
});

function GirthTable({ assessment }: { assessment: Assessment }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const names = useNames();
  const sites = [
    ...new Set([...assessment.reference.sites, ...assessment.asymmetries].map(({ site }) => site)),
  ];
  return (
    <table style={{ width: "100%", textAlign: "left", marginBottom: 12 }} aria-label={t("verdict.girths")}>
      <thead>
        <tr>
          <th>{t("verdict.girths")}</th>
          <th>{t("verdict.observed")}, cm</th>
          <th>{t("verdict.expected")}, cm</th>
          <th>{t("verdict.z")}</th>
          <th>{t("verdict.sideEstimate")}</th>
        </tr>
      </thead>
      <tbody>
        {sites.map((site) => {
          const sized = assessment.reference.sites.find((entry) => entry.site === site);
          const sides = assessment.asymmetries.find((entry) => entry.site === site);
          return (
            <tr key={site}>
              <td>{names.site(site)}</td>
              <td>{sized && length.text(sized.observed_cm)}</td>
              <td>{sized && length.text(sized.expected_cm)}</td>
              <td>{sized && signed(sized.z, sd)}</td>
              <td>
                {sides && `${signed(sides.symmetry_index, percent)} ± ${percent(1.96 * sides.se_index)}`}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
