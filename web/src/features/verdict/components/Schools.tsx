import { useTranslation } from "react-i18next";
import { PlumbLine } from "../../../shared/charts";
import { useQuantities } from "../../../shared/format";
import { type Assessment, schoolSizes, siteStanding } from "../model";
import styles from "./Detail.module.css";

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
      <table className={styles.schools}>
        <tbody>
          {sizes.map(({ school, expected_cm, difference_cm, z }) => (
            <tr key={school}>
              <th scope="row">{t(`verdict.school.${school}`)}</th>
              <td>
                {t("verdict.expects", { length: full(expected_cm) })}: <strong>{apart(difference_cm)}</strong>
              </td>
              <td>
                {z !== undefined && (
                  <PlumbLine
                    alone
                    mean={z}
                    sd={0}
                    standing={siteStanding(z, half)}
                    width={90}
                    height={20}
                    shape="diamond"
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
