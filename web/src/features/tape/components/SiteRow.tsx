import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { mm, shownText, useQuantities } from "../../../shared/format";
import { Wrong } from "../../../shared/ui";
import { type Cell, cell, cellsOf, isFold, levelCell, type Place, READINGS, type Side } from "../model";
import type { Editor } from "../useSheetEditor";
import { ReadingField } from "./ReadingField";
import { SiteLean } from "./SiteLean";
import styles from "./TapeSheet.module.css";

interface Props {
  place: Place;
  /** Whether it is the one that is worked on: on a phone no other is shown. */
  here: boolean;
  /** What the tape's level is noted from, where it is. */
  levelFrom?: string;
  sheet: Schemas["TapeSheet"];
  editor: Editor;
  onFocus: () => void;
}

/** One line: readings of each side, how far apart they are, the change since last time, and what leans. */
export function SiteRow({ place, here, levelFrom, sheet, editor, onFocus }: Props) {
  const { t } = useTranslation();
  const { length, said: own } = useQuantities();
  const fold = isFold(place);
  const carried = fold
    ? undefined
    : sheet.sites.find((value) => value.site === place.id && value.carried_over);
  const warnings = sheet.warnings.filter((w) => w.site === place.id && !!w.fold === fold);
  const noted = editor.texts[levelCell(place.id)];
  const level = noted && `${shownText(noted, length)} ${length.unit}`;
  const cells = fold ? cellsOf(place) : [...cellsOf(place), levelCell(place.id)];
  const wrong = cells.flatMap((key) => said(key, editor, t));
  return (
    <fieldset className={styles.row} data-here={here} aria-label={place.name} onFocus={onFocus}>
      <span className={styles.name}>
        {place.name}
        {carried && (
          <span className={`quiet ${styles.carried}`}>
            {length.text(carried.value_cm)} {length.unit} {t("tape.carried")}
          </span>
        )}
        {!fold && level && levelFrom && (
          <span className={`quiet ${styles.carried}`} title={t("tape.levelAt", { level, from: levelFrom })}>
            {t("tape.levelShort", { level })}
          </span>
        )}
      </span>
      {place.sides.map((side) => (
        <SideFields key={side ?? ""} place={place} side={side} sheet={sheet} editor={editor} />
      ))}
      <span className={styles.change}>
        {place.sides.map((side) =>
          fold ? (
            <EarlierFold key={side ?? ""} fold={place.id} side={side} sheet={sheet} />
          ) : (
            <Change key={side ?? ""} site={place.id} side={side} sheet={sheet} />
          ),
        )}
      </span>
      {!fold && <SiteLean asymmetry={sheet.asymmetries.find((a) => a.site === place.id)} />}
      {wrong.map((says) => (
        <Wrong key={says}>{own(says)}</Wrong>
      ))}
      {warnings.map(({ side, says }) => (
        <span key={`${side} ${says}`} className={styles.warning}>
          {side && `${t(`tape.${side}`)}: `}
          {own(says)}.
        </span>
      ))}
    </fieldset>
  );
}

type Translate = ReturnType<typeof useTranslation>["t"];

/** What is wrong with a field, in words. */
export function said(key: Cell, editor: Editor, t: Translate): string[] {
  if (editor.unreadable.includes(key)) return [t("tape.notNumber", { text: editor.texts[key] })];
  return editor.problems[key] ? [editor.problems[key]] : [];
}

function readOf(place: Place, side: Side | undefined, sheet: Schemas["TapeSheet"]) {
  const here = (one: { site: string; side?: Side | null }) =>
    one.site === place.id && (one.side ?? undefined) === side;
  if (isFold(place)) {
    const value = sheet.fold_values.find(here);
    return value && { due: value.needs_third, apart: undefined };
  }
  const value = sheet.sites.find((one) => here(one) && !one.carried_over);
  return value && { due: value.needs_third, apart: value.difference_pct ?? undefined };
}

function SideFields({
  place,
  side,
  sheet,
  editor,
}: Pick<Props, "place" | "sheet" | "editor"> & { side?: Side }) {
  const { length } = useQuantities();
  const value = readOf(place, side, sheet);
  const third = value?.due || editor.texts[cell(place.key, side, 2)];
  return (
    <span
      className={`${styles.side} ${side ? "" : styles.middle} ${value?.due ? styles.third : ""}`}
      data-side={side}
    >
      {Array.from({ length: third ? READINGS : READINGS - 1 }, (_, reading) => (
        <ReadingField
          key={cell(place.key, side, reading)}
          place={place}
          side={side}
          reading={reading}
          editor={editor}
        />
      ))}
      <span className={styles.unit} aria-hidden="true">
        {isFold(place) ? "mm" : length.unit}
      </span>
      <span className={`${styles.apart} ${value?.due ? styles.due : ""}`}>
        {value?.apart !== undefined && `${value.apart.toFixed(1)} %`}
      </span>
    </span>
  );
}

const letterOf = (side?: Side) => (side === "left" ? "L " : side === "right" ? "R " : "");

function EarlierFold({ fold, side, sheet }: { fold: string; side?: Side; sheet: Schemas["TapeSheet"] }) {
  const before = sheet.earlier_folds.find((one) => one.site === fold && (one.side ?? undefined) === side);
  if (!before) return null;
  return (
    <span className="quiet" style={{ display: "block" }}>
      {letterOf(side)}
      {mm(before.value_mm)}
    </span>
  );
}

function Change({ site, side, sheet }: { site: string; side?: Side; sheet: Schemas["TapeSheet"] }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const same = (one: { site: string; side?: Side | null }) =>
    one.site === site && (one.side ?? undefined) === side;
  const letter = letterOf(side);
  const change = sheet.changes.find(same);
  const before = sheet.earlier.find(same);
  // Before this round's reading is there, what it was is what helps.
  if (!change)
    return (
      before && (
        <span className="quiet" style={{ display: "block" }}>
          {letter}
          {length.text(before.value_cm)}
        </span>
      )
    );
  const error = length.text(change.mdc95_cm);
  return (
    <span
      title={t(change.real ? "tape.changeReal" : "tape.changeNoise", { error: `${error} ${length.unit}` })}
      style={{
        display: "block",
        color: side ? `var(--${side})` : undefined,
        fontWeight: change.real ? 700 : 400,
        whiteSpace: "nowrap",
      }}
    >
      {letter}
      {length.change(change.change_cm)} <span className="quiet">±{error}</span>
    </span>
  );
}
