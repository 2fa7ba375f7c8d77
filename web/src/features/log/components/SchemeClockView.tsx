import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { clockText, ladderReps, type SchemeClock } from "../model";
import styles from "./Phone.module.css";

interface Props {
  clock: NonNullable<SchemeClock>;
  /** What the clock has counted: seconds under tension, or the repetitions of a ladder. */
  onCount: (count: number) => void;
}

/** The clock of a set: a time under tension, or the rungs of a ladder. */
export function SchemeClockView({ clock, onCount }: Props) {
  return clock.kind === "ladder" ? (
    <Ladder onCount={onCount} />
  ) : (
    <CountDown seconds={clock.seconds} onCount={onCount} />
  );
}

/** Runs by the time of day, so that a locked screen does not stop it. */
function useElapsed(running: boolean): number {
  const [began, setBegan] = useState(0);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (!running) return;
    const start = Date.now();
    setBegan(start);
    setNow(start);
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, [running]);
  return running ? (now - began) / 1000 : 0;
}

function CountDown({ seconds, onCount }: { seconds: number; onCount: Props["onCount"] }) {
  const { t } = useTranslation();
  const [running, setRunning] = useState(false);
  const elapsed = useElapsed(running);
  const left = seconds - elapsed;
  const over = running && left <= 0;
  useEffect(() => {
    if (over) navigator.vibrate?.(200);
  }, [over]);
  const label = t("log.underTension");
  const press = () => {
    if (running) onCount(Math.max(1, Math.round(elapsed)));
    setRunning(!running);
  };
  return (
    <div className={styles.clock}>
      <output aria-label={label}>{clockText(over ? elapsed : left)}</output>
      <div className={styles.choices}>
        <button type="button" aria-pressed={running} onClick={press}>
          {running ? t("log.stopClock") : label}
        </button>
      </div>
    </div>
  );
}

function Ladder({ onCount }: { onCount: Props["onCount"] }) {
  const { t } = useTranslation();
  const [rung, setRung] = useState(0);
  const climb = () => {
    setRung(rung + 1);
    onCount(ladderReps(rung + 1));
  };
  return (
    <div className={styles.clock}>
      <output aria-label={t("log.rungs")}>{rung}</output>
      <div className={styles.choices}>
        <button type="button" onClick={climb}>
          {t("log.rung", { rung: rung + 1 })}
        </button>
      </div>
    </div>
  );
}
