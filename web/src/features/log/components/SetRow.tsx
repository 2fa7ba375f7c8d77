import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { useQuantities } from "../../../shared/format";
import { SideMark, Wrong } from "../../../shared/ui";
import {
  beyond,
  capped,
  clockOf,
  countOf,
  farFrom,
  heldTo,
  type Item,
  type LogSet,
  loadText,
  plannedParts,
  type Row,
  setAt,
  setText,
  startOf,
  stepOf,
  stepped,
  type Typed,
} from "../model";
import { Choices } from "./Choices";
import { MoreParts, PartRows } from "./PartRows";
import styles from "./Phone.module.css";
import { SchemeClockView } from "./SchemeClockView";
import { Stepper } from "./Stepper";

interface Props {
  item: Item;
  row: Row;
  sets: LogSet[];
  seconds: boolean;
  /** Another exercise is done instead: last time's loads say nothing of it. */
  swapped: boolean;
  /** The set that is about to be done, or is being put right. */
  open: boolean;
  onOpen: () => void;
  onDone: (typed: Typed) => void;
  onRemove: () => void;
}

const RESERVES = [0, 1, 2, 3, 4];

/** A set: what was done, or the fields for what is about to be. */
export function SetRow({ item, row, sets, seconds, swapped, open, onOpen, onDone, onRemove }: Props) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const done = setAt(sets, row);
  if (!open) {
    const target = item.target.counts[row.number - 1] ?? item.target.counts.at(-1);
    return (
      <button type="button" className={styles.set} data-state={done ? "done" : "open"} onClick={onOpen}>
        <span className="quiet">{row.number}</span>
        <span>{row.side && <SideMark side={row.side} />}</span>
        <strong>{done ? setText(mass, done) : ""}</strong>
        <span className="quiet">
          {done
            ? done.reserve != null && t("log.left", { count: done.reserve })
            : `${target}${seconds ? " s" : ""}`}
        </span>
      </button>
    );
  }
  return (
    <Fields
      key={`${row.number} ${row.side}`}
      item={item}
      row={row}
      sets={sets}
      seconds={seconds}
      swapped={swapped}
      done={done}
      onDone={onDone}
      onRemove={onRemove}
    />
  );
}

type FieldsProps = Omit<Props, "open" | "onOpen"> & { done?: LogSet };

function Fields({ item, row, sets, seconds, swapped, done, onDone, onRemove }: FieldsProps) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const from = done
    ? {
        load_kg: done.load_kg ?? undefined,
        count: countOf(done),
        reserve: done.reserve ?? undefined,
        parts: done.parts ?? [],
      }
    : { ...startOf(item, row, sets), parts: [] };
  const [typed, setTyped] = useState<Typed>(from);
  const [far, setFar] = useState<number>();
  const held = heldTo(item, row, sets);
  const put = (part: Partial<Typed>) => {
    // Another load is another question.
    setFar(undefined);
    setTyped((now) => capped({ ...now, ...part }, held));
  };
  const heldCount = held && countOf(held);
  useEffect(() => {
    // The weaker side's set was put right while this one was open.
    if (heldCount !== undefined) setTyped((now) => ({ ...now, count: Math.min(now.count, heldCount) }));
  }, [heldCount]);
  const [fits, setFits] = useState({ load: true, count: true });
  const step = stepOf(mass, item, typed.load_kg);
  const over = beyond(typed, seconds);
  const wrong = fits.load && fits.count ? undefined : t("log.noNumber");
  const says =
    wrong ??
    (over &&
      t(`log.beyond.${over.what}`, { most: over.what === "load_kg" ? mass.full(over.most) : over.most }));
  const clock = clockOf(item);
  const helps = (typed.load_kg ?? 0) < 0;
  const size = typed.load_kg === undefined ? undefined : Math.abs(typed.load_kg);
  const sized = (kg: number | undefined) => put({ load_kg: kg === undefined ? undefined : helps ? -kg : kg });
  const keep = () => {
    const most = farFrom(swapped ? undefined : item.last, sets, typed.load_kg);
    // A load ten times the last is asked about once before it is kept.
    if (most !== undefined && far === undefined) setFar(most);
    else onDone(typed);
  };
  return (
    <div className={styles.now}>
      <div className={styles.nowHead}>
        <strong>{t("log.set", { number: row.number })}</strong>
        {row.side && <SideMark side={row.side} label={t(`log.${row.side}Side`)} />}
        {held && <span className="quiet">{t("log.noMore", { done: setText(mass, held) })}</span>}
      </div>
      {clock && <SchemeClockView clock={clock} onCount={(count) => put({ count })} />}
      <div className={styles.steppers}>
        <Stepper
          label={helps ? t("log.help") : t("log.load")}
          unit={mass.unit}
          quantity={mass}
          optional
          value={size}
          most={helps ? undefined : (held?.load_kg ?? undefined)}
          onStep={(direction) => sized(stepped(mass, size, direction * step))}
          onType={sized}
          onFits={(load) => setFits((now) => ({ ...now, load }))}
        />
        <Stepper
          label={seconds ? t("log.time") : t("log.reps")}
          unit={seconds ? "s" : ""}
          value={typed.count}
          most={heldCount}
          onStep={(direction) => put({ count: Math.max(1, typed.count + direction * (seconds ? 5 : 1)) })}
          onType={(count) => put({ count: Math.round(count ?? typed.count) })}
          onFits={(count) => setFits((now) => ({ ...now, count }))}
        />
      </div>
      {item.assistable && size !== undefined && (
        <Choices
          label={t("log.heldOrHelp")}
          options={["held", "help"] as const}
          text={(one) => t(`log.${one}`)}
          picked={(one) => (one === "help") === helps}
          onPick={(one) => put({ load_kg: one === "help" ? -size : size })}
        />
      )}
      {!seconds && (
        <Choices
          label={t("log.reserve")}
          options={RESERVES}
          text={(reserve) => (reserve === 4 ? "4+" : String(reserve))}
          picked={(reserve) => typed.reserve === reserve}
          onPick={(reserve) => put({ reserve })}
        />
      )}
      <PartRows
        planned={plannedParts(item, row.number)}
        parts={typed.parts ?? []}
        load_kg={typed.load_kg}
        step={step}
        onParts={(parts) => put({ parts })}
      />
      {far !== undefined && (
        <Wrong>{t("log.far", { load: loadText(mass, typed.load_kg ?? 0), last: loadText(mass, far) })}</Wrong>
      )}
      <Wrong>{says}</Wrong>
      <button type="button" className={styles.big} disabled={says !== undefined} onClick={keep}>
        {far !== undefined ? t("log.keepFar") : done ? t("log.putRight") : t("log.setDone")}
      </button>
      <MoreParts
        step={step}
        load_kg={typed.load_kg}
        onAdd={(part) => put({ parts: [...(typed.parts ?? []), part] })}
      />
      {done && (
        <button type="button" className={styles.plain} onClick={onRemove}>
          {t("log.notDone")}
        </button>
      )}
    </div>
  );
}
