import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";
import { sendPhoto } from "../api";
import styles from "../pages/MyPage.module.css";

interface Props {
  token: string;
  wanted: Schemas["PhotosWanted"];
  onSent: () => void;
}

/** Pictures to send: a pose a line, from the phone's camera or its files. */
export function Pictures({ token, wanted, onSent }: Props) {
  const { t } = useTranslation();
  const [mirror, setMirror] = useState(false);
  const [sending, setSending] = useState<string>();
  const [failure, setFailure] = useState<string>();
  if (wanted.refusal) return <p>{wanted.refusal}</p>;
  const send = async (pose: Schemas["PhotoPose"], file: File) => {
    setSending(pose);
    const says = await sendPhoto(token, pose, mirror, file);
    setSending(undefined);
    setFailure(says === "?" ? t("my.photoNotSent") : says);
    if (!says) onSent();
  };
  return (
    <>
      <p>{t("my.pictureHow", { date: day(wanted.round_on ?? "") })}</p>
      <label style={{ display: "flex", gap: 10, alignItems: "center", minHeight: 48 }}>
        <input type="checkbox" checked={mirror} onChange={(event) => setMirror(event.target.checked)} />
        {t("my.mirror")}
      </label>
      {failure && (
        <p role="alert" style={{ color: "var(--danger)" }}>
          {failure}
        </p>
      )}
      <ul className={styles.poses}>
        {wanted.poses.map(({ pose, name, sent }) => (
          <li key={pose}>
            <span>
              {name}
              <br />
              <span className="quiet">{t("my.sentCount", { count: sent })}</span>
            </span>
            <label data-sent={sent > 0}>
              {sending === pose ? t("my.sending") : sent > 0 ? t("my.another") : t("my.take")}
              <input
                className="sr-only"
                type="file"
                accept="image/*"
                capture="environment"
                aria-label={t("my.takeOf", { pose: name })}
                disabled={sending !== undefined}
                onChange={(event) => {
                  const file = event.target.files?.[0];
                  if (file) void send(pose, file);
                  event.target.value = "";
                }}
              />
            </label>
          </li>
        ))}
      </ul>
    </>
  );
}
