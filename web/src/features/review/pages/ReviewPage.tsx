import { Button, Checkbox } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { useNames } from "../../../shared/api/atlas";
import { day } from "../../../shared/format";
import { Async, failed } from "../../../shared/ui";
import { NewRoundDialog } from "../../rounds";
import { useReview } from "../api";
import { Areas } from "../components/Areas";
import { CarryBar } from "../components/CarryBar";
import { PicturePairs } from "../components/PicturePairs";
import { RegionPart } from "../components/RegionPart";
import styles from "../components/Review.module.css";
import { type Choices, type Decision, decided, goingOn, type Review } from "../model";

/** Regions brought up at once, at most. */
const MOST = 3;

/** The end of a round: what moved against what could be noise, and what to do about it. */
export function ReviewPage() {
  const { roundId = "" } = useParams();
  const review = useReview(roundId);
  // What the next round had before: one step back gives it again.
  const [carried, setCarried] = useState<{ round: string; before: Choices }>();
  if (failed(review) || !review.data) return <Async of={[review]} />;
  return (
    <Desk
      key={`${roundId} ${review.data.revision}`}
      roundId={roundId}
      review={review.data}
      before={carried?.round === roundId ? carried.before : undefined}
      onCarried={(before) => setCarried(before && { round: roundId, before })}
    />
  );
}

interface DeskProps {
  roundId: string;
  review: Review;
  before?: Choices;
  onCarried: (before: Choices | undefined) => void;
}

function Desk({ roundId, review, before, onCarried }: DeskProps) {
  const { t } = useTranslation();
  const names = useNames();
  const [changed, setChanged] = useState<Partial<Record<string, Decision>>>({});
  const [also, setAlso] = useState<string[]>([]);
  const [opening, setOpening] = useState(false);
  const base = `/clients/${review.client_id}/rounds`;
  const decisions = decided(review, changed);
  const going = goingOn(review, decisions, also);
  const measured = review.regions.some(({ proposed }) => proposed);
  const join = (region: string) =>
    setAlso((now) => (now.includes(region) ? now.filter((one) => one !== region) : [...now, region]));
  return (
    <>
      <div className={styles.summary}>
        <span>
          {review.next
            ? t("review.between", { from: day(review.date), to: day(review.next.date) })
            : t("review.since", { from: day(review.date) })}
        </span>
        <span>
          {review.sessions_planned > 0
            ? t("review.sessions", { kept: review.sessions_kept, planned: review.sessions_planned })
            : t("review.noPlan")}
        </span>
        <span>
          <Link to={`${base}/${roundId}/trends`}>{t("review.trends")}</Link>
        </span>
        <Link to={`${base}/${roundId}/review/print`}>{t("review.print")}</Link>
      </div>
      {review.tired && <p className={styles.note}>{review.tired}</p>}
      {!review.next && (
        <p className={styles.note}>
          {t("review.notMeasured")}{" "}
          <Button type="primary" onClick={() => setOpening(true)}>
            {t("review.openNext")}
          </Button>
        </p>
      )}
      {review.next && !measured && (
        <p className={styles.note}>
          {t("review.measureNext")} <Link to={`${base}/${review.next.id}/tape`}>{t("review.toTape")}</Link>
        </p>
      )}
      {review.areas.length > 0 && <Areas areas={review.areas} />}
      <PicturePairs pairs={review.pictures} />
      {review.regions.length === 0 && <p>{t("review.nothingChosen")}</p>}
      {review.regions.map((region) => (
        <RegionPart
          key={region.region}
          review={region}
          decision={decisions[region.region]}
          onDecide={(decision) => setChanged({ ...changed, [region.region]: decision })}
        />
      ))}
      {review.next && review.in_line.length > 0 && (
        <div className={styles.line}>
          <span>{t("review.inLine")}</span>
          {review.in_line.map(({ region }) => (
            <Checkbox
              key={region}
              checked={also.includes(region)}
              disabled={!also.includes(region) && going >= MOST}
              onChange={() => join(region)}
            >
              {names.region(region)}
            </Checkbox>
          ))}
        </div>
      )}
      {measured && (
        <CarryBar
          roundId={roundId}
          review={review}
          decisions={decisions}
          also={also}
          tooMany={going > MOST ? MOST : undefined}
          before={before}
          onCarried={onCarried}
        />
      )}
      <NewRoundDialog
        clientId={review.client_id}
        open={opening}
        holder={review.measured_by}
        onClose={() => setOpening(false)}
      />
    </>
  );
}
