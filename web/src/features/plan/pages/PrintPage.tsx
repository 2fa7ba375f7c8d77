import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Link, useParams, useSearchParams } from "react-router";
import { type Atlas, useAtlas } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { MovementPicture } from "../../../shared/figure";
import { day, dayName, OwnMeasures, type Quantities, useQuantities } from "../../../shared/format";
import { ErrorNote, Note } from "../../../shared/ui";
import { useClientMeasures, useIssued, usePlan, useReported } from "../api";
import { saysOf, workOf } from "../components/ItemCard";
import { groupMark } from "../groups";
import { firstSide } from "../model";
import styles from "./PrintPage.module.css";

/** The week on paper: one session a page, plain enough for a black-and-white printer, with room to write. */
export function PrintPage() {
  const { t } = useTranslation();
  const { roundId = "", clientId = "" } = useParams();
  const [query] = useSearchParams();
  const given = query.get("plan") ?? undefined;
  const plan = usePlan(roundId);
  const issued = useIssued(given);
  const atlas = useAtlas();
  const reported = useReported(clientId);
  const measures = useClientMeasures(clientId);
  const error = measures.error ?? plan.error ?? issued.error ?? atlas.error;
  if (error) return <ErrorNote error={error} onRetry={() => plan.refetch()} />;
  if (!measures.data || !plan.data || !atlas.data || (given && !issued.data)) return null;
  const { client_name, draft_because } = plan.data;
  const week = issued.data?.plan ?? plan.data.plan;
  const head = issued.data
    ? t("print.given", { name: client_name, version: issued.data.version, date: day(issued.data.starts_on) })
    : t("print.forClient", { name: client_name, date: day(plan.data.date) });
  return (
    <OwnMeasures value={measures.data}>
      <main className={styles.paper}>
        <div className={styles.tools}>
          <Link to={`/clients/${clientId}/rounds/${roundId}/plan`}>{t("print.back")}</Link>
          <Button type="primary" onClick={() => window.print()}>
            {t("print.button")}
          </Button>
        </div>
        {draft_because && (
          <Note>
            <strong>{t("plan.draft")}</strong> {draft_because}.
          </Note>
        )}
        {(draft_because ? [] : week.sessions.filter(({ items }) => items.length > 0)).map((session) => (
          <article key={session.day} className={styles.sheet}>
            <header>
              <h1>
                {dayName(session.day)}
                {session.home && ` · ${t("plan.atHome")}`}
              </h1>
              <span>{head}</span>
              <span>{t("plan.minutes", { minutes: Math.round(session.minutes) })}</span>
            </header>
            <Moves title={t("warmUp.before")} moves={session.warm_up?.moves ?? []} />
            <table>
              <thead>
                <tr>
                  <th colSpan={2}>{t("print.exercise")}</th>
                  <th>{t("print.sets")}</th>
                  <th>{t("print.side")}</th>
                  <th>{t("print.rest")}</th>
                  <th className={styles.done}>{t("print.done")}</th>
                </tr>
              </thead>
              <tbody>
                {session.items.flatMap((first, place) =>
                  [first, ...(first.in_turn ? [first.in_turn] : [])].map((item) => (
                    <ItemRow
                      key={item.exercise}
                      item={item}
                      mark={groupMark(session.items, place) ?? String(item.order)}
                      turn={first.in_turn && t(item === first ? "print.oddWeeks" : "print.evenWeeks")}
                      atlas={atlas.data}
                      reported={reported(item.exercise)}
                    />
                  )),
                )}
              </tbody>
            </table>
            <Moves title={t("warmUp.after")} moves={session.warm_up?.restoring ?? []} />
            <footer>{t("print.stop")}</footer>
          </article>
        ))}
      </main>
    </OwnMeasures>
  );
}

/** Moves before or after the work in a line. */
function Moves({ title, moves }: { title: string; moves: Schemas["MoveEntry"][] }) {
  if (moves.length === 0) return null;
  const said = moves.map(
    ({ name, reps, seconds }) => `${name} ${reps != null ? `× ${reps}` : `${seconds} s`}`,
  );
  return (
    <p>
      <strong>{title}:</strong> {said.join(", ")}
    </p>
  );
}

interface RowProps {
  item: Schemas["ItemEntry"];
  /** Its number, or its place in a group: A1. */
  mark: string;
  /** In which weeks it stands there, where two take turns. */
  turn?: string | null;
  atlas: Atlas;
  /** What was reported of it last time. */
  reported: string[];
}

function ItemRow({ item, mark, turn, atlas, reported }: RowProps) {
  const { t } = useTranslation();
  const quantities = useQuantities();
  const { mass } = quantities;
  const exercise = atlas.exercises.find(({ id }) => id === item.exercise);
  const side = firstSide(item);
  const fault = exercise?.faults[0]?.fault;
  const scheme = atlas.schemes.find(({ id }) => id === item.scheme && id !== "straight");
  return (
    <tr>
      <td className={styles.picture}>
        <MovementPicture exercise={item.exercise} size="paper" />
      </td>
      <td>
        <strong>
          {mark}. {item.name}
        </strong>
        {turn && <div>{turn}</div>}
        {reported.length > 0 && (
          <div>
            <strong>{t("plan.lastTime", { reported: reported.join(", ") })}</strong>
          </div>
        )}
        {setUpOf(quantities, item, atlas) && <div>{setUpOf(quantities, item, atlas)}</div>}
        {item.note && (
          <div>
            <strong>{item.note}</strong>
          </div>
        )}
        {scheme && (
          <div>
            {scheme.name}: {scheme.how}
          </div>
        )}
        {item.warm_up && (
          <div>
            <em>{t("print.warmUp")}:</em> {item.warm_up}
          </div>
        )}
        <div>{saysOf(item, atlas).join(" ")}</div>
        {fault && (
          <div>
            <em>{t("print.watch")}:</em> {fault.toLowerCase()}.
          </div>
        )}
        {(exercise?.cautions ?? []).map((caution) => (
          <div key={caution}>
            <em>{caution}</em>
          </div>
        ))}
      </td>
      <td className={styles.tight}>
        {workOf(item, t)}
        <div>{t("plan.reserve", { count: item.reserve })}</div>
        {item.load_kg != null && <div>{mass.full(item.load_kg)}</div>}
        {item.tempo && <div>{t("card.atTempo", { tempo: item.tempo.join("-") })}</div>}
      </td>
      <td>
        {side ? t("plan.first", { side: t(`plan.sideNames.${side}`) }) : t("print.both")}
        {item.extra_sets_weaker > 0 && side && (
          <div>{t("plan.extra", { side: t(`plan.sideNames.${side}`) })}</div>
        )}
      </td>
      <td className={styles.tight}>{item.group && item.rest_s === 0 ? "→" : `${item.rest_s} s`}</td>
      <td className={styles.boxes}>
        {Array.from({ length: item.sets + item.extra_sets_weaker }, (_, set) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: boxes to write in have no identity but their place
          <span key={set} />
        ))}
      </td>
    </tr>
  );
}

/** The variant and the numbers of the set-up, in a line. */
function setUpOf({ length }: Quantities, item: Schemas["ItemEntry"], atlas: Atlas): string {
  const exercise = atlas.exercises.find(({ id }) => id === item.exercise);
  const variant = exercise?.variants.find(({ id }) => id === item.variant)?.name;
  const numbers = Object.entries(item.set_up ?? {}).map(([name, value]) => {
    const field = atlas.set_up_fields.find((one) => one.name === name);
    if (field?.unit === "cm") return `${field.says} ${length.full(value)}`;
    return `${field?.says ?? name} ${value}${field?.unit === "°" ? "°" : ` ${field?.unit ?? ""}`}`;
  });
  return [variant, ...numbers].filter(Boolean).join(" · ");
}
