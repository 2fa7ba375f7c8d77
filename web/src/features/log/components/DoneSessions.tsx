import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useAtlas, useNames } from "../../../shared/api/atlas";
import { useMay } from "../../../shared/api/may";
import { day, dayName, useQuantities } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
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
      <table>
        <tbody>
          {session.exercises.map((view) => (
            <ExerciseRow key={view.entry.id} view={view} all={session.exercises} />
          ))}
        </tbody>
      </table>
      {session.note && <p>“{session.note}”</p>}
      {correcting && (
        <Correcting clientId={clientId} session={session} onClose={() => setCorrecting(false)} />
      )}
    </article>
  );
}

function ExerciseRow({ view, all }: { view: EntryView; all: EntryView[] }) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const names = useNames();
  const { data: atlas } = useAtlas();
  const part = view.entry.part as ExercisePart;
  const beside =
    all.filter(({ entry }) => (entry.part as ExercisePart).exercise === part.exercise).length > 1;
  const sided = part.sets.some(({ side }) => side);
  const where = (felt: string) => atlas?.takeovers[felt] ?? names.region(felt);
  return (
    <tr data-beside={beside || undefined}>
      <td>
        {names.exercise(part.instead ?? part.exercise)}
        {part.instead && (
          <span className="quiet"> {t("log.page.insteadOf", { name: names.exercise(part.exercise) })}</span>
        )}
      </td>
      <td>
        {sided
          ? (["left", "right"] as const).map((side) => (
              <span key={side} style={{ marginRight: 14 }}>
                <SideMark side={side} /> {setsText(mass, part.sets, side)}
              </span>
            ))
          : setsText(mass, part.sets)}
      </td>
      <td>
        {part.pain && (
          <span className={styles.hurt}>
            {t("log.page.pain", { level: part.pain.level, area: part.pain.area.replace("-", " ") })}
            {part.pain.red_flags?.map((flag) => ` · ${t(`pain.${flag}`)}`)}{" "}
          </span>
        )}
        {part.felt && <span className="quiet">{t("log.page.felt", { place: where(part.felt) })} </span>}
        {(part.form ?? []).length > 0 && (
          <span>{(part.form ?? []).map((one) => t(`form.names.${one}`)).join(", ")} </span>
        )}
        {part.note && <span>“{part.note}”</span>}
        {beside && <span className="quiet"> {view.written_by}</span>}
      </td>
    </tr>
  );
}
