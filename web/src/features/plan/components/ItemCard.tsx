import { Select } from "antd";
import type { ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { useParams } from "react-router";
import { type Atlas, useNames } from "../../../shared/api/atlas";
import { MovementPicture } from "../../../shared/figure";
import { useQuantities } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import { useReported } from "../api";
import { marks } from "../dose";
import { type Card, firstSide, type Item, pairingsOf, SETS } from "../model";
import styles from "./ItemCard.module.css";

export interface CardActions {
  sets: (by: number) => void;
  write: () => void;
  /** In turns with the next card; missing where there is none. */
  join?: () => void;
  /** By itself again; missing where it is. */
  part?: () => void;
  /** Puts in what goes well straight after it. */
  partners: (exercises: string[]) => void;
  lock: () => void;
  scheme: (id: string) => void;
  swap: () => void;
  remove: () => void;
}

interface Props {
  card: Card;
  /** What the planner says of it; missing for the moment in which a new card is being checked. */
  item?: Item;
  atlas: Atlas;
  /** Sets in the week that is shown, when it is not the first. */
  setsShown: number;
  broken: string[];
  open: boolean;
  picked: boolean;
  /** Its place in a superset or giant set: A1, A2. */
  mark?: string;
  onToggle: (more: boolean) => void;
  actions?: CardActions;
  handle?: ReactNode;
}

/** One exercise: what for, sets and repetitions, which side first, minutes, what is wrong; opened, its reasons and tools. */
export function ItemCard({
  card,
  item,
  atlas,
  setsShown,
  broken,
  open,
  picked,
  mark,
  onToggle,
  actions,
  handle,
}: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const side = item && firstSide(item);
  return (
    <div
      className={styles.item}
      data-grouped={mark !== undefined || undefined}
      data-broken={broken.length > 0 || undefined}
      data-picked={picked || undefined}
    >
      <div className={styles.top}>
        {handle}
        <span className={styles.region}>{item ? names.region(item.region) : ""}</span>
        <span className={styles.minutes}>
          {card.locked && <span className={styles.lock}>{t("plan.locked")}</span>}
          {item && t("plan.minutes", { minutes: Math.round(item.minutes) })}
        </span>
      </div>
      <button
        type="button"
        onClick={(event) => onToggle(event.shiftKey || event.ctrlKey || event.metaKey)}
        aria-expanded={open}
        className={styles.face}
      >
        <span className={styles.name}>
          {mark && <span className={styles.mark}>{mark}</span>}
          {names.exercise(card.exercise)}
        </span>
        {item?.variant && <span className={styles.variant}>{variantName(atlas, item)}</span>}
        <span className={styles.work}>
          {item ? workOf({ ...item, sets: setsShown }, t) : t("plan.setsOnly", { count: setsShown })}
          {side && (
            <span className={styles.sides}>
              <SideMark side={side} label={t("plan.first", { side: t(`plan.sideNames.${side}`) })} />
              {item.extra_sets_weaker > 0 && ` ${t("plan.extra", { side: side === "left" ? "L" : "R" })}`}
            </span>
          )}
        </span>
        {card.scheme && (
          // What the school has for everybody stands paler than what was chosen here.
          <span className={styles.scheme} data-usual={item?.scheme === card.scheme && !item.scheme_chosen}>
            {schemeName(atlas, card.scheme)}
          </span>
        )}
        <Marks card={card} />
        {item?.in_turn && (
          <span className={styles.turn}>{t("plan.inTurn", { name: item.in_turn.name })}</span>
        )}
        {item?.note && <span className={styles.note}>{item.note}</span>}
      </button>
      {broken.map((says) => (
        <p key={says} className={styles.broken}>
          {says}
        </p>
      ))}
      {open && item && (
        <div className={styles.more}>
          {actions && <Tools card={card} atlas={atlas} actions={actions} />}
          <Reasons item={item} atlas={atlas} actions={actions} />
        </div>
      )}
    </div>
  );
}

function Tools({ card, atlas, actions }: { card: Card; atlas: Atlas; actions: CardActions }) {
  const { t } = useTranslation();
  const name = useNames().exercise(card.exercise);
  const usual = atlas.exercises.find(({ id }) => id === card.exercise)?.usual_scheme;
  return (
    <div className={styles.tools}>
      <span className={styles.stepper}>
        <button
          type="button"
          aria-label={t("plan.fewerSets", { name })}
          disabled={card.sets <= SETS.least}
          onClick={() => actions.sets(-1)}
        >
          −
        </button>
        {t("plan.setsOnly", { count: card.sets })}
        <button
          type="button"
          aria-label={t("plan.moreSets", { name })}
          disabled={card.sets >= SETS.most}
          onClick={() => actions.sets(1)}
        >
          +
        </button>
      </span>
      <Select
        size="small"
        aria-label={t("plan.scheme")}
        value={card.scheme ?? "straight"}
        onChange={actions.scheme}
        options={atlas.schemes.map(({ id, name }) => ({ value: id, label: name }))}
        popupMatchSelectWidth={false}
      />
      {usual && usual !== (card.scheme ?? "straight") && (
        <button type="button" onClick={() => actions.scheme(usual)}>
          {t("card.usual", { scheme: schemeName(atlas, usual) })}
        </button>
      )}
      <button type="button" onClick={actions.write}>
        {t("card.write")}
      </button>
      <button type="button" onClick={actions.swap}>
        {t("plan.swap")}
      </button>
      {actions.join && (
        <button type="button" onClick={actions.join}>
          {t("card.join")}
        </button>
      )}
      {actions.part && (
        <button type="button" onClick={actions.part}>
          {t("card.part")}
        </button>
      )}
      <button type="button" aria-pressed={card.locked ?? false} onClick={actions.lock}>
        {card.locked ? t("plan.unlock") : t("plan.lock")}
      </button>
      <button type="button" onClick={actions.remove}>
        {t("plan.remove")}
      </button>
    </div>
  );
}

/** What to watch: what was reported last time on top, then what goes wrong, shortest first, and what to take care of. */
function Watch({ exercise, atlas }: { exercise: string; atlas: Atlas }) {
  const { t } = useTranslation();
  const { clientId = "" } = useParams();
  const reported = useReported(clientId)(exercise);
  const known = atlas.exercises.find(({ id }) => id === exercise);
  const others = [...(known?.faults.map(({ fault }) => fault) ?? []), ...(known?.cautions ?? [])];
  if (reported.length + others.length === 0) return null;
  return (
    <>
      <h3>{t("print.watch")}</h3>
      <ul>
        {reported.length > 0 && (
          <li>
            <strong>{t("plan.lastTime", { reported: reported.join(", ") })}</strong>
          </li>
        )}
        {others.map((says) => (
          <li key={says}>{says}</li>
        ))}
      </ul>
    </>
  );
}

function Reasons({ item, atlas, actions }: { item: Item; atlas: Atlas; actions?: CardActions }) {
  const { t } = useTranslation();
  const scheme = atlas.schemes.find(({ id }) => id === item.scheme);
  const names = useNames();
  const pairings = pairingsOf(atlas, item.exercise);
  return (
    <>
      <p className="quiet">
        {t("plan.reserve", { count: item.reserve })},{" "}
        {item.rest_s > 0 ? t("plan.rest", { seconds: item.rest_s }) : t("card.straightOn")}
      </p>
      {scheme && scheme.id !== "straight" && <p>{scheme.how}</p>}
      <Watch exercise={item.exercise} atlas={atlas} />
      {item.warm_up && <p>{item.warm_up}</p>}
      <h3>{t("plan.why")}</h3>
      <ul>
        {item.why.map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
        {item.in_turn && <li>{t("plan.inTurnLock")}</li>}
      </ul>
      {pairings.map(({ next, why }) => (
        <p key={next.join(" ")}>
          {t("plan.pairs", { next: next.map(names.exercise).join(", "), why })}{" "}
          {actions && (
            <button type="button" className="text-button" onClick={() => actions.partners(next)}>
              {t("card.putIn")}
            </button>
          )}
        </p>
      ))}
      <p>{item.progression.says}</p>
      <MovementPicture exercise={item.exercise} name={item.name} size="large" />
      {saysOf(item, atlas).map((cue) => (
        <p key={cue} className="quiet">
          {cue}
        </p>
      ))}
    </>
  );
}

/** What the coach wrote beside sets and repetitions. */
function Marks({ card }: { card: Card }) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const { load_kg, tempo, rest_s } = marks(card);
  const shown = [
    load_kg === undefined
      ? ""
      : load_kg < 0
        ? t("card.helped", { load: mass.full(-load_kg) })
        : mass.full(load_kg),
    tempo === undefined ? "" : t("card.atTempo", { tempo }),
    rest_s === undefined ? "" : t("plan.rest", { seconds: rest_s }),
  ].filter(Boolean);
  return shown.length > 0 && <span className={styles.written}>{shown.join(", ")}</span>;
}

function variantName(atlas: Atlas, { exercise, variant }: Item): string {
  const of = atlas.exercises.find(({ id }) => id === exercise);
  return of?.variants.find(({ id }) => id === variant)?.name ?? variant ?? "";
}

/** All that a card says; a plan of before it was composed says the exercise's own sentences and the schools'. */
export function saysOf(item: Item, atlas: Atlas): string[] {
  if (item.says?.length) return item.says;
  const exercise = atlas.exercises.find(({ id }) => id === item.exercise);
  return [exercise?.set_up ?? "", ...(exercise?.cues ?? []), ...(item.cues ?? [])].filter(Boolean);
}

function schemeName(atlas: Atlas, id: string): string {
  return atlas.schemes.find((scheme) => scheme.id === id)?.name ?? id;
}

export function workOf(item: Item, t: ReturnType<typeof useTranslation>["t"]): string {
  const [low, high] = item.reps ?? item.seconds ?? [0, 0];
  const work = item.reps ? t("plan.reps", { low, high }) : t("plan.seconds", { low, high });
  return t("plan.sets", { sets: item.sets, work });
}
