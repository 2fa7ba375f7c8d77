import { Button, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { BodyFigure } from "../../../shared/figure";
import { Wrong } from "../../../shared/ui";
import { type FeelRow, mainRegions } from "../model";
import styles from "./Tests.module.css";
import type { SectionProps } from "./TestsSheet";

/** Where an exercise was felt: tapped on the figure, or chosen from the list. */
export function FeelSection({ atlas, typing, problems, onChange }: SectionProps) {
  const { t } = useTranslation();
  const names = useNames();
  const [at, setAt] = useState(0);
  const rows = typing.feel;
  const row = rows[Math.min(at, rows.length - 1)];
  const index = row ? rows.indexOf(row) : -1;
  const put = (part: Partial<FeelRow>) =>
    onChange({ feel: rows.map((one, place) => (place === index ? { ...one, ...part } : one)) });
  const add = (exercise: string) => {
    const region = mainRegions(atlas.exercises.find(({ id }) => id === exercise))[0];
    if (!region) return;
    onChange({ feel: [...rows, { exercise, region, felt: "" }] });
    setAt(rows.length);
  };
  const where = (felt: string) =>
    felt === "nowhere" ? t("tests.nowhere") : (atlas.takeovers[felt] ?? names.region(felt));
  return (
    <section aria-label={t("tests.feel")}>
      <h2 className={styles.heading}>{t("tests.feel")}</h2>
      <p className="quiet">{t("tests.feelHint")}</p>
      <Select
        showSearch={{ optionFilterProp: "label" }}
        value={null}
        placeholder={t("tests.addFeel")}
        aria-label={t("tests.addFeel")}
        style={{ width: 320 }}
        onChange={add}
        options={atlas.exercises
          .filter((exercise) => mainRegions(exercise).length > 0)
          .map(({ id, name }) => ({ value: id, label: name }))}
      />
      <ul className={styles.felt}>
        {rows.map((one, place) => (
          <li key={`${one.exercise} ${one.region}`}>
            <button type="button" aria-pressed={place === index} onClick={() => setAt(place)}>
              {names.exercise(one.exercise)}: {one.felt ? where(one.felt) : t("tests.feltWhere")}
              {one.felt === one.region && ` ✓`}
            </button>
            <Button
              type="text"
              aria-label={t("tests.remove", { name: names.exercise(one.exercise) })}
              onClick={() => onChange({ feel: rows.filter((_, other) => other !== place) })}
            >
              ×
            </Button>
            {problems[`feel ${place}`]?.map((says) => (
              <Wrong key={says}>{says}</Wrong>
            ))}
          </li>
        ))}
      </ul>
      {row && (
        <div className={styles.where}>
          <BodyFigure
            label={t("tests.figure", {
              region: names.region(row.region),
              felt: row.felt ? where(row.felt) : "–",
            })}
            words={{ front: t("figure.front"), back: t("figure.back"), left: "L", right: "R" }}
            picked={row.felt}
            onPick={(felt) => put({ felt })}
            shade={(region) =>
              region === row.felt
                ? { fill: region === row.region ? "var(--ahead)" : "var(--behind)" }
                : {
                    fill: region === row.region ? "var(--accent)" : "var(--level)",
                    opacity: region === row.region ? 0.55 : 0.16,
                  }
            }
            width={300}
          />
          <div>
            <p>{t("tests.meantFor", { region: names.region(row.region) })}</p>
            <Select
              showSearch={{ optionFilterProp: "label" }}
              aria-label={t("tests.feltIn", { name: names.exercise(row.exercise) })}
              placeholder={t("tests.feltWhere")}
              value={row.felt || null}
              style={{ width: 190 }}
              onChange={(felt) => put({ felt })}
              options={[
                { value: "nowhere", label: t("tests.nowhere") },
                ...Object.entries(atlas.takeovers).map(([value, label]) => ({ value, label })),
                ...atlas.regions.map(({ id, name }) => ({ value: id, label: name })),
              ]}
            />
          </div>
        </div>
      )}
    </section>
  );
}
