import { Input } from "antd";
import { useId, useState } from "react";
import { useTranslation } from "react-i18next";
import { ErrorNote, Note, Section } from "../../../shared/ui";
import { type KeptNote, useClientNote, useRoundNote } from "../api";
import styles from "./Notes.module.css";

/** What no field asks for: old injuries, travel; on the client for good, on the round for its time. */
export function Notes({ clientId, roundId }: { clientId: string; roundId: string }) {
  const { t } = useTranslation();
  const client = useClientNote(clientId);
  const round = useRoundNote(roundId);
  return (
    <Section title={t("notes.title")} className={styles.notes}>
      <NoteField label={t("notes.client")} hint={t("notes.clientHint")} {...client} />
      {roundId && <NoteField label={t("notes.round")} hint={t("notes.roundHint")} {...round} />}
    </Section>
  );
}

interface FieldProps extends KeptNote {
  label: string;
  hint: string;
}

/** Free words, kept when the field is left. What somebody else wrote meanwhile is shown beside them, and nothing is lost. */
function NoteField({ label, hint, note, error, save, refetch }: FieldProps) {
  const { t } = useTranslation();
  const id = useId();
  const [typed, setTyped] = useState<string>();
  const [from, setFrom] = useState<string>();
  const [theirs, setTheirs] = useState<string>();
  if (note === undefined) return error ? <ErrorNote error={error} /> : null;
  const send = (was: string) => {
    if (typed === undefined || typed.trim() === was) return;
    save(was, typed.trim(), {
      kept: () => {
        setTyped(undefined);
        setFrom(undefined);
        setTheirs(undefined);
      },
      // The words that stand there now are shown; only then can mine take their place.
      late: async () => setTheirs((await refetch()) ?? ""),
    });
  };
  return (
    <div>
      <label htmlFor={id}>
        {label} <span className="quiet">{hint}</span>
      </label>
      <Input.TextArea
        id={id}
        rows={2}
        maxLength={4000}
        value={typed ?? note}
        onChange={(event) => {
          setFrom((was) => was ?? note);
          setTyped(event.target.value);
        }}
        onBlur={() => theirs === undefined && send(from ?? note)}
      />
      {theirs !== undefined && (
        <Note
          action={
            <>
              <button
                type="button"
                className="text-button"
                onClick={() => setTyped(`${theirs}\n${typed ?? ""}`)}
              >
                {t("notes.both")}
              </button>
              <button type="button" className="text-button" onClick={() => send(theirs)}>
                {t("notes.keepMine")}
              </button>
            </>
          }
        >
          {t("notes.theirs", { words: theirs })}
        </Note>
      )}
      {error && theirs === undefined ? <ErrorNote error={error} /> : null}
    </div>
  );
}
