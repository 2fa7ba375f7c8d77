import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { useQuantities } from "../../../shared/format";
import { clockText, type LogPart, type PlannedPart, startPart, stepped } from "../model";
import own from "./PartRows.module.css";
import styles from "./Phone.module.css";

interface Props {
  /** What follows straight on this set by plan. */
  planned: PlannedPart[];
  /** What was done of it, and more. */
  parts: LogPart[];
  load_kg: number | undefined;
  /** By how much a load goes. */
  step: number;
  onParts: (parts: LogPart[]) => void;
}

/** What can follow on any set. */
const MORE: LogPart["kind"][] = ["drop", "partials", "pause", "hold", "assisted"];

/** What follows straight on a set: each with its own row, written down when it was done. */
export function PartRows({ planned, parts, load_kg, step, onParts }: Props) {
  const { t } = useTranslation();
  const put = (index: number, part: LogPart | undefined) =>
    onParts(parts.flatMap((one, place) => (place === index ? (part ? [part] : []) : [one])));
  if (planned.length + parts.length === 0) return null;
  const waiting = planned.filter(({ kind }) => parts.every((part) => part.kind !== kind));
  return (
    <div className={own.parts}>
      {parts.map((part, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: parts of a set have no identity but their place
        <PartRow key={index} part={part} step={step} onPut={(next) => put(index, next)} />
      ))}
      {waiting.map((part) => (
        <div key={part.kind} className={styles.choices}>
          {part.seconds != null && <Pause seconds={part.seconds} kind={part.kind} />}
          <button type="button" onClick={() => onParts([...parts, startPart(part, load_kg, step)])}>
            {t(`part.add.${part.kind}`)}
          </button>
        </div>
      ))}
    </div>
  );
}

interface MoreProps {
  step: number;
  load_kg: number | undefined;
  onAdd: (part: LogPart) => void;
}

/** Something that followed straight on the set and was not planned. */
export function MoreParts({ step, load_kg, onAdd }: MoreProps) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <button type="button" className={styles.plain} onClick={() => setOpen(true)}>
        {t("part.more")}
      </button>
    );
  return (
    <div className={styles.choices}>
      {MORE.map((kind) => (
        <button
          key={kind}
          type="button"
          onClick={() => {
            onAdd(startPart({ kind }, load_kg, step));
            setOpen(false);
          }}
        >
          {t(`part.names.${kind}`)}
        </button>
      ))}
    </div>
  );
}

interface RowProps {
  part: LogPart;
  step: number;
  onPut: (part: LogPart | undefined) => void;
}

/** One of them: its load and how much of it. */
function PartRow({ part, step, onPut }: RowProps) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const name = t(`part.names.${part.kind}`);
  const timed = part.seconds != null;
  const count = part.seconds ?? part.reps ?? 1;
  const counted = (next: number) => onPut({ ...part, [timed ? "seconds" : "reps"]: Math.max(1, next) });
  const loaded = part.kind !== "pause" && part.kind !== "hold" && part.kind !== "partials";
  const shown = timed ? `${count} s` : `× ${count}`;
  return (
    <fieldset className={own.partRow}>
      <legend>{name}</legend>
      {loaded && (
        <Turn
          label={t("part.load", { name })}
          shown={part.load_kg == null ? "–" : mass.full(part.load_kg)}
          onTurn={(by) => onPut({ ...part, load_kg: stepped(mass, part.load_kg ?? undefined, by * step) })}
        />
      )}
      <Turn
        label={t("part.count", { name })}
        shown={shown}
        onTurn={(by) => counted(count + by * (timed ? 5 : 1))}
      />
      <button type="button" className={styles.plain} onClick={() => onPut(undefined)}>
        {t("part.not")}
      </button>
    </fieldset>
  );
}

function Turn({ label, shown, onTurn }: { label: string; shown: string; onTurn: (by: 1 | -1) => void }) {
  return (
    <span className={own.turn}>
      <button type="button" aria-label={`${label} −`} onClick={() => onTurn(-1)}>
        −
      </button>
      <output aria-label={label}>{shown}</output>
      <button type="button" aria-label={`${label} +`} onClick={() => onTurn(1)}>
        +
      </button>
    </span>
  );
}

/** The breaths of a pause, or the time of a hold or a carry. */
function Pause({ seconds, kind }: { seconds: number; kind: LogPart["kind"] }) {
  const { t } = useTranslation();
  const [ends, setEnds] = useState<number>();
  const [now, setNow] = useState(0);
  const left = ends === undefined ? seconds : (ends - now) / 1000;
  const over = ends !== undefined && left <= 0;
  useEffect(() => {
    if (ends === undefined) return;
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, [ends]);
  useEffect(() => {
    if (over) navigator.vibrate?.(200);
  }, [over]);
  return (
    <button
      type="button"
      aria-pressed={ends !== undefined}
      onClick={() => {
        setNow(Date.now());
        setEnds(ends === undefined ? Date.now() + seconds * 1000 : undefined);
      }}
    >
      {t(`part.names.${kind}`)} {clockText(left)}
    </button>
  );
}
