import { useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { day, useQuantities } from "../../../shared/format";
import { useAwake } from "../../../shared/ui/useAwake";
import type { Door } from "../api";
import { type Asked, COUNTS_S, type Count, type PoseAsked, type SetUp as Stands } from "../model";
import { useCamera } from "../useCamera";
import { mayFeel, useHeld } from "../useHeld";
import { useTaking } from "../useTaking";
import type { Waiting } from "../useWaiting";
import styles from "./Capture.module.css";
import { Figure } from "./Figure";
import { SetUp, useStands } from "./SetUp";
import { Viewfinder } from "./Viewfinder";

const KEY = "orthomer-countdown";

/** Kept on this phone: how far it is to the mark. */
function useCount(): [Count, (count: Count) => void] {
  const kept = Number(localStorage.getItem(KEY));
  const [count, setCount] = useState<Count>(COUNTS_S.find((one) => one === kept) ?? 10);
  return [
    count,
    (next) => {
      localStorage.setItem(KEY, String(next));
      setCount(next);
    },
  ];
}

interface Props {
  door: Door;
  asked: Asked;
  /** Where a picture goes that will do. */
  waiting: Pick<Waiting, "add" | "clear">;
  onClose: () => void;
}

/** The camera with last time's outline over it: the poses one after another, each heard of before the next. */
export function Capture({ door, asked, waiting, onClose }: Props) {
  const { t } = useTranslation();
  const [stands, setStands] = useState<Stands | undefined>(asked.set_up ?? undefined);
  const [asking, setAsking] = useState(asked.set_up == null);
  useAwake();
  const element = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    element.current?.showModal();
    // The browser begins at what closes it: whoever opened it came for what is inside.
    element.current?.querySelector<HTMLElement>("form input")?.focus();
  }, []);
  return (
    <dialog
      ref={element}
      className={styles.screen}
      data-theme="night"
      aria-label={t("capture.title")}
      onCancel={(event) => {
        // Closed by what is shown, not by the browser.
        event.preventDefault();
        onClose();
      }}
    >
      {asking ? (
        <>
          <header className={styles.top}>
            <span />
            <Close onClose={onClose} />
          </header>
          <SetUp
            door={door}
            now={stands}
            onKept={(kept) => {
              setStands(kept);
              setAsking(false);
            }}
            onLater={() => setAsking(false)}
          />
        </>
      ) : (
        <Camera
          door={door}
          asked={asked}
          stands={stands}
          waiting={waiting}
          onStands={() => setAsking(true)}
          onClose={onClose}
        />
      )}
    </dialog>
  );
}

function Close({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation();
  return (
    <button type="button" className={styles.close} aria-label={t("capture.close")} onClick={onClose}>
      ×
    </button>
  );
}

interface CameraProps extends Props {
  stands: Stands | undefined;
  onStands: () => void;
}

function Camera({ door, asked, stands, waiting, onStands, onClose }: CameraProps) {
  const { t } = useTranslation();
  const { said } = useQuantities();
  const standsSaid = useStands();
  const [count, setCount] = useCount();
  const [byItself, setByItself] = useState(true);
  const { state, setVideo, shoot } = useCamera();
  const held = useHeld();
  // What was asked for when it opened: a pose does not move away under the thumb when it has arrived.
  const [poses] = useState(asked.poses);
  const keep = (pose: PoseAsked, whole: Blob) => {
    waiting.clear(pose.pose);
    const file = new File([whole], `${pose.name}.jpg`, { type: "image/jpeg" });
    void waiting.add(file, { pose: pose.pose, mirrored: false, distance_m: stands?.distance_m });
  };
  const taking = useTaking({ door, poses, count, byItself, shoot, onKeep: keep });
  const { place, pose, phase, preview, taken } = taking;
  // Enter goes on: from start to stop, to again or next.
  const main = useRef<HTMLButtonElement>(null);
  const moment = `${state.is} ${phase.is} ${place}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another moment has another main button
  useEffect(() => main.current?.focus({ preventScroll: true }), [moment]);
  if (state.is === "shut")
    return (
      <div className={styles.form}>
        <p role="alert">{t(`capture.trouble.${state.trouble}`)}</p>
        <button type="button" className={styles.main} onClick={onClose}>
          {t("capture.ownCamera")}
        </button>
      </div>
    );
  if (!pose || place === undefined)
    return (
      <div className={styles.form}>
        <h2>{t("capture.done")}</h2>
        <p>{t("capture.doneHint")}</p>
        <button type="button" className={styles.main} onClick={onClose}>
          {t("capture.finish")}
        </button>
      </div>
    );
  return (
    <>
      <header className={styles.top}>
        <div>
          <h2>
            {pose.name} <small>{t("capture.poseOf", { place: place + 1, count: poses.length })}</small>
          </h2>
          <p>
            {pose.again ??
              (pose.ghost ? t("capture.ghost", { date: day(pose.ghost.on) }) : t("capture.firstTime"))}
          </p>
        </div>
        <Close onClose={onClose} />
      </header>
      <div className={styles.stage}>
        <Viewfinder pose={pose} held={held} onVideo={setVideo} covered={preview !== undefined} />
        {preview && <img className={styles.seen} src={preview} alt={t("capture.picture")} />}
        {state.is === "opening" && <p className={styles.hint}>{t("capture.opening")}</p>}
        {phase.is === "counting" && (
          <p className={styles.count} role="timer">
            {phase.left}
          </p>
        )}
      </div>
      <footer className={styles.bottom}>
        {phase.is === "ready" && (
          <>
            <button type="button" className={styles.stands} onClick={onStands}>
              {stands ? standsSaid(stands) : t("capture.setUp.title")} <u>{t("capture.setUp.change")}</u>
            </button>
            <div className={styles.row}>
              <fieldset className={styles.choices}>
                <legend className="sr-only">{t("capture.countdown")}</legend>
                {COUNTS_S.map((one) => (
                  <button key={one} type="button" aria-pressed={count === one} onClick={() => setCount(one)}>
                    {t("capture.seconds", { count: one })}
                  </button>
                ))}
              </fieldset>
              <label>
                <input
                  type="checkbox"
                  checked={byItself}
                  onChange={(event) => setByItself(event.target.checked)}
                />
                {t("capture.byItself")}
              </label>
            </div>
            {phase.says && <p role="alert">{phase.says}</p>}
            <button
              type="button"
              ref={main}
              className={styles.main}
              disabled={state.is !== "open"}
              onClick={() => {
                void mayFeel();
                taking.start();
              }}
            >
              {t("capture.start")}
            </button>
          </>
        )}
        {phase.is === "counting" && (
          <button type="button" ref={main} className={styles.main} onClick={taking.stop}>
            {t("capture.stop")}
          </button>
        )}
        {phase.is === "looking" && (
          <>
            <p role="status">{t("capture.looking")}</p>
            <button type="button" className={styles.second} onClick={taking.goAlone}>
              {t("capture.goAlone")}
            </button>
          </>
        )}
        {phase.is === "said" && (
          <>
            <p className={styles.said} role="status" data-good={!phase.said.fault}>
              {said(phase.said.says)}
            </p>
            <div className={styles.row}>
              <button
                type="button"
                ref={phase.said.fault ? main : undefined}
                className={phase.said.fault ? styles.main : styles.second}
                onClick={taking.start}
              >
                {t("capture.again")}
              </button>
              <button
                type="button"
                ref={phase.said.fault ? undefined : main}
                className={phase.said.fault ? styles.second : styles.main}
                onClick={() => taking.keep(byItself)}
              >
                {t(phase.said.fault ? "capture.useIt" : "capture.next")}
              </button>
            </div>
            {byItself && (
              <button type="button" className="bare" onClick={() => setByItself(false)}>
                {t("capture.wait")}
              </button>
            )}
          </>
        )}
        <ol className={styles.poses} aria-label={t("capture.poses")}>
          {poses.map((one, at) => (
            <li key={one.pose}>
              <button
                type="button"
                aria-label={`${one.name}${taken.has(one.pose) || one.sent > 0 ? `, ${t("capture.taken")}` : ""}`}
                aria-current={at === place ? "step" : undefined}
                data-taken={taken.has(one.pose) || (one.sent > 0 && !one.again)}
                onClick={() => taking.choose(at)}
              >
                <Figure pose={one.pose} />
              </button>
            </li>
          ))}
        </ol>
      </footer>
    </>
  );
}
