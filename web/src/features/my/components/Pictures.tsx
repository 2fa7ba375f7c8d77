import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";
import { isOpen, SendLines, useSending } from "../../../shared/send";
import { photoWay, type Take } from "../api";
import styles from "../pages/MyPage.module.css";

interface Props {
  token: string;
  wanted: Schemas["PhotosWanted"];
  onSent: () => void;
}

/** Pictures to send: a pose a line, from the phone's camera or its files, each on its way while the next is taken. */
export function Pictures({ token, wanted, onSent }: Props) {
  const { t } = useTranslation();
  const [mirror, setMirror] = useState(false);
  const sending = useSending({ way: (to: Take) => photoWay(token, to), onDone: onSent });
  if (wanted.refusal) return <p>{wanted.refusal}</p>;
  return (
    <>
      <p>{t("my.pictureHow", { date: day(wanted.round_on ?? "") })}</p>
      <label className={styles.mirror}>
        <input type="checkbox" checked={mirror} onChange={(event) => setMirror(event.target.checked)} />
        {t("my.mirror")}
      </label>
      <ul className={styles.poses}>
        {wanted.poses.map(({ pose, name, sent }) => {
          // What came in is counted above.
          const here = sending.all.filter(({ to, state }) => to.pose === pose && state !== "done");
          return (
            <li key={pose}>
              <span>
                {name}
                <br />
                <span className="quiet">{t("my.sentCount", { count: sent })}</span>
              </span>
              <label data-sent={sent > 0}>
                {here.some(isOpen) ? t("my.sending") : sent > 0 ? t("my.another") : t("my.take")}
                <input
                  className="sr-only"
                  type="file"
                  accept="image/*"
                  capture="environment"
                  aria-label={t("my.takeOf", { pose: name })}
                  onChange={(event) => {
                    // Another one takes the place of what was not taken in.
                    sending.clear((to) => to.pose === pose);
                    sending.add(event.target.files ?? [], { pose, mirrored: mirror });
                    event.target.value = "";
                  }}
                />
              </label>
              {here.length > 0 && <SendLines sent={here} stop={sending.stop} retry={sending.retry} />}
            </li>
          );
        })}
      </ul>
    </>
  );
}
