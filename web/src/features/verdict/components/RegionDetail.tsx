import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { LeanBar, PlumbLine } from "../../../shared/charts";
import { chance, hundredths, percent, sd, signed, tenths } from "../../../shared/format";
import { Section, StandingMark } from "../../../shared/ui";
import { shortcut } from "../../../shared/ui/acts";
import {
  type Assessment,
  type Choices,
  evidenceFor,
  pieceOf,
  type RegionEntry,
  siteStanding,
  standing,
  tapeFor,
} from "../model";
import styles from "./Detail.module.css";
import { Overrule } from "./Overrule";
import { Why } from "./Why";

interface Props {
  entry: RegionEntry;
  assessment: Assessment;
  threshold: number;
  /** Half-width of level, SD. */
  half: number;
  choices: Choices;
  onBringUp: () => void;
  onHoldBack: () => void;
  onOverrule: (verdict: Schemas["Standing"], reason: string) => void;
  onTakeBack: () => void;
}

/** A region: the sentence, the numbers, what they rest on, and the choice. */
export function RegionDetail(props: Props) {
  const { entry, assessment, threshold, half, choices, onBringUp, onHoldBack, onOverrule, onTakeBack } =
    props;
  const { t } = useTranslation();
  const names = useNames();
  const { bulk, asymmetry } = entry;
  const chosen = choices.bring_up.includes(entry.region);
  const held = choices.hold_back.includes(entry.region);
  const sure = Math.max(bulk.p_behind, bulk.p_ahead, 1 - bulk.p_behind - bulk.p_ahead);
  const evidence = evidenceFor(assessment, entry.region);
  const tape = tapeFor(entry);
  return (
    <Section
      title={
        <>
          {names.region(entry.region)} <StandingMark standing={standing(entry)} />
        </>
      }
      headClass={styles.title}
    >
      {entry.overruled && (
        <p>
          <strong>{t("verdict.youSay", { verdict: t(`verdict.${entry.overruled}`) })}</strong>{" "}
          {entry.overruled_because}
        </p>
      )}
      <p className={entry.overruled ? "quiet" : undefined}>
        {entry.overruled && `${t("verdict.computed")} `}
        {t(`verdict.sentence.${bulk.verdict}`, {
          percent: chance(sure),
          behind: chance(bulk.p_behind),
          ahead: chance(bulk.p_ahead),
        })}
      </p>
      {asymmetry && <p>{tiltSentence(asymmetry, threshold, t)}</p>}
      <div className={styles.buttons}>
        <Button
          type={chosen ? "default" : "primary"}
          onClick={onBringUp}
          aria-keyshortcuts={shortcut("bringUp")}
        >
          {chosen ? t("verdict.release") : t("verdict.bringUp")}
        </Button>
        <Button onClick={onHoldBack} aria-keyshortcuts={shortcut("holdBack")}>
          {held ? t("verdict.letGo") : t("verdict.holdBack")}
        </Button>
      </div>
      <Overrule key={entry.region} entry={entry} onOverrule={onOverrule} onTakeBack={onTakeBack} />
      <dl className={styles.numbers}>
        <dt>{t("verdict.mean")}</dt>
        <dd>
          {signed(bulk.mean, sd)} SD ± {sd(1.96 * bulk.sd)}
        </dd>
        {asymmetry && (
          <>
            <dt>{t("verdict.sides")}</dt>
            <dd>
              {signed(asymmetry.mean, percent)} % ± {percent(1.96 * asymmetry.sd)}
            </dd>
          </>
        )}
        <dt>{t("verdict.need")}</dt>
        <dd>
          {hundredths(bulk.need)}
          <span className="quiet"> {t("verdict.needHint", { weight: entry.look_weight })}</span>
        </dd>
      </dl>
      <p>
        <Link to={`../photos?region=${entry.region}`}>{t("verdict.toPictures")}</Link>
      </p>
      <Why entry={entry} />
      <h2>{t("verdict.evidence")}</h2>
      {evidence.length === 0 && tape.seen.length === 0 && <p className="quiet">{t("verdict.noEvidence")}</p>}
      <ul className={styles.evidence}>
        {tape.seen.map((piece) => (
          <li key={`${piece.site} ${piece.from_pictures}`}>
            <PlumbLine
              mean={bulk.mean - piece.mean_without}
              sd={0}
              standing={siteStanding(bulk.mean - piece.mean_without, 0)}
              width={84}
              height={22}
              shape="diamond"
            />
            <span>
              <strong>{names.site(piece.site)}</strong>{" "}
              {kindOf(piece.from_pictures ? "pictures-size" : "tape-size", t)}
              <span className="quiet">
                {" · "}
                {t("verdict.without", {
                  mean: `${signed(piece.mean_without, sd)} SD`,
                  verdict: t(`verdict.${piece.verdict_without ?? "unclear"}`),
                })}
              </span>
            </span>
          </li>
        ))}
        {tape.rest > 0 && (
          <li className={`quiet ${styles.wide}`}>{t("verdict.tapeRest", { count: tape.rest })}</li>
        )}
        {evidence.map(({ observation, share, aboutSides }) => (
          <li key={`${observation.kind} ${observation.source}`}>
            <PieceMark observation={observation} aboutSides={aboutSides} half={half} />
            <span>
              <strong>{sourceName(observation, names, t)}</strong> {kindOf(observation.kind, t)}:{" "}
              {aboutSides ? `${signed(observation.y, percent)} %` : `${signed(observation.y, sd)} SD`} ±{" "}
              {tenths(1.96 * Math.sqrt(observation.variance))}
              <span className="quiet">
                {" "}
                {share < 1 && `· ${t("verdict.share", { percent: Math.round(100 * share) })}`}
                {without(entry, assessment, observation, t)}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** What one piece says on its own, in the form of the whole chart. */
function PieceMark({
  observation,
  aboutSides,
  half,
}: {
  observation: Parameters<typeof pieceOf>[2];
  aboutSides: boolean;
  half: number;
}) {
  const { y, variance } = observation;
  return aboutSides ? (
    <LeanBar percent={y} se={Math.sqrt(variance)} alone width={84} height={22} />
  ) : (
    <PlumbLine
      mean={y}
      sd={Math.sqrt(variance)}
      standing={siteStanding(y, half)}
      alone
      width={84}
      height={22}
    />
  );
}

type Translate = ReturnType<typeof useTranslation>["t"];

/** How the verdict would read without one observation. */
function without(
  entry: RegionEntry,
  assessment: Assessment,
  observation: Parameters<typeof pieceOf>[2],
  t: Translate,
): string {
  const piece = pieceOf(entry, assessment, observation);
  if (!piece) return "";
  const mean =
    piece.about === "size"
      ? `${signed(piece.mean_without, sd)} SD`
      : `${signed(piece.mean_without, percent)} %`;
  const verdict = piece.verdict_without
    ? t(`verdict.${piece.verdict_without}`)
    : t(`verdict.tiltWord.${piece.tilt_without ?? "unclear"}`);
  return ` · ${t("verdict.without", { mean, verdict })}`;
}

function kindOf(kind: string, t: Translate): string {
  return t(`verdict.kinds.${kind}`, { defaultValue: kind }).toLowerCase();
}

/** A site or a limb by name; a rating by its region, as a link to the picture it was given on. */
function sourceName(
  { kind, source }: { kind: string; source: string },
  names: ReturnType<typeof useNames>,
  t: Translate,
) {
  if (kind === "outline")
    return <Link to="../photos">{t(`photos.segment.${source}`, { defaultValue: source })}</Link>;
  if (kind !== "rating" && kind !== "rating-sides") return names.site(source);
  const [region = source, pose = ""] = source.split(" in ");
  return (
    <Link to={`../photos?region=${region}&pose=${pose}`}>
      {names.region(region)}, {pose}
    </Link>
  );
}

function tiltSentence(
  asymmetry: NonNullable<RegionEntry["asymmetry"]>,
  threshold: number,
  t: Translate,
): string {
  const { p_left_smaller, p_right_smaller, verdict } = asymmetry;
  const sure = {
    "left-smaller": p_left_smaller,
    "right-smaller": p_right_smaller,
    equal: 1 - p_left_smaller - p_right_smaller,
    unclear: 0,
  };
  return t(`verdict.tilt.${verdict}`, { threshold, percent: chance(sure[verdict]) });
}
