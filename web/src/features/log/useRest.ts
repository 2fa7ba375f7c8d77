// The rest clock: an end in time, not a count of ticks, so that a locked screen does not stop it.
import { useEffect, useState } from "react";

const KEY = "orthomer-rest";

interface Rest {
  ends_at: number;
  total_s: number;
}

function kept(): Rest | undefined {
  try {
    const rest = JSON.parse(localStorage.getItem(KEY) ?? "null") as Rest | null;
    return rest && Number.isFinite(rest.ends_at) ? rest : undefined;
  } catch {
    return undefined;
  }
}

let sounds: AudioContext | undefined;

/** Browsers let a page sound only after it was touched: a set that is done is such a touch. */
function awaken(): void {
  if (typeof AudioContext === "undefined") return;
  sounds ??= new AudioContext();
  void sounds.resume();
}

/** Two short tones: quiet enough for a gym bag, told apart from a message. */
function ring(): void {
  if (sounds?.state !== "running") return;
  for (const [after, hertz] of [
    [0, 660],
    [0.22, 880],
  ] as const) {
    const tone = sounds.createOscillator();
    const loudness = sounds.createGain();
    const at = sounds.currentTime + after;
    tone.frequency.value = hertz;
    loudness.gain.setValueAtTime(0.2, at);
    loudness.gain.exponentialRampToValueAtTime(0.001, at + 0.2);
    tone.connect(loudness).connect(sounds.destination);
    tone.start(at);
    tone.stop(at + 0.2);
  }
}

/** A rest that ended longer ago than this is forgotten. */
const STALE_MS = 10 * 60_000;

export interface RestClock {
  /** Seconds left; below 0 when it is over. Undefined while nobody rests. */
  left_s?: number;
  total_s: number;
  start: (seconds: number) => void;
  stop: () => void;
}

export function useRest(): RestClock {
  const [rest, setRest] = useState(kept);
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    if (!rest) return;
    const tick = () => setNow(Date.now());
    const timer = setInterval(tick, 250);
    document.addEventListener("visibilitychange", tick);
    const ended = rest.ends_at < Date.now();
    const buzz = setTimeout(
      () => {
        // One that was over when the page was opened is not told again.
        if (ended) return;
        navigator.vibrate?.([180, 80, 180]);
        ring();
      },
      Math.max(0, rest.ends_at - Date.now()),
    );
    return () => {
      clearInterval(timer);
      clearTimeout(buzz);
      document.removeEventListener("visibilitychange", tick);
    };
  }, [rest]);
  const start = (seconds: number) => {
    awaken();
    const next = { ends_at: Date.now() + seconds * 1000, total_s: seconds };
    localStorage.setItem(KEY, JSON.stringify(next));
    setNow(Date.now());
    setRest(next);
  };
  const stop = () => {
    localStorage.removeItem(KEY);
    setRest(undefined);
  };
  const over = rest && now - rest.ends_at > STALE_MS;
  return {
    left_s: rest && !over ? (rest.ends_at - now) / 1000 : undefined,
    total_s: rest?.total_s ?? 0,
    start,
    stop,
  };
}
