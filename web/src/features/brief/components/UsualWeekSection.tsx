import { Button, Checkbox, Select } from "antd";
import { useTranslation } from "react-i18next";
import { type Atlas, namesOf } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { day, sets, today } from "../../../shared/format";
import { ConflictNote, SaveState, useDocument } from "../../../shared/save";
import { DateInput, NumberInput, Section, Wrong } from "../../../shared/ui";
import { useSendUsualWeek } from "../api";
import {
  differing,
  emptyWeek,
  lastWeek,
  newExercise,
  problemsByRow,
  type Typing,
  type UsualExercise,
  type UsualWeek,
} from "../week";
import styles from "./UsualWeek.module.css";

type Stored = Schemas["UsualWeekView"];

interface Props {
  clientId: string;
  atlas: Atlas;
  stored: Stored;
  refetch: () => Promise<Stored | undefined>;
}

/** Regions named beside what was logged. */
const NAMED = 5;

/** The regions with most sets a week in the log. */
function mostTrained({ logged_sets }: Stored, atlas: Atlas): string {
  const names = namesOf(atlas);
  const most = Object.entries(logged_sets).sort(([, a], [, b]) => b - a);
  return most
    .slice(0, NAMED)
    .map(([region, count]) => `${names.region(region)} ${sets(Math.round(count))}`)
    .join(", ");
}

/** What was trained lately: a usual week, for how long, and how many sets of it each region got. */
export function UsualWeekSection({ clientId, atlas, stored, refetch }: Props) {
  const { t } = useTranslation();
  const send = useSendUsualWeek(clientId);
  const document = useDocument<Stored, Typing>(stored, {
    key: `usual-week-${clientId}`,
    revisionOf: ({ revision }) => revision,
    valueOf: ({ week }) => ({ week: week ?? undefined }),
    differing,
    refetch,
    send: (known, { week }) => send(known.revision, week),
  });
  const { week } = document.value;
  const problems = problemsByRow(document.refusal?.errors);
  const change = (part: Partial<UsualWeek>, tag?: string) =>
    document.change({ week: { ...(week ?? emptyWeek(lastWeek(today()))), ...part } }, tag);
  const put = (row: number, part: Partial<UsualExercise>) =>
    change(
      { exercises: (week?.exercises ?? []).map((one, at) => (at === row ? { ...one, ...part } : one)) },
      `${row} ${Object.keys(part).join()}`,
    );
  return (
    <Section title={t("week.title")} className={styles.week}>
      <p className="quiet">{t("week.hint")}</p>
      {stored.logged_since && (
        <p>
          {t("week.logged", { date: day(stored.logged_since) })}{" "}
          <span className="quiet">{mostTrained(stored, atlas)}</span>
        </p>
      )}
      <SaveState {...document} wrong={Object.keys(problems).length} />
      <ConflictNote conflict={document.conflict} />
      {week && (
        <div className={styles.span}>
          <span>{t("week.for")}</span>
          <NumberInput
            aria-label={t("week.weeks")}
            value={week.weeks}
            onChange={(weeks) => change({ weeks: weeks ?? 0 }, "weeks")}
          />
          <span>{t("week.until")}</span>
          <DateInput
            aria-label={t("week.untilDay")}
            value={week.until}
            onChange={(until) => change({ until }, "until")}
          />
          <Button type="text" onClick={() => document.change({ week: undefined })}>
            {t("week.forget")}
          </Button>
          {[problems.weeks, problems.until].filter(Boolean).map((says) => (
            <Wrong key={says}>{says}</Wrong>
          ))}
        </div>
      )}
      <div className={styles.columns}>
        <div>
          {week?.exercises.map((one, row) => (
            <ExerciseLine
              // biome-ignore lint/suspicious/noArrayIndexKey: an exercise may stand twice in a week
              key={row}
              atlas={atlas}
              one={one}
              says={problems[row]}
              onChange={(part) => put(row, part)}
              onRemove={() => change({ exercises: week.exercises.filter((_, at) => at !== row) })}
            />
          ))}
          <Select
            showSearch={{ optionFilterProp: "label" }}
            value={null}
            placeholder={t("week.add")}
            aria-label={t("week.add")}
            style={{ width: 340, marginTop: 8 }}
            onChange={(exercise: string) =>
              change({
                exercises: [...(week?.exercises ?? []), newExercise(week?.exercises ?? [], exercise)],
              })
            }
            options={atlas.exercises.map(({ id, name }) => ({ value: id, label: name }))}
          />
        </div>
        <SetsByRegion atlas={atlas} stored={stored} />
      </div>
    </Section>
  );
}

interface LineProps {
  atlas: Atlas;
  one: UsualExercise;
  says?: string;
  onChange: (part: Partial<UsualExercise>) => void;
  onRemove: () => void;
}

function ExerciseLine({ atlas, one, says, onChange, onRemove }: LineProps) {
  const { t } = useTranslation();
  const name = namesOf(atlas).exercise(one.exercise);
  const exercise = atlas.exercises.find(({ id }) => id === one.exercise);
  const number = (field: "session" | "sets" | "reps") => (
    <NumberInput
      size="small"
      aria-label={`${name}: ${t(`week.${field}`)}`}
      value={one[field]}
      prefix={<span className="quiet">{t(`week.${field}`)}</span>}
      onChange={(value) => onChange({ [field]: value ?? (field === "reps" ? undefined : 0) })}
    />
  );
  return (
    <fieldset className={styles.line} aria-label={name}>
      {number("session")}
      <strong>{name}</strong>
      {number("sets")}
      {number("reps")}
      <span>
        {exercise?.sides !== "both" && (
          <Checkbox
            checked={one.one_sided}
            onChange={({ target }) => onChange({ one_sided: target.checked })}
          >
            {t("week.oneSided")}
          </Checkbox>
        )}
        <Checkbox checked={!!one.swung} onChange={({ target }) => onChange({ swung: target.checked })}>
          {t("week.swung")}
        </Checkbox>
      </span>
      <Button size="small" type="text" aria-label={t("tests.remove", { name })} onClick={onRemove}>
        ×
      </Button>
      <Wrong>{says}</Wrong>
    </fieldset>
  );
}

/** Bars of weekly sets by region, most first. */
function SetsByRegion({ atlas, stored }: { atlas: Atlas; stored: Stored }) {
  const { t } = useTranslation();
  const names = namesOf(atlas);
  const rows = Object.entries(stored.sets_by_region).sort((a, b) => b[1] - a[1]);
  if (rows.length === 0) return null;
  const most = Math.max(...rows.map(([, count]) => count), 12);
  return (
    <table className={styles.sets}>
      <caption>{t("week.bySet")}</caption>
      <tbody>
        {rows.map(([region, count]) => (
          <tr key={region}>
            <th scope="row">{names.region(region)}</th>
            <td>
              <svg width="150" height="9" aria-hidden="true">
                <rect y="1" width={(count / most) * 150} height="7" fill="var(--level)" />
              </svg>
            </td>
            <td>{sets(count)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
