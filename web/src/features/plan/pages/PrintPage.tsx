import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Link, useParams, useSearchParams } from "react-router";
import { type Atlas, useAtlas } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { MovementPicture } from "../../../shared/figure";
import { day, dayName } from "../../../shared/format";
import { ErrorNote } from "../../../shared/ui";
import { useIssued, usePlan } from "../api";
import { workOf } from "../components/ItemCard";
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
  const error = plan.error ?? issued.error ?? atlas.error;
  if (error) return <ErrorNote error={error} onRetry={() => plan.refetch()} />;
  if (!plan.data || !atlas.data || (given && !issued.data)) return null;
  const { client_name, draft_because } = plan.data;
  const week = issued.data?.plan ?? plan.data.plan;
  const head = issued.data
    ? t("print.given", { name: client_name, version: issued.data.version, date: day(issued.data.starts_on) })
    : t("print.forClient", { name: client_name, date: day(plan.data.date) });
  return (
    <main className={styles.paper}>
      <div className={styles.tools}>
        <Link to={`/clients/${clientId}/rounds/${roundId}/plan`}>{t("print.back")}</Link>
        <Button type="primary" onClick={() => window.print()}>
          {t("print.button")}
        </Button>
      </div>
      {draft_because && (
        <p role="alert" className={styles.draft}>
          {t("plan.draft")} {draft_because}.
        </p>
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
              {session.items.map((item) => (
                <ItemRow key={item.exercise} item={item} atlas={atlas.data} />
              ))}
            </tbody>
          </table>
          <footer>{t("print.stop")}</footer>
        </article>
      ))}
    </main>
  );
}

function ItemRow({ item, atlas }: { item: Schemas["ItemEntry"]; atlas: Atlas }) {
  const { t } = useTranslation();
  const exercise = atlas.exercises.find(({ id }) => id === item.exercise);
  const side = firstSide(item);
  return (
    <tr>
      <td className={styles.picture}>
        <MovementPicture exercise={item.exercise} size="paper" />
      </td>
      <td>
        <strong>
          {item.order}. {item.name}
        </strong>
        {item.warm_up && (
          <div>
            <em>{t("print.warmUp")}:</em> {item.warm_up}
          </div>
        )}
        <div>{[exercise?.set_up, ...(exercise?.cues ?? []), ...(item.cues ?? [])].join(" ")}</div>
        {exercise?.faults[0] && (
          <div>
            <em>{t("print.watch")}:</em> {exercise.faults[0].fault.toLowerCase()}.
          </div>
        )}
      </td>
      <td className={styles.tight}>
        {workOf(item, t)}
        <div>{t("plan.reserve", { count: item.reserve })}</div>
      </td>
      <td>
        {side ? t("plan.first", { side: t(`plan.sideNames.${side}`) }) : t("print.both")}
        {item.extra_sets_weaker > 0 && side && (
          <div>{t("plan.extra", { side: t(`plan.sideNames.${side}`) })}</div>
        )}
      </td>
      <td className={styles.tight}>{item.rest_s} s</td>
      <td className={styles.boxes}>
        {Array.from({ length: item.sets + item.extra_sets_weaker }, (_, set) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: boxes to write in have no identity but their place
          <span key={set} />
        ))}
      </td>
    </tr>
  );
}
