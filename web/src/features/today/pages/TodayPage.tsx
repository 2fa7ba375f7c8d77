import { lazy, Suspense, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../../shared/api/client";
import { day, shortDay } from "../../../shared/format";
import { Async, ErrorNote, failed, Title } from "../../../shared/ui";
import { useKeys } from "../../../shared/ui/keys";
import { useNoClients } from "../../tour/api";
import { useSeeTo, useToday } from "../api";
import styles from "./TodayPage.module.css";

const FirstLook = lazy(async () => ({ default: (await import("../../tour")).FirstLook }));
/** Written in seldom: its field is not fetched with the page. */
const SeenNote = lazy(() => import("../components/SeenNote"));

type Item = Schemas["QueueItem"];

/** What needs the coach, most pressing first, and who trains today. */
export function TodayPage() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const today = useToday();
  const see = useSeeTo();
  const [picked, setPicked] = useState(-1);
  const [gone, setGone] = useState<Item>();
  const [writing, setWriting] = useState<Item>();
  const items = today.data?.items ?? [];
  const noClients = useNoClients(today.data?.items.length === 0);
  const move = (by: number) => setPicked((at) => Math.max(0, Math.min(items.length - 1, at + by)));
  const seen = (item: Item | undefined, undo = false, note = "") => {
    if (!item) return;
    // A sign for a doctor is put away with a sentence on what was done.
    if (item.kind === "refer" && !undo && !note) {
      setWriting(item);
      return;
    }
    setWriting(undefined);
    setGone(undo ? undefined : item);
    see.mutate({ body: { client_id: item.client_id, what: item.what, undo, note } });
  };
  useKeys({
    next: () => move(1),
    previous: () => move(-1),
    open: () => items[picked] && navigate(items[picked].place),
    seen: () => seen(items[picked]),
  });
  if (failed(today) || !today.data) return <Async of={[today]} />;
  const { sessions } = today.data;
  return (
    <main className={styles.page}>
      <div className={styles.head}>
        <Title of={t("today.title")} />
        <h1>{t("today.title")}</h1>
        <span className="quiet">{day(today.data.today)}</span>
        {gone && (
          <span className={styles.undo}>
            {t("today.gone", { name: gone.client_name })}{" "}
            <button type="button" className="text-button" onClick={() => seen(gone, true)}>
              {t("today.undo")}
            </button>
          </span>
        )}
      </div>
      {see.error && <ErrorNote error={see.error} />}
      {noClients && (
        <Suspense>
          <FirstLook />
        </Suspense>
      )}
      <div className={styles.columns} hidden={noClients}>
        <section aria-label={t("today.queue")}>
          {items.length === 0 && noClients === false && (
            <p>
              {t("today.empty")} <Link to="/clients">{t("today.toClients")}</Link>
            </p>
          )}
          <ol className={styles.queue}>
            {items.map((item, index) => (
              <li key={`${item.client_id} ${item.what}`} data-kind={item.kind} data-picked={index === picked}>
                <span className={styles.kind}>{t(`today.kind.${item.kind}`)}</span>
                <span className={styles.says}>
                  <strong>{item.client_name}</strong> {item.says}{" "}
                  <span className={`quiet ${styles.on}`}>{shortDay(item.on)}</span>
                </span>
                <Link className={styles.go} to={item.place}>
                  {t(`today.go.${item.kind}`)}
                </Link>
                <button
                  type="button"
                  className="text-button"
                  aria-label={t("today.seenOf", { name: item.client_name })}
                  onClick={() => seen(item)}
                >
                  {t("today.seen")}
                </button>
                {writing?.what === item.what && writing.client_id === item.client_id && (
                  <Suspense>
                    <SeenNote onWritten={(note) => seen(item, false, note)} />
                  </Suspense>
                )}
              </li>
            ))}
          </ol>
          {today.data.total > items.length && (
            <p className="quiet">{t("today.more", { count: today.data.total - items.length })}</p>
          )}
        </section>
        <aside aria-label={t("today.sessions")}>
          <h2>{t("today.sessions")}</h2>
          {sessions.length === 0 && <p className="quiet">{t("today.noSessions")}</p>}
          <ul className={styles.sessions}>
            {sessions.map((session) => (
              <li key={session.client_id}>
                <Link to={`/train/${session.client_id}`}>{session.client_name}</Link>
                <span className="quiet">
                  {t("log.exercises", { count: session.exercises })} ·{" "}
                  {t("plan.minutes", { minutes: Math.round(session.minutes) })}
                </span>
                <span>{t(`today.state.${session.state}`)}</span>
              </li>
            ))}
          </ul>
        </aside>
      </div>
    </main>
  );
}
