import { keepPreviousData } from "@tanstack/react-query";
import { Select, Slider } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Names } from "../../../shared/api/atlas";
import { $api } from "../../../shared/api/client";
import { hundredths, useQuantities } from "../../../shared/format";
import { ErrorNote, Rows } from "../../../shared/ui";
import { useFindSetUp } from "../api";
import { asked, shown, unitOf } from "../bench";
import { HeadWork } from "./HeadWork";
import styles from "./MovementBench.module.css";

interface Props {
  exercise: { id: string; name: string };
  names: Names;
  /** The region that is looked at elsewhere on the page. */
  region?: string;
}

/** The figure at work, its range and set-up to be turned, and which head does how much of it. */
export function MovementBench({ exercise, names, region }: Props) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const [numbers, setNumbers] = useState<Record<string, number>>({});
  const [at, setAt] = useState(1);
  const [head, setHead] = useState(region);
  const query = { set: asked(numbers), at, tint: head };
  const levers = $api.useQuery(
    "get",
    "/api/v1/exercises/{exercise}/levers",
    { params: { path: { exercise: exercise.id }, query } },
    { placeholderData: keepPreviousData, retry: false },
  );
  const find = useFindSetUp(exercise.id, (found) =>
    setNumbers(
      Object.fromEntries(found.filter((one) => !one.default).map(({ name, value }) => [name, value])),
    ),
  );
  // The practice's own exercises have no movement: nothing is shown of it.
  if (levers.error) return levers.error.status === 404 ? null : <ErrorNote error={levers.error} />;
  if (!levers.data) return <div className={styles.waiting} aria-busy />;
  const { regions, says, set_up, figure, modelled } = levers.data;
  const lines = shown(regions);
  const largest = Math.max(...regions.map(({ share }) => share), 0);
  return (
    <section className={styles.bench} aria-label={t("library.bench.title")}>
      <div>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: drawn by the server from its own data, the name in it escaped */}
        <div className={styles.figure} dangerouslySetInnerHTML={{ __html: figure }} />
        <div className={styles.slide}>
          <span className="quiet">{t("library.bench.start")}</span>
          <Slider
            min={0}
            max={1}
            step={0.05}
            value={at}
            onChange={setAt}
            tooltip={{ open: false }}
            ariaLabelForHandle={t("library.bench.range")}
          />
          <span className="quiet">{t("library.bench.end")}</span>
        </div>
        {set_up.length > 0 && (
          <fieldset className={styles.setUp}>
            <legend>{t("library.bench.setUp")}</legend>
            {set_up.map(({ name, says, value, low, high }) => (
              <div key={name} className={styles.number}>
                <span>{says}</span>
                <Slider
                  min={low}
                  max={high}
                  step={5}
                  value={numbers[name] ?? value}
                  onChange={(to) => setNumbers({ ...numbers, [name]: to })}
                  tooltip={{ open: false }}
                  ariaLabelForHandle={says}
                />
                <b>
                  {unitOf(name) === "cm"
                    ? ` ${length.typed(Math.round(numbers[name] ?? value))} ${length.unit}`
                    : `${Math.round(numbers[name] ?? value)}°`}
                </b>
              </div>
            ))}
            {modelled && (
              <div className={styles.find}>
                <span>{t("library.bench.find")}</span>
                <Select
                  aria-label={t("library.bench.find")}
                  value={head ?? lines[0]?.region}
                  onChange={setHead}
                  popupMatchSelectWidth={false}
                  options={lines.map((work) => ({ value: work.region, label: names.region(work.region) }))}
                />
                {(["longest", "most"] as const).map((by) => (
                  <button
                    key={by}
                    type="button"
                    className="text-button"
                    disabled={find.isPending}
                    onClick={() => find.find(head ?? lines[0]?.region ?? "", by)}
                  >
                    {t(`library.bench.${by}`)}
                  </button>
                ))}
                {Object.keys(numbers).length > 0 && (
                  <button type="button" className="text-button" onClick={() => setNumbers({})}>
                    {t("library.bench.usual")}
                  </button>
                )}
              </div>
            )}
          </fieldset>
        )}
      </div>
      <div>
        {says.map((sentence) => (
          <p key={sentence} className="quiet">
            {sentence}
          </p>
        ))}
        {modelled && (
          <>
            <h3 className={styles.head}>{t("library.bench.heads")}</h3>
            <ul className={styles.heads}>
              {lines.map((work) => (
                <HeadWork
                  key={work.region}
                  work={work}
                  largest={largest}
                  name={names.region(work.region)}
                  at={at}
                  picked={work.region === head}
                  onPick={() => setHead(work.region === head ? undefined : work.region)}
                />
              ))}
            </ul>
            <p className="quiet">{t("library.bench.legend")}</p>
          </>
        )}
        {modelled && (
          <details className={styles.table}>
            <summary>{t("library.bench.table")}</summary>
            <Rows
              label={t("library.bench.table")}
              rows={lines}
              rowKey={({ region }) => region}
              columns={[
                {
                  key: "head",
                  names: true,
                  title: t("library.bench.head"),
                  of: ({ region }) => names.region(region),
                },
                { key: "use", title: t("library.bench.use"), of: ({ share }) => hundredths(share) },
                {
                  key: "long",
                  title: t("library.bench.longUse"),
                  of: ({ long_load }) => hundredths(long_load),
                },
                {
                  key: "idle",
                  title: t("library.bench.idle"),
                  of: ({ dead_range }) => `${Math.round(100 * dead_range)} %`,
                },
              ]}
            />
            <p className="quiet">{t("library.bench.limits")}</p>
          </details>
        )}
        {find.error ? <ErrorNote error={find.error} /> : null}
      </div>
    </section>
  );
}
