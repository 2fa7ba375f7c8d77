import { keepPreviousData } from "@tanstack/react-query";
import { Select, Slider } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useSearchParams } from "react-router";
import type { Names } from "../../../shared/api/atlas";
import { $api } from "../../../shared/api/client";
import { hundredths, useQuantities } from "../../../shared/format";
import { ErrorNote, Rows } from "../../../shared/ui";
import { useFindSetUp } from "../api";
import { asked, shown, unitOf } from "../bench";
import { HeadWork } from "./HeadWork";
import { JointsHeld } from "./JointsHeld";
import { KeepSetUp } from "./KeepSetUp";
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
  // Another set-up of it, to be seen beside this one.
  const [other, setOther] = useState<Record<string, number>>();
  const [address] = useSearchParams();
  const clientId = address.get("client") ?? undefined;
  const query = { set: asked(numbers), at, tint: head, client: clientId };
  const levers = $api.useQuery(
    "get",
    "/api/v1/exercises/{exercise}/levers",
    { params: { path: { exercise: exercise.id }, query } },
    { placeholderData: keepPreviousData, retry: false },
  );
  const beside = $api.useQuery(
    "get",
    "/api/v1/exercises/{exercise}/levers",
    { params: { path: { exercise: exercise.id }, query: { ...query, set: asked(other ?? {}) } } },
    { placeholderData: keepPreviousData, retry: false, enabled: other !== undefined },
  );
  const inUnit = (name: string, value: number) =>
    unitOf(name) === "cm" ? `${length.typed(Math.round(value))} ${length.unit}` : `${Math.round(value)}°`;
  const find = useFindSetUp(exercise.id, clientId, (found) =>
    setNumbers(
      Object.fromEntries(found.filter((one) => !one.default).map(({ name, value }) => [name, value])),
    ),
  );
  // The practice's own exercises have no movement: nothing is shown of it. Where a client is asked for, it may be them who is gone.
  if (levers.error)
    return levers.error.status === 404 && !clientId ? null : <ErrorNote error={levers.error} />;
  if (!levers.data) return <div className={styles.waiting} aria-busy />;
  const { regions, says, set_up, figure, modelled, torque_nm } = levers.data;
  const compared = other && beside.data;
  const lines = shown(regions);
  // What it is for, until another one is asked for.
  const main = lines.find(({ catalogue }) => (catalogue?.fraction ?? 0) >= 1) ?? lines[0];
  const aim = head ?? main?.region ?? "";
  const largest = Math.max(...regions.map(({ share }) => share), 0);
  return (
    <section className={styles.bench} aria-label={t("library.bench.title")}>
      <div>
        <div className={compared && styles.pair}>
          {/* biome-ignore lint/security/noDangerouslySetInnerHtml: drawn by the server from its own data, the name in it escaped */}
          <div className={styles.figure} dangerouslySetInnerHTML={{ __html: figure }} />
          {compared && (
            // biome-ignore lint/security/noDangerouslySetInnerHtml: the same drawing
            <div className={styles.figure} dangerouslySetInnerHTML={{ __html: compared.figure }} />
          )}
        </div>
        {compared && (
          <p className={styles.other}>
            {t("library.bench.beside")}:{" "}
            {compared.set_up
              .filter(({ name }) => Object.keys(other).length === 0 || name in other)
              .map(({ name, says, value }) => `${says.replace(/,.*/, "")} ${inUnit(name, value)}`)
              .join(", ")}
          </p>
        )}
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
                <b>{inUnit(name, numbers[name] ?? value)}</b>
              </div>
            ))}
            {modelled && (
              <div className={styles.find}>
                <span>{t("library.bench.find")}</span>
                <Select
                  aria-label={t("library.bench.find")}
                  value={aim}
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
                    onClick={() => find.find(aim, by)}
                  >
                    {t(`library.bench.${by}`)}
                  </button>
                ))}
                <button
                  type="button"
                  className="text-button"
                  onClick={() => setOther(other ? undefined : numbers)}
                >
                  {t(other ? "library.bench.letGo" : "library.bench.compare")}
                </button>
                {other && (
                  <button
                    type="button"
                    className="text-button"
                    onClick={() => {
                      setOther(numbers);
                      setNumbers(other);
                    }}
                  >
                    {t("library.bench.change")}
                  </button>
                )}
                {Object.keys(numbers).length > 0 && (
                  <button type="button" className="text-button" onClick={() => setNumbers({})}>
                    {t("library.bench.usual")}
                  </button>
                )}
              </div>
            )}
            {clientId && (
              <KeepSetUp
                clientId={clientId}
                exercise={exercise.id}
                numbers={Object.fromEntries(set_up.map(({ name, value }) => [name, numbers[name] ?? value]))}
              />
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
                  beside={compared?.regions.find((one) => one.region === work.region)}
                  largest={largest}
                  name={names.region(work.region)}
                  at={at}
                  picked={work.region === head}
                  onPick={() => setHead(work.region === head ? undefined : work.region)}
                />
              ))}
            </ul>
            <p className="quiet">{t("library.bench.legend")}</p>
            <JointsHeld torque_nm={torque_nm} beside={compared?.torque_nm} at={at} />
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
