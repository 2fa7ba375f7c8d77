import { memo } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { hundredths, percent, sd, signed, useQuantities } from "../../../shared/format";
import { Rows } from "../../../shared/ui";
import { type Assessment, picturedOf, standing } from "../model";

/** The chart as a table, for screen readers and for whoever prefers numbers. */
export const TableTwin = memo(function TableTwin({ assessment }: { assessment: Assessment }) {
  const { t } = useTranslation();
  const names = useNames();
  return (
    <details style={{ marginTop: 12, fontSize: 14 }}>
      <summary>{t("verdict.table")}</summary>
      <GirthTable assessment={assessment} />
      <Rows
        label={t("verdict.region")}
        rows={assessment.regions}
        rowKey={({ region }) => region}
        stacked
        columns={[
          {
            key: "region",
            names: true,
            title: t("verdict.region"),
            of: ({ region }) => names.region(region),
          },
          { key: "standing", title: t("verdict.standing"), of: (region) => t(`verdict.${standing(region)}`) },
          {
            key: "estimate",
            title: t("verdict.estimate"),
            of: ({ bulk }) => `${signed(bulk.mean, sd)} ± ${sd(1.96 * bulk.sd)}`,
          },
          {
            key: "sides",
            title: t("verdict.sideEstimate"),
            of: ({ asymmetry }) =>
              asymmetry && `${signed(asymmetry.mean, percent)} ± ${percent(1.96 * asymmetry.sd)}`,
          },
          { key: "need", title: t("verdict.need"), of: ({ bulk }) => hundredths(bulk.need) },
        ]}
      />
    </details>
  );
});

function GirthTable({ assessment }: { assessment: Assessment }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const names = useNames();
  const pictured = assessment.pictured ?? [];
  const named = new Set(
    [...assessment.reference.sites, ...assessment.asymmetries, ...pictured].map(({ site }) => site),
  );
  const sites = [...named].map((site) => ({
    site,
    sized: assessment.reference.sites.find((entry) => entry.site === site),
    sides: assessment.asymmetries.find((entry) => entry.site === site),
    seen: picturedOf(assessment, site),
  }));
  return (
    <Rows
      label={t("verdict.girths")}
      rows={sites}
      rowKey={({ site }) => site}
      stacked
      columns={[
        { key: "site", names: true, title: t("verdict.girths"), of: ({ site }) => names.site(site) },
        {
          key: "observed",
          title: `${t("verdict.observed")}, ${length.unit}`,
          of: ({ sized }) => sized && length.text(sized.observed_cm),
        },
        ...(pictured.length > 0
          ? [
              {
                key: "seen",
                title: `${t("verdict.fromPictures")}, ${length.unit}`,
                of: ({ seen }: (typeof sites)[number]) =>
                  seen && `${length.text(seen.cm)} ± ${length.text(1.96 * seen.se_cm)}`,
              },
            ]
          : []),
        {
          key: "expected",
          title: `${t("verdict.expected")}, ${length.unit}`,
          of: ({ sized }) => sized && length.text(sized.expected_cm),
        },
        { key: "z", title: t("verdict.z"), of: ({ sized }) => sized && signed(sized.z, sd) },
        {
          key: "sides",
          title: t("verdict.sideEstimate"),
          of: ({ sides }) =>
            sides && `${signed(sides.symmetry_index, percent)} ± ${percent(1.96 * sides.se_index)}`,
        },
      ]}
    />
  );
}
