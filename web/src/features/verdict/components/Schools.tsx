import { useTranslation } from "react-i18next";
import { PlumbLine } from "../../../shared/charts";
import { useQuantities } from "../../../shared/format";
import { Rows } from "../../../shared/ui";
import { type Assessment, schoolSizes, siteStanding } from "../model";

interface Props {
  site: string;
  assessment: Assessment;
  /** Half-width of level, SD. */
  half: number;
}

/** What the schools of judging size make of a girth, side by side. */
export function Schools({ site, assessment, half }: Props) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const full = (cm: number) => `${length.text(cm)} ${length.unit}`;
  const sizes = schoolSizes(assessment, site);
  if (sizes.length < 2) return null;
  const apart = (difference: number) =>
    t(difference < 0 ? "verdict.short" : "verdict.over", { length: full(Math.abs(difference)) });
  return (
    <>
      <h2>{t("verdict.schools")}</h2>
      <Rows
        label={t("verdict.schools")}
        rows={sizes}
        rowKey={({ school }) => school}
        columns={[
          { key: "school", names: true, of: ({ school }) => t(`verdict.school.${school}`) },
          {
            key: "says",
            of: ({ expected_cm, difference_cm }) => (
              <>
                {t("verdict.expects", { length: full(expected_cm) })}: <strong>{apart(difference_cm)}</strong>
              </>
            ),
          },
          {
            key: "line",
            of: ({ z }) =>
              z !== undefined && (
                <PlumbLine
                  alone
                  mean={z}
                  sd={0}
                  standing={siteStanding(z, half)}
                  width={90}
                  height={20}
                  shape="diamond"
                />
              ),
          },
        ]}
      />
    </>
  );
}
