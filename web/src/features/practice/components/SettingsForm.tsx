import { Select } from "antd";
import { useTranslation } from "react-i18next";
import { type Atlas, namesOf, schoolsByAbout } from "../../../shared/api/atlas";
import { hundredths, shownText, useQuantities } from "../../../shared/format";
import { ConflictNote, SaveState, useDocument, useUndoKeys } from "../../../shared/save";
import { Section, TypedInput, Wrong } from "../../../shared/ui";
import { useSendPractice } from "../api";
import {
  differing,
  numberField,
  type PracticeView,
  problemsByField,
  settingsOf,
  shareField,
  shareOf,
  type Typing,
  typingOf,
} from "../model";
import styles from "./Practice.module.css";

interface Props {
  atlas: Atlas;
  practice: PracticeView;
  refetch: () => Promise<PracticeView | undefined>;
}

const ABOUT = ["verdict", "sides", "weight", "error", "week", "plates", "keeping"] as const;

/** What a setting is called: a number by its sentence, a school by its question. */
function settingName(atlas: Atlas, practice: PracticeView, field: string): string {
  const number = practice.numbers.find(({ setting }) => numberField(setting.id) === field);
  return number?.setting.name ?? atlas.schools.find(({ id }) => id === field)?.question ?? field;
}

/** What the practice sets for all its clients, each number beside the one that ships; saved on the way. */
export function SettingsForm({ atlas, practice, refetch }: Props) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const send = useSendPractice();
  const document = useDocument<PracticeView, Typing>(practice, {
    key: "practice",
    revisionOf: ({ revision }) => revision,
    valueOf: typingOf,
    differing: (mine, theirs) => differing(practice, mine, theirs),
    fields: {
      named: ([, field = ""]) => settingName(atlas, practice, field),
      shown: ([, field = ""], value) => {
        const unit = practice.numbers.find(({ setting }) => numberField(setting.id) === field)?.setting.unit;
        return unit === "kg" ? `${shownText(value, mass)} ${mass.unit}` : value;
      },
    },
    refetch,
    send: (known, typing) => send(known.revision, settingsOf(known, typing).settings),
    complete: (saved, sent) => settingsOf(saved, sent).unreadable.length === 0,
  });
  useUndoKeys(document);
  const typing = document.value;
  const problems = problemsByField(document.refusal?.errors);
  const { unreadable } = settingsOf(practice, typing);
  const type = (field: string, text: string) =>
    document.change({ ...typing, texts: { ...typing.texts, [field]: text } }, field);
  const parts = { atlas, practice, typing, problems, unreadable, type, flush: document.flush };
  return (
    <fieldset className={styles.settings} disabled={!practice.may_change}>
      <div className={styles.bar}>
        {practice.may_change ? (
          <SaveState {...document} wrong={unreadable.length} />
        ) : (
          <span className="quiet">{t("practice.only")}</span>
        )}
      </div>
      <ConflictNote conflict={document.conflict} />
      <h2>{t("practice.weights")}</h2>
      <p className="quiet">{t("practice.weightsHint")}</p>
      <Numbers {...parts} />
      <h2>{t("practice.schools")}</h2>
      <details className={styles.fold}>
        <summary>{t("practice.schoolsHint")}</summary>
        {schoolsByAbout(atlas.schools).map(([about, questions]) => (
          <Section title={t(`schools.about.${about}`)} level={3} key={about}>
            {questions.map((school) => {
              const shipped = practice.shipped_schools[school.id] ?? school.default;
              const answer = school.option.find(({ id }) => id === (typing.schools[school.id] ?? shipped));
              return (
                <div key={school.id} className={styles.school}>
                  <span>
                    {school.question}
                    <small className="quiet">{answer?.effect}</small>
                  </span>
                  <Select
                    value={typing.schools[school.id] ?? shipped}
                    aria-label={school.question}
                    labelRender={() => answer?.name}
                    disabled={!practice.may_change}
                    options={school.option.map(({ id, name }) => ({
                      value: id,
                      label: id === shipped ? `${name} (${t("practice.ships")})` : name,
                    }))}
                    onChange={(answer) => {
                      const { [school.id]: _, ...others } = typing.schools;
                      const schools = answer === shipped ? others : { ...others, [school.id]: answer };
                      document.change({ ...typing, schools });
                    }}
                  />
                </div>
              );
            })}
          </Section>
        ))}
      </details>
      <h2>{t("practice.shares")}</h2>
      <details className={styles.fold}>
        <summary>{t("practice.sharesHint")}</summary>
        <Shares {...parts} />
      </details>
    </fieldset>
  );
}

interface PartProps extends Omit<Props, "refetch"> {
  typing: Typing;
  problems: Record<string, string>;
  unreadable: string[];
  type: (field: string, text: string) => void;
  flush: () => void;
}

function Numbers({ practice, typing, problems, unreadable, type, flush }: PartProps) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  return (
    <div className={styles.numbers}>
      {ABOUT.map((about) => (
        <div key={about}>
          <h3>{t(`practice.about.${about}`)}</h3>
          {practice.numbers
            .filter(({ setting }) => setting.about === about)
            .map(({ setting, shipped }) => {
              const field = numberField(setting.id);
              const own = (value: number) => (setting.unit === "kg" ? mass.typed(value) : String(value));
              const text = typing.texts[field] ?? "";
              const says = unreadable.includes(field) ? t("tape.notNumber", { text }) : problems[field];
              return (
                <label key={setting.id} className={styles.number} data-changed={text.trim() !== ""}>
                  <span>{setting.name}</span>
                  <TypedInput
                    placeholder={own(shipped)}
                    aria-invalid={says !== undefined}
                    quantity={setting.unit === "kg" ? mass : undefined}
                    text={text}
                    onText={(text) => type(field, text)}
                    onBlur={flush}
                  />
                  <span className="quiet">
                    {setting.unit === "kg" ? mass.unit : setting.unit}
                    {text.trim() && ` · ${t("practice.shipped", { value: own(shipped) })}`}
                  </span>
                  <Wrong>{says}</Wrong>
                </label>
              );
            })}
        </div>
      ))}
    </div>
  );
}

function Shares({ atlas, practice, typing, problems, unreadable, type, flush }: PartProps) {
  const { t } = useTranslation();
  const names = namesOf(atlas);
  return Object.entries(practice.shipped_composition).map(([site, row]) => {
    const regions = Object.keys(row);
    const total = regions.reduce(
      (sum, region) => sum + (Number(shareOf(practice, typing, site, region).replace(",", ".")) || 0),
      0,
    );
    const off = Math.abs(total - 1) > 0.005;
    return (
      <fieldset key={site} className={styles.row} aria-label={names.site(site)}>
        <strong>{names.site(site)}</strong>
        <span className={off ? styles.off : "quiet"}>{t("practice.sum", { sum: hundredths(total) })}</span>
        {regions.map((region) => {
          const field = shareField(site, region);
          return (
            <label key={region} className={styles.share}>
              <input
                className="typed"
                inputMode="decimal"
                autoComplete="off"
                aria-label={`${names.site(site)}: ${names.region(region)}`}
                aria-invalid={unreadable.includes(field) || problems[field] !== undefined}
                value={shareOf(practice, typing, site, region)}
                onChange={({ target }) => type(field, target.value)}
                onBlur={flush}
              />{" "}
              {names.region(region)}
            </label>
          );
        })}
        <Wrong>{problems[`row ${site}`]}</Wrong>
      </fieldset>
    );
  });
}
