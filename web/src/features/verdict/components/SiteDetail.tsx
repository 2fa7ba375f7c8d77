import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { type Atlas, namesOf } from "../../../shared/api/atlas";
import { chance, percent, sd, signed, useQuantities } from "../../../shared/format";
import { Rows, Section, SideMark, StandingMark } from "../../../shared/ui";
import { shortcut } from "../../../shared/ui/acts";
import { type Assessment, areaOf, picturedOf, posesToTell, standing } from "../model";
import styles from "./Detail.module.css";
import { Schools } from "./Schools";

interface Props {
  site: string;
  atlas: Atlas;
  assessment: Assessment;
  /** Whether all of the part is to be brought up. */
  chosen: boolean;
  onBringUp: () => void;
}

/** A girth: measured against expected, from what; left against right; which regions it speaks for. */
export function SiteDetail({ site, atlas, assessment, chosen, onBringUp }: Props) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const names = namesOf(atlas);
  const sized = assessment.reference.sites.find((entry) => entry.site === site);
  const sides = assessment.asymmetries.find((entry) => entry.site === site);
  const seen = picturedOf(assessment, site);
  const area = (sized || seen) && areaOf(assessment, site);
  const shares = Object.entries(atlas.composition[site] ?? {}).sort((a, b) => b[1] - a[1]);
  return (
    <Section
      title={
        <>
          {area?.name ?? names.site(site)} {area && <StandingMark standing={area.verdict} />}
        </>
      }
      headClass={styles.title}
    >
      {area && <AreaWords area={area} atlas={atlas} assessment={assessment} />}
      {area && (
        <div className={styles.buttons}>
          <Button
            type={chosen ? "default" : "primary"}
            onClick={onBringUp}
            aria-keyshortcuts={shortcut("bringUp")}
          >
            {chosen ? t("verdict.release") : t("verdict.bringUpAll")}
          </Button>
        </div>
      )}
      {sized && (
        <dl className={styles.numbers}>
          <dt>{t("verdict.observed")}</dt>
          <dd>
            {length.text(sized.observed_cm)} {length.unit}
          </dd>
          <dt>{t("verdict.expected")}</dt>
          <dd>
            {length.text(sized.expected_cm)} {length.unit}
            <span className="quiet">
              {" "}
              {t("verdict.expectedFor")} ({length.text(sized.expected_cm * Math.exp(-sized.sd_ln))} to{" "}
              {length.text(sized.expected_cm * Math.exp(sized.sd_ln))})
            </span>
          </dd>
          <dt>{t("verdict.difference")}</dt>
          <dd>
            {length.change(sized.observed_cm - sized.expected_cm)} {length.unit}
          </dd>
          <dt>{t("verdict.z")}</dt>
          <dd>{signed(sized.z, sd)}</dd>
          <dt>{t("verdict.predictors")}</dt>
          <dd className={styles.small}>
            {sized.predictors.map((id) => names.site(id).toLowerCase()).join(", ")}
          </dd>
        </dl>
      )}
      {seen && (
        <p>
          {t("verdict.seenHow", {
            value: length.text(seen.cm),
            error: length.text(1.96 * seen.se_cm),
            unit: length.unit,
          })}{" "}
          <span className="quiet">{t("verdict.seenFitted", { count: seen.pairs })}</span>
        </p>
      )}
      <Schools site={site} assessment={assessment} half={atlas.level_half_width_sd} />
      {sides && (
        <>
          <h2>{t("verdict.sides")}</h2>
          <p>
            <SideMark side="left" /> {length.text(sides.left_cm)} {length.unit}, <SideMark side="right" />{" "}
            {length.text(sides.right_cm)} {length.unit}: {length.change(sides.difference_cm)} {length.unit} ±{" "}
            {length.text(1.96 * sides.se_cm)} ({signed(sides.symmetry_index, percent)} %).{" "}
            {t(`tape.sentence.${sides.verdict}`)}
            {sides.dominance_explains && `; ${t("tape.dominance")}`}.
          </p>
        </>
      )}
      {shares.length > 0 && (
        <>
          <h2>{t("verdict.feeds")}</h2>
          <Rows
            label={t("verdict.feeds")}
            rows={shares}
            rowKey={([region]) => region}
            columns={[
              { key: "region", names: true, of: ([region]) => names.region(region) },
              {
                key: "bar",
                of: ([, share]) => (
                  <svg width="90" height="8" aria-hidden="true">
                    <rect width={90 * share} height="8" fill="var(--level)" />
                  </svg>
                ),
              },
              { key: "share", numbers: true, of: ([, share]) => `${Math.round(100 * share)} %` },
            ]}
          />
        </>
      )}
    </Section>
  );
}

type Area = Assessment["areas"][number];

/** What is said of a part as a whole, and where to look to tell its heads apart. */
function AreaWords({ area, atlas, assessment }: { area: Area; atlas: Atlas; assessment: Assessment }) {
  const { t } = useTranslation();
  const names = namesOf(atlas);
  const { p_behind, p_ahead } = area;
  const sure = Math.max(p_behind, p_ahead, 1 - p_behind - p_ahead);
  const told = { percent: chance(sure), behind: chance(p_behind), ahead: chance(p_ahead) };
  // Once a head has the part's verdict too, it is told which.
  const headTold = assessment.regions.some(
    (entry) => area.heads.includes(entry.region) && standing(entry) === area.verdict,
  );
  const asks = ["behind", "ahead"].includes(area.verdict) && !headTold;
  const poses = asks ? posesToTell(atlas, assessment, area.heads) : [];
  return (
    <>
      <p>{t(`verdict.sentence.${area.verdict}`, told)}</p>
      <p className="quiet">
        {signed(area.mean, sd)} SD ± {sd(1.96 * area.sd)}, {t("verdict.areaIs")}
      </p>
      {poses.length > 0 && (
        <p>
          {t("verdict.whichHead", { poses: poses.map((pose) => names.pose(pose).toLowerCase()).join(", ") })}{" "}
          <Link to={`../photos?region=${area.heads[0]}`}>{t("verdict.toPictures")}</Link>
        </p>
      )}
    </>
  );
}
