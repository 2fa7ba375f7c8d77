import { Select } from "antd";
import type { ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { useNames } from "../../../shared/api/atlas";
import { CannotTell, type Kind, KindAsked, MiniScale } from "../../../shared/judging";
import { Section } from "../../../shared/ui";
import { kindsFor, type Question, type Rating, ratingAt } from "../model";
import styles from "./Judge.module.css";

interface Props {
  roundId: string;
  questions: Question[];
  ratings: Rating[];
  region?: string;
  pose: string;
  poseName: (pose: string) => string;
  /** Whether this pose's picture is known to be, or not to be, a mirror picture. */
  sidesKnown: boolean;
  onPick: (region: string, pose?: string) => void;
  onRate: (kind: Kind, value: number | null) => void;
  /** The region over the rounds. */
  strip?: ReactNode;
}

/** The region being judged, its two scales, and how far the list has come. */
export function JudgePanel(props: Props) {
  const { roundId, questions, ratings, region, pose, poseName, sidesKnown, onPick, onRate, strip } = props;
  const { t } = useTranslation();
  const names = useNames();
  const question = questions.find((one) => one.region === region);
  const given = (kind: Kind, of = region ?? "", inPose = pose) =>
    ratingAt(ratings, { round_id: roundId, region: of, pose: inPose, kind });
  const anyGiven = (kind: Kind, one: Question) =>
    one.poses.map((p) => given(kind, one.region, p)).find((rating) => rating);
  const judged = questions.filter((one) => anyGiven("standing", one)).length;
  return (
    <aside className={styles.panel} aria-label={t("photos.tools.judge")}>
      {question && region && (
        <Section title={names.region(region)} headClass={styles.title}>
          {question.poses.length > 1 ? (
            <Select
              size="small"
              variant="borderless"
              aria-label={t("photos.otherPose")}
              className={styles.pose}
              value={pose}
              onChange={(next) => onPick(region, next)}
              options={question.poses.map((id) => ({
                value: id,
                label: t("photos.seenIn", { pose: poseName(id) }),
              }))}
            />
          ) : (
            <span className="quiet">{t("photos.seenIn", { pose: poseName(pose) })}</span>
          )}
          {kindsFor(question, pose, sidesKnown).map((kind) => (
            <KindAsked
              key={kind}
              kind={kind}
              value={given(kind)?.value ?? undefined}
              onRate={(value) => onRate(kind, value)}
            />
          ))}
          {question.sides && !sidesKnown && <p className="quiet">{t("photos.sidesUnsaid")}</p>}
          <CannotTell onClick={() => onRate("standing", null)} />
        </Section>
      )}
      {strip}
      <h3 className={styles.listTitle}>{t("photos.regions")}</h3>
      <p className="quiet">
        {judged === questions.length ? (
          <>
            {t("photos.allDone")} <Link to="../verdict">{t("photos.toVerdict")}</Link>
          </>
        ) : (
          t("photos.rated", { done: judged, count: questions.length })
        )}
      </p>
      <ul className={styles.list}>
        {questions.map((one) => (
          <li key={one.region}>
            <button type="button" aria-current={one.region === region} onClick={() => onPick(one.region)}>
              <span>{names.region(one.region)}</span>
              <MiniScale kind="standing" value={valueGiven(anyGiven("standing", one))} />
              <MiniScale kind="left-right" value={valueGiven(anyGiven("left-right", one))} />
            </button>
          </li>
        ))}
      </ul>
    </aside>
  );
}

/** Null when it could not be told, undefined when nobody was asked. */
function valueGiven(rating: Rating | undefined): number | null | undefined {
  return rating && (rating.value ?? null);
}
