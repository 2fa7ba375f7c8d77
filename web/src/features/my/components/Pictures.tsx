import { Suspense, useState } from "react";
import { useTranslation } from "react-i18next";
import { day } from "../../../shared/format";
import { isOpen, SendLines } from "../../../shared/send";
import { type Asked, doorOf, OpenedCapture, type PoseAsked, type Waiting } from "../../capture";
import styles from "../pages/MyPage.module.css";

interface Props {
  token: string;
  asked: Asked;
  /** On their way, whichever part of the page is seen. */
  waiting: Waiting;
}

/** Pictures to send: by the camera with last time's outline over it, or a pose a line from the phone's own camera and its files. */
export function Pictures({ token, asked, waiting }: Props) {
  const { t } = useTranslation();
  const [mirror, setMirror] = useState(false);
  const [taking, setTaking] = useState(false);
  if (asked.refusal) return <p>{asked.refusal}</p>;
  return (
    <>
      <p>{t("my.pictureHow", { date: day(asked.round_on ?? "") })}</p>
      <button type="button" className={styles.camera} onClick={() => setTaking(true)}>
        {t("my.camera")}
      </button>
      {waiting.onlyHere && <p role="alert">{t(`my.onlyHere.${waiting.onlyHere}`)}</p>}
      <h2>{t("my.oneByOne")}</h2>
      <label className={styles.mirror}>
        <input type="checkbox" checked={mirror} onChange={(event) => setMirror(event.target.checked)} />
        {t("my.mirror")}
      </label>
      <ul className={styles.poses}>
        {asked.poses.map((pose) => (
          <Pose
            key={pose.pose}
            asked={pose}
            waiting={waiting}
            onTaken={(files) => {
              waiting.clear(pose.pose);
              const distance_m = asked.set_up?.distance_m;
              for (const file of files)
                void waiting.add(file, { pose: pose.pose, mirrored: mirror, distance_m });
            }}
          />
        ))}
      </ul>
      {taking && (
        <Suspense>
          <OpenedCapture
            door={doorOf(token)}
            asked={asked}
            waiting={waiting}
            onClose={() => setTaking(false)}
          />
        </Suspense>
      )}
    </>
  );
}

interface PoseProps {
  asked: PoseAsked;
  waiting: Waiting;
  onTaken: (files: Iterable<File>) => void;
}

function Pose({ asked: { pose, name, sent, again, doubt }, waiting, onTaken }: PoseProps) {
  const { t } = useTranslation();
  // What came in is counted above.
  const here = waiting.all.filter(({ to, state }) => to.pose === pose && state !== "done");
  return (
    <li>
      <span>
        {name}
        {sent > 0 && <span className={styles.count}>{t("my.sentCount", { count: sent })}</span>}
      </span>
      <label data-sent={sent > 0 && !again}>
        {here.some(isOpen) ? t("my.sending") : sent > 0 ? t("my.another") : t("my.take")}
        <input
          className="sr-only"
          type="file"
          accept="image/*"
          capture="environment"
          aria-label={t("my.takeOf", { pose: name })}
          onChange={(event) => {
            onTaken(event.target.files ?? []);
            event.target.value = "";
          }}
        />
      </label>
      {again && <p className={styles.again}>{t("my.onceMore", { reason: again })}</p>}
      {!again && doubt && <p className={styles.again}>{doubt}</p>}
      {here.length > 0 && (
        <SendLines
          sent={here}
          stop={waiting.stop}
          retry={waiting.retry}
          drop={() => waiting.clear(pose)}
          broken={waiting.onlyHere ? undefined : t("my.waits")}
        />
      )}
    </li>
  );
}
