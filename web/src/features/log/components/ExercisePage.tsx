import { useState } from "react";
import { useTranslation } from "react-i18next";
import { MovementPicture } from "../../../shared/figure";
import { shortDay } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import {
  type EntryView,
  type ExercisePart,
  emptyPart,
  firstSide,
  type Item,
  inSeconds,
  isStopped,
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
import { PainSheet } from "./PainSheet";
import styles from "./Phone.module.css";
import { SetRow } from "./SetRow";
import { SideBySide } from "./SideBySide";

interface Props {
  item: Item;
  versions: EntryView[];
  areas: string[];
  onWrite: (part: ExercisePart, follows: string[]) => void;
  /** A set was done: rest for so long. */
  onRest: (seconds: number) => void;
}

const same = (a: Row | undefined, b: Row) => a?.number === b.number && a.side === b.side;

/** One exercise: what to do, what was done last time, and the sets. */
export function ExercisePage({ item, versions, areas, onWrite, onRest }: Props) {
  const { t } = useTranslation();
  const [asking, setAsking] = useState<"pain" | "felt" | "how" | "swap">();
  const [editing, setEditing] = useState<Row>();
  const current = versions[0];
  const part = current?.entry.part.kind === "exercise" ? current.entry.part : emptyPart(item);
  const write = (change: Partial<ExercisePart>) =>
    onWrite({ ...part, ...change }, current ? [current.entry.id] : []);
  const rows = rowsOf(item);
  const stopped = isStopped(part);
  const open = editing ?? (stopped ? undefined : nextRow(rows, part.sets));
  const seconds = inSeconds(item, part.instead ?? undefined);
  const swap = item.instead.find(({ exercise }) => exercise === part.instead);
  const first = firstSide(item);
  const done = (row: Row, typed: Typed) => {
    const others = part.sets.filter((set) => !same({ number: set.number, side: set.side ?? undefined }, row));
    write({ sets: [...others, loggedSet(row, typed, seconds)] });
    setEditing(undefined);
    // Sides take turns without a rest of their own.
    if (!editing && (!row.side || row.side !== first)) onRest(item.item.rest_s);
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
    write({ instead: exercise, sets: [], pain });
    setAsking(undefined);
  };
  const swaps = swapsFor(item, part.pain);
  return (
    <>
      <h2 className={styles.name}>{swap?.name ?? item.item.name}</h2>
      {swap && <p className="quiet">{t("log.insteadOf", { name: item.item.name })}</p>}
      {!swap && <TargetLine item={item} seconds={seconds} fresh={part.sets.length === 0} />}
      <div className={styles.asks}>
        <button type="button" data-told={!!part.pain} onClick={() => setAsking("pain")}>
          {part.pain ? t("pain.told", { level: part.pain.level }) : t("pain.ask")}
        </button>
        <button type="button" data-told={!!part.felt} onClick={() => setAsking("felt")}>
          {part.felt ? t("felt.told") : t("felt.ask")}
        </button>
        <button
          type="button"
          aria-expanded={asking === "how"}
          onClick={() => setAsking(asking === "how" ? undefined : "how")}
        >
          {t("log.how")}
        </button>
        <button
          type="button"
          aria-expanded={asking === "swap"}
          onClick={() => setAsking(asking === "swap" ? undefined : "swap")}
        >
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
    </>
  );
}

function TargetLine({ item, seconds, fresh }: { item: Item; seconds: boolean; fresh: boolean }) {
  const { t } = useTranslation();
  const { target, last } = item;
  const first = firstSide(item);
  const same = new Set(target.counts).size === 1;
  const counts = same ? `${target.counts.length} × ${target.counts[0]}` : target.counts.join(", ");
  const load = target.load_kg != null ? `${target.load_kg} kg` : "";
  return (
    <>
      <div className={styles.target}>
        <strong>{[load, `${counts}${seconds ? " s" : ""}`].filter(Boolean).join(" · ")}</strong>
        {first && (
          <span>
            <SideMark side={first} /> {t("log.first")}
          </span>
        )}
      </div>
      <dl className={styles.pair}>
        {last && (
          <>
            <dt>{shortDay(last.on)}</dt>
            <dd>{setsText(last.sets, first)}</dd>
          </>
        )}
        <dt>{t("log.why")}</dt>
        <dd>
          {target.step && <strong>{t("log.stepUp", { step: target.step })} </strong>}
          {target.why} {target.swap} {target.stall}
        </dd>
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
        {[...item.faults, ...item.cautions].map((fault) => (
          <li key={fault}>{fault}</li>
        ))}
      </ul>
    </section>
  );
}
