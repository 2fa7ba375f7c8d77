import { Button, Input, type InputProps } from "antd";
import { useId, useState } from "react";
import { useTranslation } from "react-i18next";
import { v4 as uuid } from "uuid";
import { useNames } from "../../../shared/api/atlas";
import { dayName, type Quantity, today, useOwnText, useQuantities } from "../../../shared/format";
import { DateInput, Dialog, ErrorNote, SideMark, Wrong } from "../../../shared/ui";
import { useCorrect } from "../api";
import {
  type Correction,
  correctionOf,
  corrections,
  type Done,
  isCount,
  isLoad,
  isReadable,
  isWhole,
  type TypedPart,
  type TypedSet,
  withSet,
} from "../correct";
import styles from "./Desk.module.css";

/** Puts a session of any day right; what was logged before is kept as an earlier version. */
export function Correcting({
  clientId,
  session,
  onClose,
}: {
  clientId: string;
  session: Done;
  onClose: () => void;
}) {
  const { t } = useTranslation();
  const names = useNames();
  const [typed, setTyped] = useState<Correction>(() => correctionOf(session));
  const { correct, refused, error, isPending } = useCorrect(clientId);
  const put = (some: Partial<Correction>) => setTyped((now) => ({ ...now, ...some }));
  const putPart = (exercise: string, part: TypedPart) =>
    put({ parts: typed.parts.map((one) => (one.exercise === exercise ? part : one)) });
  const now = new Date().toISOString();
  const entries = corrections(session, typed, uuid, now);
  return (
    <Dialog
      open
      wide
      title={t("log.correct.title", { week: session.week, day: dayName(session.day) })}
      onClose={onClose}
    >
      <div className={styles.whole}>
        <div className={styles.field}>
          <label htmlFor="trained-on">{t("log.correct.on")}</label>
          <DateInput id="trained-on" max={today()} value={typed.on} onChange={(on) => put({ on })} />
        </div>
        <Field label={t("log.correct.sleep")} value={typed.sleep} onType={(sleep) => put({ sleep })} />
        <Field
          label={t("log.correct.soreness")}
          value={typed.soreness}
          onType={(soreness) => put({ soreness })}
        />
        <Field line label={t("log.correct.note")} value={typed.note} onType={(note) => put({ note })} />
      </div>
      {typed.parts.map((part) => (
        <PartFields
          key={part.exercise}
          name={names.exercise(part.exercise)}
          part={part}
          onPut={(changed) => putPart(part.exercise, changed)}
        />
      ))}
      {session.conflicts > 0 && <p className="quiet">{t("log.correct.twice")}</p>}
      <footer className={styles.foot}>
        {!isReadable(typed) && <Wrong>{t("log.correct.noNumber")}</Wrong>}
        {refused.map(({ part, says }) => (
          <Wrong key={part}>
            {part ? names.exercise(part) : t("log.wholeSession")}: {says}.
          </Wrong>
        ))}
        {error ? <ErrorNote error={error} /> : null}
        <Button
          type="primary"
          loading={isPending}
          disabled={entries.length === 0 || !isReadable(typed)}
          onClick={() => correct(entries, onClose)}
        >
          {t("log.correct.save")}
        </Button>
      </footer>
    </Dialog>
  );
}

interface FieldProps {
  label: string;
  value: string;
  onType: (value: string) => void;
  /** As wide as there is room. */
  line?: boolean;
}

function Field({ label, value, onType, line = false }: FieldProps) {
  const id = useId();
  return (
    <div className={line ? `${styles.field} ${styles.line}` : styles.field}>
      <label htmlFor={id}>{label}</label>
      <Input id={id} value={value} onChange={(event) => onType(event.target.value)} />
    </div>
  );
}

/** A field whose text is kept in kilograms. */
function OwnInput({ text, onText, quantity, ...input }: OwnProps) {
  const { value, type } = useOwnText(text, onText, quantity);
  return (
    <Input {...input} inputMode="decimal" value={value} onChange={(event) => type(event.target.value)} />
  );
}

interface OwnProps extends Omit<InputProps, "value" | "onChange"> {
  text: string;
  onText: (text: string) => void;
  quantity: Quantity;
}

interface PartProps {
  name: string;
  part: TypedPart;
  onPut: (part: TypedPart) => void;
}

function PartFields({ name, part, onPut }: PartProps) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const putSet = (place: number, some: Partial<TypedSet>) =>
    onPut({ ...part, sets: part.sets.map((set, at) => (at === place ? { ...set, ...some } : set)) });
  return (
    <fieldset className={styles.part}>
      <legend>{name}</legend>
      {part.sets.map((set, place) => {
        const which = `${set.number}${set.side ? ` ${t(`log.${set.side}Side`)}` : ""}`;
        const label = (field: string) => t("log.correct.field", { name, which, field });
        return (
          <div key={`${set.number} ${set.side}`} className={styles.setFields}>
            <span className="quiet">{set.number}</span>
            <span>{set.side && <SideMark side={set.side} />}</span>
            <OwnInput
              aria-label={label(t("log.page.load", { unit: mass.unit }))}
              status={isLoad(set.load, set.helped) ? "" : "error"}
              suffix={mass.unit}
              quantity={mass}
              text={set.load}
              onText={(load) => putSet(place, { load })}
            />
            <Input
              aria-label={label(set.seconds ? t("log.time") : t("log.reps"))}
              status={isCount(set.count) ? "" : "error"}
              suffix={set.seconds ? "s" : t("log.correct.reps")}
              inputMode="numeric"
              value={set.count}
              onChange={(event) => putSet(place, { count: event.target.value })}
            />
            <Input
              aria-label={label(t("log.reserve"))}
              status={isWhole(set.reserve) ? "" : "error"}
              suffix={t("log.correct.left")}
              inputMode="numeric"
              disabled={set.seconds}
              value={set.reserve}
              onChange={(event) => putSet(place, { reserve: event.target.value })}
            />
            <button
              type="button"
              className="text-button"
              aria-label={t("log.correct.without", { name, which })}
              title={t("log.correct.without", { name, which })}
              onClick={() => onPut({ ...part, sets: part.sets.filter((one) => one !== set) })}
            >
              ×
            </button>
          </div>
        );
      })}
      {part.sets.length === 0 && <p className="quiet">{t("log.correct.nothing")}</p>}
      <div className={styles.partLine}>
        <button type="button" className="text-button" onClick={() => onPut(withSet(part))}>
          {t("log.correct.more")}
        </button>
        {part.pain !== undefined && (
          <Field
            label={t("log.correct.pain")}
            value={part.pain}
            onType={(pain) => onPut({ ...part, pain })}
          />
        )}
        <Field
          line
          label={t("log.correct.partNote")}
          value={part.note}
          onType={(note) => onPut({ ...part, note })}
        />
      </div>
    </fieldset>
  );
}
