import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { PlumbLine } from "../../../shared/charts";
import { percent, sets, signed, useQuantities } from "../../../shared/format";
import { Rows, SideMark } from "../../../shared/ui";
import { standingTone } from "../../../shared/ui/standing";
import type { Decision, RegionReview } from "../model";
import { Decide } from "./Decide";
import { MoveBar } from "./MoveBar";
import styles from "./Review.module.css";

/** A week's growth is less than a tape shows. */
const WEEKS_TOLD = 4;
const TWO_SIDED_95 = 1.96;

interface Props {
  review: RegionReview;
  decision?: Decision;
  onDecide?: (decision: Decision) => void;
}

/** A region at the end of the round: where it stood and stands, what moved, what was done, what to do. */
export function RegionPart({ review, decision, onDecide }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const name = names.region(review.region);
  return (
    <article className={styles.region} aria-label={name}>
      <header>
        <h3>{name}</h3>
        <Stood review={review} />
      </header>
      <div className={styles.facts}>
        <Moves review={review} />
        <Work review={review} />
      </div>
      <p className={styles.why}>{review.why}</p>
      {review.two_sided_again && <p>{t("review.twoSided")}</p>}
      {onDecide ? (
        review.proposed && <Decide review={review} name={name} decision={decision} onDecide={onDecide} />
      ) : (
        <p>
          <strong>{decision && t(`review.decision.${decision}`)}</strong>
        </p>
      )}
    </article>
  );
}

function Stood({ review }: { review: RegionReview }) {
  const { t } = useTranslation();
  return (
    <span className={styles.stood}>
      <span>
        <span className="quiet">{t("review.before")}</span>
        <PlumbLine {...review.before} alone width={110} height={22} />
      </span>
      {review.now && (
        <span>
          <span className="quiet">{t("review.now")}</span>
          <PlumbLine {...review.now} alone width={110} height={22} />
          <span style={{ color: standingTone(review.now.standing).colour }}>
            {t(`verdict.${review.now.standing}`)}
          </span>
        </span>
      )}
    </span>
  );
}

/** What was measured then and now, against its noise: girths first, then what pictures say. */
function Moves({ review }: { review: RegionReview }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const names = useNames();
  const girths = review.girths.map((girth) => ({
    key: `${girth.site} ${girth.side ?? ""} ${girth.from_pictures}`,
    name: (
      <>
        {names.site(girth.site)} {girth.side && <SideMark side={girth.side} />}
        {girth.from_pictures && <span className="quiet"> {t("review.fromPictures")}</span>}
      </>
    ),
    value: `${length.text(girth.before_cm)}${girth.now_cm != null ? ` → ${length.text(girth.now_cm)}` : ""} ${length.unit}`,
    bar: girth.change_cm != null && (
      <MoveBar change={girth.change_cm} mdc={girth.mdc95_cm} real={girth.real} />
    ),
    real: girth.real,
    says: <GirthSays girth={girth} />,
  }));
  const widths = review.widths.map((width) => ({
    key: width.segment,
    name: t("review.inPictures"),
    value: "",
    bar: <MoveBar change={width.change_pct} mdc={width.mdc95_pct} real={width.real} />,
    real: width.real,
    says: t(width.real ? "review.realPct" : "review.noisePct", {
      change: signed(width.change_pct, percent),
      mdc: percent(width.mdc95_pct),
    }),
  }));
  return (
    <Rows
      caption={<span className="sr-only">{t("review.moved")}</span>}
      rows={[...girths, ...widths]}
      rowKey={({ key }) => key}
      stacked
      columns={[
        { key: "name", names: true, of: ({ name }) => name },
        { key: "value", whole: true, of: ({ value }) => value },
        { key: "bar", of: ({ bar }) => bar },
        {
          key: "says",
          width: "40%",
          of: ({ says, real }) => <span className={real ? undefined : "quiet"}>{says}</span>,
        },
      ]}
    />
  );
}

function GirthSays({ girth }: { girth: RegionReview["girths"][number] }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const { slope } = girth;
  return (
    <>
      {girth.change_cm != null
        ? t(girth.real ? "review.real" : "review.noise", {
            change: length.change(girth.change_cm),
            mdc: length.text(girth.mdc95_cm),
            unit: length.unit,
          })
        : t("review.notTaped")}
      {slope && (
        <span className={slope.real ? styles.slope : `quiet ${styles.slope}`}>
          {t(slope.real ? "review.slope" : "review.slopeNoise", {
            count: slope.rounds,
            change: length.change(WEEKS_TOLD * slope.a_week_cm),
            error: length.text(WEEKS_TOLD * TWO_SIDED_95 * slope.se_cm),
            unit: length.unit,
          })}
        </span>
      )}
    </>
  );
}

function Work({ review }: { review: RegionReview }) {
  const { t } = useTranslation();
  const share = review.planned_sets > 0 ? review.done_sets / review.planned_sets : undefined;
  return (
    <dl>
      <dt>{t("review.sets")}</dt>
      <dd>
        {share === undefined
          ? t("review.nothingPlanned")
          : t("review.setsDone", {
              done: Math.round(review.done_sets),
              planned: Math.round(review.planned_sets),
              share: Math.round(100 * share),
            })}
      </dd>
      {review.weekly_sets > 0 && (
        <>
          <dt>{t("review.weekly")}</dt>
          <dd>
            {sets(Math.round(review.weekly_sets * 10) / 10)}
            {review.band && (
              <span className="quiet">
                {" "}
                {t("review.band", { low: sets(review.band[0] ?? 0), high: sets(review.band[1] ?? 0) })}
              </span>
            )}
          </dd>
        </>
      )}
      {[review.pain, review.felt].filter(Boolean).map((says) => (
        <dd key={says} className={styles.hurt}>
          {says}
        </dd>
      ))}
      {review.weeks_to_show != null && !review.now && (
        <>
          <dt>{t("review.shows")}</dt>
          <dd>{t("review.showsAfter", { count: review.weeks_to_show })}</dd>
        </>
      )}
    </dl>
  );
}
