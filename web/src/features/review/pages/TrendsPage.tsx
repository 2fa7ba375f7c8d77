import { Segmented } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useParams, useSearchParams } from "react-router";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { type Mark, OverTime } from "../../../shared/charts";
import { day, percent, type Quantities, sd, signed, useQuantities } from "../../../shared/format";
import { Async, failed, Rows, SideMark } from "../../../shared/ui";
import { useMirror } from "../../../shared/ui/address";
import { useTrends } from "../api";
import { marksOf } from "../model";
import styles from "./TrendsPage.module.css";

const PARTS = ["sites", "regions", "lifts"] as const;
const REGION_SPAN: [number, number] = [-3, 3];
const SIDES_SPAN: [number, number] = [-8, 8];

/** Every site, side, region and lift over all rounds, with what is noise. */
export function TrendsPage() {
  const { t } = useTranslation();
  const { clientId = "" } = useParams();
  const trends = useTrends(clientId);
  const quantities = useQuantities();
  const [search] = useSearchParams();
  const [part, setPart] = useState(() => PARTS.find((one) => one === search.get("part")) ?? "sites");
  const [table, setTable] = useState(search.get("as") === "table");
  useMirror({ part: part === "sites" ? undefined : part, as: table ? "table" : undefined });
  if (failed(trends) || !trends.data) return <Async of={[trends]} />;
  const lines = linesOf(quantities, trends.data, part, t("trends.fromPictures"));
  return (
    <section aria-label={t("trends.title")}>
      <div className={styles.head}>
        <Segmented
          value={part}
          onChange={setPart}
          options={PARTS.map((value) => ({ value, label: t(`trends.${value}`) }))}
        />
        <span className="quiet">{t(`trends.${part}Hint`)}</span>
        <button type="button" className="text-button" onClick={() => setTable(!table)}>
          {table ? t("trends.asLines") : t("trends.asTable")}
        </button>
      </div>
      {lines.length === 0 && <p>{t("trends.none")}</p>}
      {table ? (
        <Table lines={lines} />
      ) : (
        <ul className={styles.lines}>
          {lines.map((line) => (
            <li key={line.key}>
              <Name line={line} />
              <OverTime
                label={labelOf(line)}
                marks={line.marks}
                format={line.format}
                unit={line.unit}
                colour={line.side ? `var(--${line.side})` : "var(--ink)"}
                span={line.span}
                level={line.span ? 0 : undefined}
              />
              <span className="quiet">{ends(line)}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

interface Line {
  key: string;
  kind: "site" | "region" | "lift" | "weight";
  id: string;
  name?: string;
  side?: Schemas["Side"];
  unit: string;
  marks: Mark[];
  moved?: number;
  span?: [number, number];
  format: (value: number) => string;
}

function linesOf(
  { length, mass }: Quantities,
  trends: Schemas["TrendsView"],
  part: (typeof PARTS)[number],
  fromPictures: string,
): Line[] {
  if (part === "sites") {
    const weight: Line = {
      key: "weight",
      kind: "weight",
      id: "weight",
      unit: mass.unit,
      marks: marksOf(trends.weights),
      format: mass.text,
    };
    const sites = trends.sites.map(
      ({ site, side, marks, moved }): Line => ({
        key: `${site} ${side ?? ""}`,
        kind: "site",
        id: site,
        side: side ?? undefined,
        unit: length.unit,
        marks: marksOf(marks, fromPictures),
        moved: moved ?? undefined,
        format: length.text,
      }),
    );
    return trends.weights.on.length > 0 ? [weight, ...sites] : sites;
  }
  if (part === "lifts")
    return trends.lifts.map(({ exercise, name, unit, side, marks }) => ({
      key: `${exercise} ${side ?? ""}`,
      kind: "lift",
      id: exercise,
      name,
      side: side ?? undefined,
      unit: unit === "kg" ? mass.unit : unit,
      marks: marksOf(marks),
      format: unit === "kg" ? mass.text : (value) => String(Math.round(value)),
    }));
  // What stands furthest from level comes first.
  const far = ({ bulk }: Schemas["RegionTrend"]) => Math.abs(bulk.values.at(-1) ?? 0);
  const regions = trends.regions.toSorted((a, b) => far(b) - far(a));
  return regions.flatMap(({ region, bulk, sides }) => {
    const size: Line = {
      key: `${region} size`,
      kind: "region",
      id: region,
      unit: "SD",
      marks: marksOf(bulk),
      span: REGION_SPAN,
      format: sd,
    };
    const lean: Line = {
      ...size,
      key: `${region} sides`,
      unit: "%",
      marks: marksOf(sides),
      span: SIDES_SPAN,
      format: percent,
    };
    return sides.on.length > 0 ? [size, lean] : [size];
  });
}

const ends = ({ marks, format, unit }: Line): string => {
  const [first, last] = [marks[0], marks.at(-1)];
  if (!first || !last) return "";
  const from = marks.length > 1 ? `${format(first.value)} → ` : "";
  return `${from}${format(last.value)} ${unit}`;
};

const labelOf = (line: Line): string => `${line.name ?? line.id} ${line.side ?? ""}: ${ends(line)}`;

function Name({ line }: { line: Line }) {
  const { t } = useTranslation();
  const names = useNames();
  const named = {
    site: names.site,
    region: names.region,
    lift: (id: string) => line.name ?? id,
    weight: () => t("trends.weight"),
  };
  return (
    <span className={styles.name}>
      <strong>{named[line.kind](line.id)}</strong> {line.side && <SideMark side={line.side} />}
      {line.kind === "region" && (
        <span className="quiet"> {line.unit === "%" ? t("trends.lean") : t("trends.size")}</span>
      )}
      {line.moved !== undefined && <em> {t("trends.moved", { change: signed(line.moved, line.format) })}</em>}
    </span>
  );
}

function Table({ lines }: { lines: Line[] }) {
  const { t } = useTranslation();
  const days = [...new Set(lines.flatMap(({ marks }) => marks.map(({ on }) => on)))].sort().slice(-12);
  return (
    <div className={styles.scroll}>
      <Rows
        label={t("trends.title")}
        rows={lines}
        rowKey={({ key }) => key}
        columns={[
          { key: "line", names: true, title: "", of: (line) => <Name line={line} /> },
          ...days.map((on) => ({
            key: on,
            title: day(on),
            numbers: true,
            of: (line: Line) => {
              const mark = line.marks.find((one) => one.on === on);
              return mark && line.format(mark.value);
            },
          })),
        ]}
      />
    </div>
  );
}
