import { Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import styles from "../pages/TodayPage.module.css";

/** What was done about a sign for a doctor, without which it is not put away. */
export default function SeenNote({ onWritten }: { onWritten: (note: string) => void }) {
  const { t } = useTranslation();
  const [note, setNote] = useState("");
  return (
    <form
      className={styles.note}
      onSubmit={(event) => {
        event.preventDefault();
        if (note.trim()) onWritten(note.trim());
      }}
    >
      <label htmlFor="what-was-done">{t("today.whatWasDone")}</label>{" "}
      <Input
        id="what-was-done"
        autoFocus
        value={note}
        maxLength={500}
        onChange={({ target }) => setNote(target.value)}
      />{" "}
      <button type="submit" className="text-button" disabled={!note.trim()}>
        {t("today.putAway")}
      </button>
    </form>
  );
}
