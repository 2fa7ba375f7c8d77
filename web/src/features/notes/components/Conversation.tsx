import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { moment } from "../../../shared/format";
import { ErrorNote } from "../../../shared/ui";
import { type Talk, useMyTalk } from "../api";
import styles from "./Notes.module.css";

/** What coach and client write to each other; opening it marks what the other wrote as seen. */
export function Conversation({ talk, own }: { talk: Talk; own: "client" | "coach" }) {
  const { t } = useTranslation();
  const [words, setWords] = useState("");
  const messages = talk.data?.messages ?? [];
  const isOwn = (from_client: boolean) => from_client === (own === "client");
  const newest = messages.findLast((one) => !isOwn(one.from_client) && !one.read_at)?.written_at;
  const { read } = talk;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each newest message, whatever else is drawn
  useEffect(() => {
    if (newest) read(newest);
  }, [newest]);
  return (
    <div className={styles.talk}>
      {messages.length === 0 && talk.data && <p className="quiet">{t("notes.nothing")}</p>}
      <ol className={styles.said}>
        {messages.map((one) => (
          <li key={one.id} data-own={isOwn(one.from_client) || undefined}>
            <p>{one.words}</p>
            <span>
              {one.written_by}, {moment(one.written_at)}
              {isOwn(one.from_client) && one.read_at && ` · ${t("notes.seen")}`}
            </span>
          </li>
        ))}
      </ol>
      {talk.error ? <ErrorNote error={talk.error} /> : null}
      {/* Plain fields: the client's phone has no component library. */}
      <textarea
        className={styles.words}
        aria-label={t(own === "client" ? "notes.toCoach" : "notes.toClient")}
        placeholder={t(own === "client" ? "notes.toCoach" : "notes.toClient")}
        rows={2}
        maxLength={1000}
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      <button
        type="button"
        className="bare"
        data-main=""
        disabled={words.trim() === ""}
        onClick={() => talk.write(words.trim(), () => setWords(""))}
      >
        {t("notes.send")}
      </button>
    </div>
  );
}

/** The same behind a private link. */
export function MyConversation({ token }: { token: string }) {
  return <Conversation talk={useMyTalk(token)} own="client" />;
}
