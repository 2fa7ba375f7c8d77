import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useAtlas, useNames } from "../../../shared/api/atlas";
import { useMay } from "../../../shared/api/may";
import { day, dayName, useQuantities } from "../../../shared/format";
import { Rows, SideMark } from "../../../shared/ui";
import type { Done } from "../correct";
import { type EntryView, type ExercisePart, setsText } from "../model";
import { Correcting } from "./Correcting";
import styles from "./Desk.module.css";

interface Props {
  clientId: string;
  sessions: Done[];
  /** How many there are. */
  count: number;
  /** Asks for all of them. */
  onAll?: () => void;
}

/** Sessions as they were done, newest first. */
export function DoneSessions({ clientId, sessions, count, onAll }: Props) {
  const { t } = useTranslation();
  if (sessions.length === 0) return <p className="quiet">{t("log.page.none")}</p>;
  return (
    <>
      {sessions.map((session) => (
        <SessionTable
          key={`${session.version} ${session.week} ${session.day}`}
          clientId={clientId}
          session={session}
        />
      ))}
      {onAll && count > sessions.length && (
        <button type="button" className="text-button" onClick={onAll}>
          {t("log.page.more", { count })}
        </button>
      )}
    </>
  );
}

function SessionTable({ clientId, session }: { clientId: string; session: Done }) {
  const { t } = useTranslation();
  const may = useMay();
  const [correcting, setCorrecting] = useState(false);
  const told = [
    session.sleep != null && t("log.page.slept", { value: session.sleep }),
    session.soreness != null && t("log.page.sore", { value: session.soreness }),
    !session.finished && t("log.page.open"),
    session.conflicts > 0 && t("log.page.conflicts", { count: session.conflicts }),
  ].filter(Boolean);
  return (
    <article className={styles.session}>
      <header>
        <strong>{day(session.on)}</strong>
        <span className="quiet">
          {t("log.page.session", { week: session.week, day: dayName(session.day) })}
        </span>
        <span className="quiet">{told.join(" · ")}</span>
        {may("log") && (
          <button
            type="button"
            className={`text-button ${styles.putRight}`}
            onClick={() => setCorrecting(true)}
          >
            {t("log.correct.ask")}
          </button>
        )}
      </header>
      <Exercises of={session.exercises} on={session.on} />
      {session.note && <p>“{session.note}”</p>}
      {correcting && (
        <Correcting clientId={clientId} session={session} onClose={() => setCorrecting(false)} />
      )}
    </article>
  );
}

/** What was done of each exercise; two versions of one stand side by side. */
function Exercises({ of, on }: { of: EntryView[]; on: string }) {
  const names = useNames();
  const { t } = useTranslation();
  const part = ({ entry }: EntryView) => entry.part as ExercisePart;
  const beside = (view: EntryView) =>
    of.filter((other) => part(other).exercise === part(view).exercise).length > 1;
  return (
    <Rows
      label={day(on)}
      rows={of}
      rowKey={({ entry }) => entry.id}
      stacked
      marks={(view) => ({ "data-beside": beside(view) || undefined })}
      columns={[
        {
          key: "exercise",
          width: "34%",
          names: true,
          of: (view) => {
            const { exercise, instead } = part(view);
            return (
              <>
                {names.exercise(instead ?? exercise)}
                {instead && (
                  <span className="quiet">
                    {" "}
                    {t("log.page.insteadOf", { name: names.exercise(exercise) })}
                  </span>
                )}
              </>
            );
          },
        },
        { key: "sets", of: (view) => <DoneSets part={part(view)} /> },
        { key: "told", of: (view) => <Told view={view} beside={beside(view)} /> },
      ]}
    />
  );
}

function DoneSets({ part }: { part: ExercisePart }) {
  const { mass } = useQuantities();
  if (!part.sets.some(({ side }) => side)) return setsText(mass, part.sets);
  return (["left", "right"] as const).map((side) => (
    <span key={side} className={styles.side}>
      <SideMark side={side} /> {setsText(mass, part.sets, side)}
    </span>
  ));
}

/** What else was told of it: pain first. */
function Told({ view, beside }: { view: EntryView; beside: boolean }) {
  const { t } = useTranslation();
  const names = useNames();
  const { data: atlas } = useAtlas();
  const { pain, felt, form = [], note } = view.entry.part as ExercisePart;
  return (
    <>
      {pain && (
        <span className={styles.hurt}>
          {t("log.page.pain", { level: pain.level, area: pain.area.replace("-", " ") })}
          {pain.red_flags?.map((flag) => ` · ${t(`pain.${flag}`)}`)}{" "}
        </span>
      )}
      {felt && (
        <span className="quiet">
          {t("log.page.felt", { place: atlas?.takeovers[felt] ?? names.region(felt) })}{" "}
        </span>
      )}
      {form.length > 0 && <span>{form.map((one) => t(`form.names.${one}`)).join(", ")} </span>}
      {note && <span>“{note}”</span>}
      {beside && <span className="quiet"> {view.written_by}</span>}
    </>
  );
}
