import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { cm, signed } from "../../../shared/format";
import { cell, READINGS, type Side, type Site, sidesOf } from "../model";
import type { Editor } from "../useSheetEditor";
import { ReadingField } from "./ReadingField";
import { SiteLean } from "./SiteLean";
import styles from "./TapeSheet.module.css";

interface Props {
  site: Site;
  sheet: Schemas["TapeSheet"];
  editor: Editor;
  onFocus: () => void;
}

/** One site: readings of each side, how far apart they are, the change since last time, and what leans. */
export function SiteRow({ site, sheet, editor, onFocus }: Props) {
  const { t } = useTranslation();
  const values = sheet.sites.filter((value) => value.site === site.id);
  const warnings = sheet.warnings.filter((w) => w.site === site.id);
  const wrong = sidesOf(site).flatMap((side) =>
    Array.from({ length: READINGS }, (_, reading) => cell(site.id, side, reading)).flatMap((key) => {
      if (editor.unreadable.includes(key)) return [t("tape.notNumber", { text: editor.texts[key] })];
      return editor.problems[key] ? [editor.problems[key]] : [];
    }),
  );
  return (
    <fieldset className={styles.row} aria-label={site.name} onFocus={onFocus}>
      <span className={styles.name}>
        {site.name}
        {values.some((value) => value.carried_over) && (
          <span className={`quiet ${styles.carried}`}>
            {cm(values[0]?.value_cm ?? 0)} cm {t("tape.carried")}
          </span>
        )}
      </span>
      {sidesOf(site).map((side) => (
        <SideFields key={side ?? ""} site={site} side={side} sheet={sheet} editor={editor} />
      ))}
      <span className={styles.change}>
        {sidesOf(site).map((side) => (
          <Change key={side ?? ""} site={site.id} side={side} sheet={sheet} />
        ))}
      </span>
      <SiteLean site={site} asymmetry={sheet.asymmetries.find((a) => a.site === site.id)} />
      {wrong.map((says) => (
        <span key={says} className={styles.wrong} role="alert">
          {says}
        </span>
      ))}
      {warnings.map(({ side, says }) => (
        <span key={side ?? ""} className={styles.warning}>
          {side && `${t(`tape.${side}`)}: `}
          {says}.
        </span>
      ))}
    </fieldset>
  );
}

function SideFields({ site, side, sheet, editor }: Omit<Props, "onFocus"> & { side?: Side }) {
  const value = sheet.sites.find(
    (v) => v.site === site.id && (v.side ?? undefined) === side && !v.carried_over,
  );
  const third = value?.needs_third || editor.texts[cell(site.id, side, 2)];
  const apart = value?.difference_pct;
  return (
    <span className={`${styles.side} ${side ? "" : styles.middle} ${value?.needs_third ? styles.third : ""}`}>
      {Array.from({ length: third ? READINGS : READINGS - 1 }, (_, reading) => (
        <ReadingField
          key={cell(site.id, side, reading)}
          site={site}
          side={side}
          reading={reading}
          editor={editor}
        />
      ))}
      <span className={`${styles.apart} ${value?.needs_third ? styles.due : ""}`}>
        {typeof apart === "number" && `${apart.toFixed(1)} %`}
      </span>
    </span>
  );
}

function Change({ site, side, sheet }: { site: string; side?: Side; sheet: Schemas["TapeSheet"] }) {
  const { t } = useTranslation();
  const same = (one: { site: string; side?: Side | null }) =>
    one.site === site && (one.side ?? undefined) === side;
  const letter = side === "left" ? "L " : side === "right" ? "R " : "";
  const change = sheet.changes.find(same);
  const before = sheet.earlier.find(same);
  // Before this round's reading is there, what it was is what helps.
  if (!change)
    return (
      before && (
        <span className="quiet" style={{ display: "block" }}>
          {letter}
          {cm(before.value_cm)}
        </span>
      )
    );
  const error = cm(change.mdc95_cm);
  return (
    <span
      title={t(change.real ? "tape.changeReal" : "tape.changeNoise", { cm: error })}
      style={{
        display: "block",
        color: side ? `var(--${side})` : undefined,
        fontWeight: change.real ? 700 : 400,
        whiteSpace: "nowrap",
      }}
    >
      {letter}
      {signed(change.change_cm, cm)} <span className="quiet">±{error}</span>
    </span>
  );
}
