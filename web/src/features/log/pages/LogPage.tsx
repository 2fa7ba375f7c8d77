import { useMemo, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { v4 as uuid } from "uuid";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { shortDay } from "../../../shared/format";
import { Async, ErrorNote, failed } from "../../../shared/ui";
import { useDecide, useLogPage } from "../api";
import styles from "../components/Desk.module.css";
import { DoneSessions } from "../components/DoneSessions";
import { Links } from "../components/Links";
import { SideBySide } from "../components/SideBySide";
import { Targets } from "../components/Targets";
import { type EntryView, heads, partOf } from "../model";

/** The log as the coach reads it: next time's numbers, sessions done, what stands side by side, the private link. */
export function LogPage() {
  const { t } = useTranslation();
  const { clientId = "", roundId = "" } = useParams();
  const [all, setAll] = useState(false);
  const page = useLogPage(clientId, all);
  const conflicts = useMemo(() => sideBySide(page.data?.done ?? []), [page.data]);
  if (failed(page) || !page.data) return <Async of={[page]} />;
  const { now, done, sessions, lighten } = page.data;
  return (
    <div className={styles.desk}>
      <div>
        <div className={styles.head}>
          <h2>{t("log.page.next")}</h2>
          {now.plan ? (
            <a href={`/train/${clientId}`}>{t("log.page.phone")}</a>
          ) : (
            <Link to={`/clients/${clientId}/rounds/${roundId}/plan`}>{t("log.page.givePlan")}</Link>
          )}
        </div>
        {now.note && <p className={styles.weekNote}>{now.note}</p>}
        {lighten && <p className={styles.weekNote}>{lighten}</p>}
        <Conflicts clientId={clientId} conflicts={conflicts} />
        <Targets clientId={clientId} week={now} />
        <h2>{t("log.page.done")}</h2>
        <DoneSessions
          clientId={clientId}
          sessions={done}
          count={sessions}
          onAll={all ? undefined : () => setAll(true)}
        />
      </div>
      <aside aria-label={t("log.links.title")}>
        <p>
          <Link to={`/clients/${clientId}/rounds/${roundId}/trends`}>{t("log.page.trends")}</Link>
        </p>
        <p>
          <Link to={`/clients/${clientId}/messages`}>{t("notes.messages")}</Link>
        </p>
        <Links clientId={clientId} />
      </aside>
    </div>
  );
}

/** Versions that nothing follows, where a part of a session has more than one. */
function sideBySide(done: Schemas["DoneSession"][]): EntryView[][] {
  return done.flatMap(({ exercises }) => {
    const parts = new Map<string, EntryView[]>();
    for (const view of heads(exercises)) {
      const part = partOf(view.entry);
      parts.set(part, [...(parts.get(part) ?? []), view]);
    }
    return [...parts.values()].filter((versions) => versions.length > 1);
  });
}

/** What stands side by side, to be decided; nothing is thrown away. */
function Conflicts({ clientId, conflicts }: { clientId: string; conflicts: EntryView[][] }) {
  const names = useNames();
  const { decide, error } = useDecide(clientId);
  const choose = (chosen: EntryView, versions: EntryView[]) => {
    const follows = versions.map(({ entry }) => entry.id);
    decide({ ...chosen.entry, id: uuid(), follows, at: new Date().toISOString() });
  };
  const named = ({ entry }: EntryView) => `${names.exercise(partOf(entry))}, ${shortDay(entry.trained_on)}`;
  return (
    <>
      {error && <ErrorNote error={error} />}
      {conflicts.map((versions) => (
        <SideBySide
          key={versions[0]?.entry.id}
          of={versions[0] ? named(versions[0]) : ""}
          versions={versions}
          onChoose={(chosen) => choose(chosen, versions)}
        />
      ))}
    </>
  );
}
