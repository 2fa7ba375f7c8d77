import { Input, Select } from "antd";
import { useId, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { type Atlas, useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { PLAIN, type Quantity, useQuantities } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import {
  BOUNDS,
  parseRange,
  parseTempo,
  parseWhole,
  rangeText,
  shared,
  tempoText,
  type Written,
  within,
  wrote,
  wroteSetUp,
} from "../dose";
import { type Card, cardAt, type Item, itemAt, type Plan, type Spot, type Week } from "../model";
import styles from "./CardPanel.module.css";
import { Field } from "./Field";
import { HandsOn } from "./HandsOn";
import { SetBySet } from "./SetBySet";
import { SidePanel } from "./SidePanel";

interface Props {
  clientId: string;
  week: Week;
  plan: Plan;
  atlas: Atlas;
  spots: Spot[];
  onChange: (week: Week, tag?: string) => void;
  onClose: () => void;
}

/** What a coach writes on a card, or on several at once: what is not touched is as the exercise, the scheme and the school have it. */
export function CardPanel({ clientId, week, plan, atlas, spots, onChange, onClose }: Props) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const names = useNames();
  const id = useId();
  const found = spots.flatMap((spot) => {
    const card = cardAt(week, spot);
    return card ? [{ spot, card, item: itemAt(plan, week, spot) }] : [];
  });
  const cards = found.map(({ card }) => card);
  const first = found[0];
  if (!first) return null;
  const one = found.length === 1 ? first : undefined;
  const exercise = one && atlas.exercises.find(({ id }) => id === one.card.exercise);
  const title = one ? names.exercise(one.card.exercise) : t("card.several", { count: found.length });
  const own = found.map(({ spot }) => spot);
  const write = (change: Partial<Written>, tag: string) =>
    onChange(wrote(week, own, change), `${tag} ${own.map(({ session, place }) => `${session}.${place}`)}`);
  const timed = found.every(({ card, item }) => card.written?.seconds ?? item?.seconds);
  const touched = cards.some(({ written }) => written);
  return (
    <SidePanel label={t("card.title", { name: title })} title={title} onClose={onClose}>
      <p className="quiet">{t("card.hint")}</p>
      <div className={styles.grid}>
        <Field
          label={timed ? t("card.seconds") : t("card.reps")}
          written={rangeText(shared(cards, (written) => (timed ? written.seconds : written.reps)))}
          usual={usual(found, (item) => rangeText(item.reps ?? item.seconds))}
          example="8–12"
          parse={(typed) => parseRange(typed, timed ? BOUNDS.seconds : BOUNDS.reps)}
          onWrite={(range) => write(timed ? { seconds: range } : { reps: range }, "reps")}
        />
        <Field
          label={t("card.reserve")}
          written={text(shared(cards, ({ reserve }) => reserve))}
          usual={usual(found, ({ reserve }) => String(reserve))}
          example="1"
          parse={(typed) => parseWhole(typed, BOUNDS.reserve)}
          onWrite={(reserve) => write({ reserve }, "reserve")}
        />
        <Field
          label={t("card.rest")}
          unit="s"
          written={text(shared(cards, ({ rest_s }) => rest_s))}
          usual={usual(found, ({ rest_s }) => String(rest_s))}
          example="90"
          parse={(typed) => parseWhole(typed, BOUNDS.rest_s)}
          onWrite={(rest_s) => write({ rest_s }, "rest")}
        />
        <Field
          label={t("card.tempo")}
          written={tempoText(shared(cards, ({ tempo }) => tempo))}
          usual={t("card.ownPace")}
          example="3-0-1-0"
          parse={parseTempo}
          onWrite={(tempo) => write({ tempo }, "tempo")}
        />
        <Field
          label={t("card.load")}
          unit={mass.unit}
          written={inUnit(
            mass,
            shared(cards, ({ load_kg }) => load_kg),
          )}
          usual={t("card.findLoad")}
          example="12.5"
          parse={(typed) => within(mass.parseSigned(typed), BOUNDS.load_kg)}
          onWrite={(load_kg) => write({ load_kg }, "load")}
        />
        {found.every(({ item }) => item && item.sides !== "both") && (
          <First cards={cards} items={found.flatMap(({ item }) => item ?? [])} onWrite={write} />
        )}
      </div>
      {one && exercise && (
        <>
          {exercise.variants.length > 0 && (
            <label className={styles.wide} htmlFor={`${id}-variant`}>
              <span>{t("card.variant")}</span>
              <Select
                id={`${id}-variant`}
                size="small"
                value={one.card.written?.variant ?? one.item?.variant ?? ""}
                onChange={(variant) => write({ variant: variant || undefined }, "variant")}
                options={[
                  { value: "", label: t("card.asNamed") },
                  ...exercise.variants.map(({ id, name }) => ({ value: id, label: name })),
                ]}
              />
            </label>
          )}
          <SetUpFields
            fields={fieldsOf(atlas, exercise, one.item)}
            card={one.card}
            item={one.item}
            onWrite={(name, value) => onChange(wroteSetUp(week, own, name, value), `set-up ${name}`)}
          />
          <SetBySet
            key={one.card.exercise}
            week={week}
            spot={one.spot}
            card={one.card}
            item={one.item}
            atlas={atlas}
            onChange={onChange}
          />
          <Link to={`/library?exercise=${one.card.exercise}&client=${clientId}`}>{t("card.movement")}</Link>
          <HandsOn key={`hands ${one.card.exercise}`} clientId={clientId} exercise={one.card.exercise} />
        </>
      )}
      <label className={styles.wide} htmlFor={`${id}-note`}>
        <span>{t("card.note")}</span>
        <Input.TextArea
          id={`${id}-note`}
          rows={2}
          maxLength={300}
          value={shared(cards, ({ note }) => note) ?? ""}
          onChange={(event) => write({ note: event.target.value.replaceAll("\n", " ") || undefined }, "note")}
        />
      </label>
      {touched && (
        <button
          type="button"
          className="text-button"
          onClick={() =>
            onChange(own.reduce((now, spot) => wrote(now, [spot], cleared(cardAt(now, spot))), week))
          }
        >
          {t("card.clear")}
        </button>
      )}
    </SidePanel>
  );
}

type Found = { card: Card; item?: Item };

const inUnit = (quantity: Quantity, value: number | undefined): string =>
  value === undefined ? "" : quantity.typed(value);
const text = (value: number | undefined): string => (value === undefined ? "" : String(value));

/** What holds without anything written: for several cards only where it is the same. */
function usual(found: Found[], of: (item: Item) => string): string {
  const values = new Set(found.flatMap(({ item }) => (item ? [of(item)] : [])));
  return values.size === 1 ? ([...values][0] ?? "") : "";
}

/** Every field of a writing taken back. */
const cleared = (card: Card | undefined): Partial<Written> =>
  Object.fromEntries(Object.keys(card?.written ?? {}).map((key) => [key, undefined]));

/** The numbers that the kit has, those that are set now first. */
function fieldsOf(atlas: Atlas, exercise: Schemas["CatalogueExercise"], item?: Item) {
  const kinds = new Set(exercise.equipment_any.flat().flatMap((kit) => [kit, kit.split(":")[0] ?? kit]));
  const set = (name: string) => item?.set_up?.[name] !== undefined;
  const shown = atlas.set_up_fields.filter(({ name, kit }) => set(name) || kit.some((one) => kinds.has(one)));
  return shown.sort((one, other) => Number(set(other.name)) - Number(set(one.name)));
}

interface FirstProps {
  cards: Card[];
  items: Item[];
  onWrite: (change: Partial<Written>, tag: string) => void;
}

/** The side that goes first. */
function First({ cards, items, onWrite }: FirstProps) {
  const { t } = useTranslation();
  const written = shared(cards, ({ first }) => first);
  const side = written ?? (items[0]?.sides === "right-first" ? "right" : "left");
  return (
    <fieldset className={styles.field} data-touched={written !== undefined || undefined}>
      <legend>{t("card.first")}</legend>
      <span className={styles.sides}>
        {(["left", "right"] as const).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={side === one}
            onClick={() => onWrite({ first: written === one ? undefined : one }, "first")}
          >
            <SideMark side={one} label={t(`plan.sideNames.${one}`)} />
          </button>
        ))}
      </span>
    </fieldset>
  );
}

interface SetUpProps {
  fields: Schemas["SetUpField"][];
  card: Card;
  item?: Item;
  onWrite: (name: string, value: number | undefined) => void;
}

/** The numbers by which the station is set, the client's own as default. */
function SetUpFields({ fields, card, item, onWrite }: SetUpProps) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const [all, setAll] = useState(false);
  const shown = all ? fields : fields.slice(0, 2);
  if (fields.length === 0) return null;
  return (
    <fieldset className={styles.setUp}>
      <legend>{t("card.setUp")}</legend>
      {shown.map(({ name, says, hint, unit, range }) => (
        <Field
          key={name}
          label={hint ? `${says}, ${hint}` : says}
          unit={unit === "cm" ? length.unit : unit}
          written={inUnit(unit === "cm" ? length : PLAIN, card.written?.set_up?.[name])}
          usual={inUnit(unit === "cm" ? length : PLAIN, item?.set_up?.[name])}
          example={inUnit(unit === "cm" ? length : PLAIN, range[1])}
          parse={(typed) =>
            within((unit === "cm" ? length : PLAIN).parseSigned(typed), [range[0] ?? 0, range[1] ?? 0])
          }
          onWrite={(value) => onWrite(name, value)}
        />
      ))}
      {fields.length > shown.length && (
        <button type="button" className="text-button" onClick={() => setAll(true)}>
          {t("card.moreSetUp", { count: fields.length - shown.length })}
        </button>
      )}
    </fieldset>
  );
}
