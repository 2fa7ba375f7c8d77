import { useTranslation } from "react-i18next";
import { type Atlas, namesOf } from "../../../shared/api/atlas";
import { cm, percent, sd, signed } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import type { Assessment } from "../model";
import styles from "./Detail.module.css";
import { Schools } from "./Schools";

interface Props {
  site: string;
  atlas: Atlas;
  assessment: Assessment;
}

/** A girth: measured against expected, from what; left against right; which regions it speaks for. */
export function SiteDetail({ site, atlas, assessment }: Props) {
  const { t } = useTranslation();
  const names = namesOf(atlas);
  const sized = assessment.reference.sites.find((entry) => entry.site === site);
  const sides = assessment.asymmetries.find((entry) => entry.site === site);
  const shares = Object.entries(atlas.composition[site] ?? {}).sort((a, b) => b[1] - a[1]);
  return (
    <section>
      <h1 className={styles.title}>{names.site(site)}</h1>
      {sized && (
        <dl className={styles.numbers}>
          <dt>{t("verdict.observed")}</dt>
          <dd>{cm(sized.observed_cm)} cm</dd>
          <dt>{t("verdict.expected")}</dt>
          <dd>
            {cm(sized.expected_cm)} cm
            <span className="quiet">
              {" "}
              {t("verdict.expectedFor")} ({cm(sized.expected_cm * Math.exp(-sized.sd_ln))} to{" "}
              {cm(sized.expected_cm * Math.exp(sized.sd_ln))})
            </span>
          </dd>
          <dt>{t("verdict.difference")}</dt>
          <dd>{signed(sized.observed_cm - sized.expected_cm, cm)} cm</dd>
          <dt>{t("verdict.z")}</dt>
          <dd>{signed(sized.z, sd)}</dd>
          <dt>{t("verdict.predictors")}</dt>
          <dd className={styles.small}>
            {sized.predictors.map((id) => names.site(id).toLowerCase()).join(", ")}
          </dd>
        </dl>
      )}
      <Schools site={site} assessment={assessment} half={atlas.level_half_width_sd} />
      {sides && (
        <>
          <h2>{t("verdict.sides")}</h2>
          <p>
            <SideMark side="left" /> {cm(sides.left_cm)} cm, <SideMark side="right" /> {cm(sides.right_cm)}{" "}
            cm: {signed(sides.difference_cm, cm)} cm ± {cm(1.96 * sides.se_cm)} (
            {signed(sides.symmetry_index, percent)} %). {t(`tape.sentence.${sides.verdict}`)}
            {sides.dominance_explains && `; ${t("tape.dominance")}`}.
          </p>
        </>
      )}
      {shares.length > 0 && (
        <>
          <h2>{t("verdict.feeds")}</h2>
          <table className={styles.shares}>
            <tbody>
              {shares.map(([region, share]) => (
                <tr key={region}>
                  <th scope="row">{names.region(region)}</th>
                  <td>
                    <svg width="90" height="8" aria-hidden="true">
                      <rect width={90 * share} height="8" fill="var(--level)" />
                    </svg>
                  </td>
                  <td>{Math.round(100 * share)} %</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}
