import { Button, Select } from "antd";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { LeanBar } from "../../../shared/charts";
import { useFeed } from "../../../shared/devices";
import { percent, useQuantities } from "../../../shared/format";
import { SideMark, TypedInput, Wrong } from "../../../shared/ui";
import { askDynamometer } from "../api";
import { newStrength, type SetTexts, type Side, type StrengthRow, testable } from "../model";
import styles from "./Tests.module.css";
import type { SectionProps } from "./TestsSheet";

/** The same exercise one side at a time: the weaker side is asked first, and both stand in one row. */
export function StrengthSection({ atlas, sheet, typing, problems, onChange, flush }: SectionProps) {
  const { t } = useTranslation();
  const rows = typing.strength;
  const put = (index: number, row: StrengthRow, tag?: string) =>
    onChange({ strength: rows.map((one, place) => (place === index ? row : one)) }, tag);
  const add = (exercise: string) => onChange({ strength: [...rows, newStrength(exercise)] });
  const tested = new Set(rows.map(({ exercise }) => exercise));
  const firstOf = (exercise: string): Side =>
    sheet.first.find((one) => one.exercise === exercise)?.side ?? "left";
  const suggested = sheet.next.flatMap(({ exercise }) =>
    exercise && !tested.has(exercise) ? [exercise] : [],
  );
  return (
    <section aria-label={t("tests.strength")}>
      <h2 className={styles.heading}>{t("tests.strength")}</h2>
      {sheet.no_strength_because ? (
        <p>{sheet.no_strength_because}.</p>
      ) : (
        <>
          <p className="quiet">{t("tests.strengthHint")}</p>
          {rows.map((row, index) => (
            <StrengthLine
              key={row.exercise}
              row={row}
              first={firstOf(row.exercise)}
              result={sheet.strength.find(({ exercise }) => exercise === row.exercise)}
              earlier={sheet.earlier.find(
                (test) => test.kind === "one-side" && test.exercise === row.exercise,
              )}
              problems={problems[`strength ${index}`]}
              flush={flush}
              onChange={(next, tag) => put(index, next, `${index} ${tag}`)}
              onRemove={() => onChange({ strength: rows.filter((_, place) => place !== index) })}
            />
          ))}
          <div className={styles.add}>
            <Select
              showSearch={{ optionFilterProp: "label" }}
              value={null}
              placeholder={t("tests.addExercise")}
              aria-label={t("tests.addExercise")}
              style={{ width: 320 }}
              onChange={add}
              options={atlas.exercises
                .filter((exercise) => testable(exercise) && !tested.has(exercise.id))
                .map(({ id, name }) => ({ value: id, label: name }))}
            />
            <Suggestions exercises={suggested} onAdd={add} />
          </div>
        </>
      )}
    </section>
  );
}

function Suggestions({ exercises, onAdd }: { exercises: string[]; onAdd: (exercise: string) => void }) {
  const { t } = useTranslation();
  const names = useNames();
  if (exercises.length === 0) return null;
  return (
    <span>
      <span className="quiet">{t("tests.tellsMost")}</span>{" "}
      {exercises.map((id) => (
        <Button key={id} size="small" onClick={() => onAdd(id)}>
          {names.exercise(id)}
        </Button>
      ))}
    </span>
  );
}

interface LineProps {
  row: StrengthRow;
  first: Side;
  result?: Schemas["StrengthSidesEntry"];
  earlier?: Schemas["TestEntry"];
  problems?: string[];
  flush: () => void;
  onChange: (row: StrengthRow, tag: string) => void;
  onRemove: () => void;
}

function StrengthLine({ row, first, result, earlier, problems, flush, onChange, onRemove }: LineProps) {
  const { t } = useTranslation();
  const names = useNames();
  const { mass } = useQuantities();
  const order: Side[] = first === "left" ? ["left", "right"] : ["right", "left"];
  const name = names.exercise(row.exercise);
  return (
    <fieldset className={styles.line} aria-label={name}>
      <span>
        <strong>{name}</strong>
        {earlier?.kind === "one-side" && (
          <span className={`quiet ${styles.small}`}>
            {t("tests.lastTime", {
              left: `${mass.typed(earlier.left.load_kg)} × ${earlier.left.reps}`,
              right: `${mass.typed(earlier.right.load_kg)} × ${earlier.right.reps}`,
            })}
          </span>
        )}
      </span>
      {order.map((side, place) => (
        <SetFields
          key={side}
          name={name}
          side={side}
          first={place === 0}
          set={row[side]}
          flush={flush}
          onChange={(set, tag) => onChange({ ...row, [side]: set }, `${side} ${tag}`)}
        />
      ))}
      <Result result={result} />
      <Button type="text" aria-label={t("tests.remove", { name })} onClick={onRemove}>
        ×
      </Button>
      {problems?.map((says) => (
        <Wrong key={says}>{says}</Wrong>
      ))}
    </fieldset>
  );
}

interface SetProps {
  name: string;
  side: Side;
  first: boolean;
  set: SetTexts;
  flush: () => void;
  onChange: (set: SetTexts, tag: string) => void;
}

function SetFields({ name, side, first, set, flush, onChange }: SetProps) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const label = (what: "load" | "reps") =>
    t(`tests.${what}Of`, { name, side: t(`tape.sideOf.${side}`), unit: mass.unit });
  const cell = `${name}|${side}`;
  // A dynamometer fills the load that has the cursor.
  useFeed(localStorage.getItem("orthomer-devices") === "on", (message) => {
    if (message.kind !== "read" || message.device !== "dynamometer") return;
    if ((document.activeElement as HTMLElement | null)?.dataset.field === `${cell}|load`)
      onChange({ ...set, load: String(message.value) }, "load");
  });
  return (
    <span className={styles.set}>
      <SideMark side={side} />
      <TypedInput
        data-field={`${cell}|load`}
        aria-label={label("load")}
        quantity={mass}
        text={set.load}
        onText={(load) => onChange({ ...set, load }, "load")}
        onFocus={() => localStorage.getItem("orthomer-devices") === "on" && askDynamometer(label("load"))}
        onBlur={flush}
      />
      {mass.unit} ×
      <input
        className="typed"
        data-field={`${cell}|reps`}
        inputMode="numeric"
        autoComplete="off"
        aria-label={label("reps")}
        value={set.reps}
        onChange={({ target }) => onChange({ ...set, reps: target.value }, "reps")}
        onBlur={flush}
      />
      {first && <span className={styles.first}>{t("tests.first")}</span>}
    </span>
  );
}

/** One side's lead in strength shown to either side, %: four times what girths show. */
const STRENGTH_PCT = 32;

function Result({ result }: { result?: Schemas["StrengthSidesEntry"] }) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  if (!result) return <span />;
  const { one_rep_max_kg: best, symmetry_index, se_index, verdict } = result;
  const larger = symmetry_index > 0 ? "left" : "right";
  return (
    <span className={styles.result}>
      <LeanBar percent={symmetry_index} se={se_index} reach={STRENGTH_PCT} width={96} height={26} />
      <span title={t("tests.oneRepMax")}>
        L {mass.text(best.left)}, R {mass.text(best.right)} {mass.unit}
        <br />
        {verdict === "within-error" ? (
          <span className="quiet">{t("tape.withinError")}</span>
        ) : (
          <>
            <SideMark side={larger} /> +{percent(Math.abs(symmetry_index))} %{" "}
            {t(verdict === "real-act" ? "tape.realAct" : "tape.realSmall")}
          </>
        )}
        {result.dominance_explains && <span className="quiet"> · {t("tape.dominance")}</span>}
      </span>
    </span>
  );
}
