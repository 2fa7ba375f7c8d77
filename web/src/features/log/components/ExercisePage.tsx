import { useState } from "react";
import { useTranslation } from "react-i18next";
import { MovementPicture } from "../../../shared/figure";
import { shortDay, useQuantities } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import {
  type EntryView,
  type ExercisePart,
  emptyPart,
  firstSide,
  type Item,
  inSeconds,
  isStopped,
  loadText,
  loggedSet,
  nextRow,
  type Pain,
  type Row,
  rowsOf,
  setsText,
  swapsFor,
  type Typed,
} from "../model";
import { FeltSheet } from "./FeltSheet";
import { FormSheet } from "./FormSheet";
import { PainSheet } from "./PainSheet";
import styles from "./Phone.module.css";
import { SetRow } from "./SetRow";
import { SetUpSheet, setUpText } from "./SetUpSheet";
import { SideBySide } from "./SideBySide";

interface Props {
  item: Item;
  versions: EntryView[];
  areas: string[];
  /** Its place in a group: A1, A2. */
  mark?: string;
  /** Whether the day was made a lighter one. */
  lighter: boolean;
  /** What stands of it now: two changes in a row build on one another. */
  current: () => { part?: ExercisePart; follows: string[] };
  onWrite: (part: ExercisePart, follows: string[]) => void;
  /** A set was done; what comes after it is the session's business. */
  onSet: (row: Row) => void;
}

type Asking = "pain" | "felt" | "how" | "swap" | "form" | "set-up";

const same = (a: Row | undefined, b: Row) => a?.number === b.number && a.side === b.side;

/** One exercise: how its station is set, what to do beside last time, and the sets. */
export function ExercisePage({ item, versions, areas, mark, lighter, current, onWrite, onSet }: Props) {
  const { t } = useTranslation();
  const [asking, setAsking] = useState<Asking>();
  const [editing, setEditing] = useState<Row>();
  const shown = versions[0]?.entry.part;
  const part = shown?.kind === "exercise" ? shown : emptyPart(item);
  const write = (change: Partial<ExercisePart>) => {
    const now = current();
    onWrite({ ...(now.part ?? emptyPart(item)), ...change }, now.follows);
  };
  const rows = rowsOf(item, lighter);
  const stopped = isStopped(part);
  const open = editing ?? (stopped ? undefined : nextRow(rows, part.sets));
  const seconds = inSeconds(item, part.instead ?? undefined);
  const swap = item.instead.find(({ exercise }) => exercise === part.instead);
  const done = (row: Row, typed: Typed) => {
    const sets = current().part?.sets ?? part.sets;
    const others = sets.filter((set) => !same({ number: set.number, side: set.side ?? undefined }, row));
    write({ sets: [...others, loggedSet(row, typed, seconds)] });
    setEditing(undefined);
    if (!editing) onSet(row);
  };
  const remove = (row: Row) => {
    write({
      sets: part.sets.filter((set) => set.number !== row.number || (set.side ?? undefined) !== row.side),
    });
    setEditing(undefined);
  };
  const take = (exercise: string | undefined) => {
    // What was done before the swap was of another exercise; that it hurt stays told.
    const pain = part.pain && { ...part.pain, during: part.pain.during ?? part.instead ?? part.exercise };
    write({ instead: exercise, sets: [], form: [], variant: undefined, set_up: undefined, pain });
    setAsking(undefined);
  };
  const toggle = (what: Asking) => setAsking(asking === what ? undefined : what);
  const swaps = swapsFor(item, part.pain);
  const fresh = part.sets.length === 0;
  return (
    <>
      <h2 className={styles.name}>
        {mark && <span className={styles.mark}>{mark}</span>}
        {swap?.name ?? item.item.name}
      </h2>
      {swap && <p className="quiet">{t("log.insteadOf", { name: item.item.name })}</p>}
      {!swap && (
        <TargetLine
          item={item}
          part={part}
          seconds={seconds}
          fresh={fresh}
          lighter={lighter}
          onSet={() => setAsking("set-up")}
        />
      )}
      <div className={styles.asks}>
        <button type="button" data-told={!!part.pain} onClick={() => setAsking("pain")}>
          {part.pain ? t("pain.told", { level: part.pain.level }) : t("pain.ask")}
        </button>
        <button type="button" data-told={!!part.felt} onClick={() => setAsking("felt")}>
          {part.felt ? t("felt.told") : t("felt.ask")}
        </button>
        <button type="button" data-told={!!part.form?.length} onClick={() => setAsking("form")}>
          {t("form.ask")}
        </button>
        <button type="button" aria-expanded={asking === "how"} onClick={() => toggle("how")}>
          {t("log.how")}
        </button>
        <button type="button" aria-expanded={asking === "swap"} onClick={() => toggle("swap")}>
          {t("log.swap")}
        </button>
      </div>
      {asking === "how" && <How item={item} />}
      {asking === "swap" && (
        <section aria-label={t("log.swap")}>
          {swaps.length === 0 && <p>{t("log.noSwap")}</p>}
          <div className={styles.choices}>
            {swaps.map(({ exercise, name }) => (
              <button
                key={exercise}
                type="button"
                aria-pressed={part.instead === exercise}
                onClick={() => take(exercise)}
              >
                {name}
              </button>
            ))}
            {part.instead && (
              <button type="button" onClick={() => take(undefined)}>
                {t("log.backTo", { name: item.item.name })}
              </button>
            )}
          </div>
        </section>
      )}
      {versions.length > 1 && (
        <SideBySide
          of={item.item.name}
          versions={versions}
          onChoose={({ entry }) => {
            if (entry.part.kind === "exercise")
              onWrite(
                entry.part,
                versions.map((version) => version.entry.id),
              );
          }}
        />
      )}
      {stopped && (
        <div className={styles.alarm} role="alert">
          <p>{(part.pain?.red_flags?.length ?? 0) > 0 ? t("pain.refer") : t("pain.stop")}</p>
          {(part.pain?.red_flags?.length ?? 0) === 0 && swaps.length > 0 && (
            <button type="button" className={styles.quietBig} onClick={() => setAsking("swap")}>
              {t("log.swap")}
            </button>
          )}
        </div>
      )}
      <ol className={styles.sets} aria-label={t("log.sets")}>
        {rows.map((row) => (
          <li key={`${row.number} ${row.side ?? ""}`}>
            <SetRow
              item={item}
              row={row}
              sets={part.sets}
              seconds={seconds}
              swapped={swap !== undefined}
              open={same(open, row)}
              onOpen={() => setEditing(row)}
              onDone={(typed) => done(row, typed)}
              onRemove={() => remove(row)}
            />
          </li>
        ))}
      </ol>
      <PainSheet
        open={asking === "pain"}
        areas={areas}
        likely={item.loads_joint[0]}
        pain={part.pain}
        onClose={() => setAsking(undefined)}
        onTell={(pain: Pain | undefined) => write({ pain })}
      />
      <FeltSheet
        open={asking === "felt"}
        item={item}
        felt={part.felt}
        onClose={() => setAsking(undefined)}
        onTell={(felt) => write({ felt })}
      />
      <FormSheet
        open={asking === "form"}
        item={item}
        told={part.form ?? []}
        onClose={() => setAsking(undefined)}
        onTell={(form) => write({ form })}
      />
      <SetUpSheet
        open={asking === "set-up"}
        item={item}
        part={part}
        onClose={() => setAsking(undefined)}
        onTell={write}
      />
    </>
  );
}

interface TargetProps {
  item: Item;
  part: ExercisePart;
  seconds: boolean;
  fresh: boolean;
  lighter: boolean;
  onSet: () => void;
}

/** What to do and how the station is set, the picture beside it before the first set; below, last time and why. */
function TargetLine({ item, part, seconds, fresh, lighter, onSet }: TargetProps) {
  const { t } = useTranslation();
  const quantities = useQuantities();
  const { mass } = quantities;
  const { target, last } = item;
  const first = firstSide(item);
  const wanted = lighter ? target.counts.slice(0, item.lighter_sets) : target.counts;
  const same = new Set(wanted).size === 1;
  const counts = same ? `${wanted.length} × ${wanted[0]}` : wanted.join(", ");
  const loads = target.loads_kg ?? [];
  const load =
    loads.length > 0
      ? loads.map((kg) => loadText(mass, kg)).join(", ")
      : target.load_kg != null
        ? loadText(mass, target.load_kg)
        : "";
  return (
    <>
      <div className={styles.station}>
        <div>
          <div className={styles.target}>
            <strong>{[load, `${counts}${seconds ? " s" : ""}`].filter(Boolean).join(" · ")}</strong>
            {first && (
              <span>
                <SideMark side={first} /> {t("log.first")}
              </span>
            )}
          </div>
          <button type="button" className={styles.plain} onClick={onSet}>
            {setUpText(quantities, item, part) || t("setUp.none")}
          </button>
          {item.item.note && <p className={styles.coachSays}>{item.item.note}</p>}
        </div>
        {fresh && <MovementPicture exercise={item.item.exercise} name={item.item.name} size="phone" />}
      </div>
      <dl className={styles.pair}>
        {last && (
          <>
            <dt>{shortDay(last.on)}</dt>
            <dd>{setsText(mass, last.sets, first)}</dd>
          </>
        )}
        {(last?.form ?? []).length > 0 && (
          <>
            <dt>{t("log.watchFirst")}</dt>
            <dd>
              <strong>{last?.form?.join(", ")}</strong>
            </dd>
          </>
        )}
        <dt>{t("log.why")}</dt>
        <dd>
          {target.step && <strong>{t("log.stepUp", { step: target.step })} </strong>}
          {target.why} {target.swap} {target.stall}
        </dd>
        {item.item.tempo && (
          <>
            <dt>{t("log.tempo")}</dt>
            <dd>{t("log.pace", { pace: item.item.tempo.join("-") })}</dd>
          </>
        )}
        {item.item.scheme !== "straight" && (
          <>
            <dt>{t("log.scheme")}</dt>
            <dd>{item.scheme_how}</dd>
          </>
        )}
        {fresh && item.item.warm_up && (
          <>
            <dt>{t("log.warmUp")}</dt>
            <dd>{item.item.warm_up}</dd>
          </>
        )}
      </dl>
    </>
  );
}

function How({ item }: { item: Item }) {
  const { t } = useTranslation();
  return (
    <section aria-label={t("log.how")}>
      <MovementPicture exercise={item.item.exercise} name={item.item.name} size="large" />
      <p>{item.set_up}</p>
      <ul className={styles.list}>
        {item.cues.map((cue) => (
          <li key={cue}>{cue}</li>
        ))}
      </ul>
      <p className={styles.unit}>{t("log.watch")}</p>
      <ul className={styles.list}>
        {[...(item.last?.form ?? []), ...item.faults, ...item.cautions].map((fault) => (
          <li key={fault}>{fault}</li>
        ))}
      </ul>
    </section>
  );
}
