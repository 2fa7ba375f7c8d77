import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { SideMark } from "../../../shared/ui";
import {
  beyond,
  capped,
  clockOf,
  countOf,
  heldTo,
  type Item,
  type LogSet,
  type Row,
  setAt,
  setText,
  startOf,
  stepKg,
  stepped,
  type Typed,
} from "../model";
import { Choices } from "./Choices";
import styles from "./Phone.module.css";
import { SchemeClockView } from "./SchemeClockView";
import { Stepper } from "./Stepper";

interface Props {
  item: Item;
  row: Row;
  sets: LogSet[];
  seconds: boolean;
  /** The set that is about to be done, or is being put right. */
  open: boolean;
  onOpen: () => void;
  onDone: (typed: Typed) => void;
  onRemove: () => void;
}

const RESERVES = [0, 1, 2, 3, 4];

/** A set: what was done, or the fields for what is about to be. */
export function SetRow({ item, row, sets, seconds, open, onOpen, onDone, onRemove }: Props) {
  const { t } = useTranslation();
  const done = setAt(sets, row);
  if (!open) {
    const target = item.target.counts[row.number - 1] ?? item.target.counts.at(-1);
    return (
      <button type="button" className={styles.set} data-state={done ? "done" : "open"} onClick={onOpen}>
        <span className="quiet">{row.number}</span>
        <span>{row.side && <SideMark side={row.side} />}</span>
        <strong>{done ? setText(done) : ""}</strong>
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
      done={done}
      onDone={onDone}
      onRemove={onRemove}
    />
  );
}

type FieldsProps = Omit<Props, "open" | "onOpen"> & { done?: LogSet };

function Fields({ item, row, sets, seconds, done, onDone, onRemove }: FieldsProps) {
  const { t } = useTranslation();
  const from = done
    ? { load_kg: done.load_kg ?? undefined, count: countOf(done), reserve: done.reserve ?? undefined }
    : startOf(item, row, sets);
  const [typed, setTyped] = useState<Typed>(from);
  const held = heldTo(item, row, sets);
  const put = (part: Partial<Typed>) => setTyped((now) => capped({ ...now, ...part }, held));
  const heldCount = held && countOf(held);
  useEffect(() => {
    // The weaker side's set was put right while this one was open.
    if (heldCount !== undefined) setTyped((now) => ({ ...now, count: Math.min(now.count, heldCount) }));
  }, [heldCount]);
  const [fits, setFits] = useState({ load: true, count: true });
  const step = stepKg(item, typed.load_kg);
  const over = beyond(typed, seconds);
  const wrong = fits.load && fits.count ? undefined : t("log.noNumber");
  const says = wrong ?? (over && t(`log.beyond.${over.what}`, { most: over.most }));
  const clock = clockOf(item);
  return (
    <div className={styles.now}>
      <div className={styles.nowHead}>
        <strong>{t("log.set", { number: row.number })}</strong>
        {row.side && <SideMark side={row.side} label={t(`log.${row.side}Side`)} />}
        {held && <span className="quiet">{t("log.noMore", { done: setText(held) })}</span>}
      </div>
      {clock && (
        <SchemeClockView clock={clock} scheme={item.item.scheme} onCount={(count) => put({ count })} />
      )}
      <div className={styles.steppers}>
        <Stepper
          label={t("log.load")}
          unit="kg"
          optional
          value={typed.load_kg}
          most={held?.load_kg ?? undefined}
          onStep={(direction) => put({ load_kg: stepped(typed.load_kg, direction * step) })}
          onType={(load_kg) => put({ load_kg })}
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
      {!seconds && (
        <Choices
          label={t("log.reserve")}
          options={RESERVES}
          text={(reserve) => (reserve === 4 ? "4+" : String(reserve))}
          picked={(reserve) => typed.reserve === reserve}
          onPick={(reserve) => put({ reserve })}
        />
      )}
      {says && (
        <p role="alert" className={styles.wrong}>
          {says}
        </p>
      )}
      <button
        type="button"
        className={styles.big}
        disabled={says !== undefined}
        onClick={() => onDone(typed)}
      >
        {done ? t("log.putRight") : t("log.setDone")}
      </button>
      {done && (
        <button type="button" className={styles.plain} onClick={onRemove}>
          {t("log.notDone")}
        </button>
      )}
    </div>
  );
}
