// One pose after another: count down, take, hear what is said of it, take it again or go on.
import { useEffect, useEffectEvent, useReducer, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { type Door, look } from "./api";
import { type Count, faultOf, nextOpen, type Pose, type PoseAsked, type Said } from "./model";
import type { Shot } from "./useCamera";
import { hush, say } from "./voice";

/** Between a sentence and what follows by itself, ms: long enough to hear it out. */
const PAUSE_MS = 5000;
/** Then somebody has to look at the phone. */
const MOST_TRIES = 3;

export type Phase =
  | { is: "ready"; says?: string }
  | { is: "counting"; left: number }
  | { is: "looking" }
  | { is: "said"; said: Said; alone: boolean };

interface Options {
  door: Door;
  poses: readonly PoseAsked[];
  count: Count;
  /** Goes on by itself, so that nobody walks to the phone for each pose. */
  byItself: boolean;
  shoot: () => Promise<Shot | undefined>;
  onKeep: (pose: PoseAsked, whole: Blob) => void;
}

interface Taking {
  place: number | undefined;
  phase: Phase;
  shot?: Shot;
  taken: ReadonlySet<Pose>;
  tries: number;
}

const merged = (now: Taking, change: Partial<Taking>): Taking => ({ ...now, ...change });

export function useTaking({ door, poses, count, byItself, shoot, onKeep }: Options) {
  const { t } = useTranslation();
  const [now, change] = useReducer(merged, undefined, () => ({
    place: nextOpen(poses, new Set()) ?? (poses.length > 0 ? 0 : undefined),
    phase: { is: "ready" } as Phase,
    taken: new Set<Pose>(),
    tries: 0,
  }));
  const { place, phase, shot, taken, tries } = now;
  const pose = place === undefined ? undefined : poses[place];
  /** Ended by whoever does not wait for the studio's sentence. */
  const waits = useRef<AbortController>(undefined);
  /** Grows with whatever is begun or left: a sentence that comes late belongs to nobody. */
  const turn = useRef(0);
  const preview = usePreview(shot?.small);

  const leave = () => {
    turn.current += 1;
    waits.current?.abort();
    hush();
  };
  const begin = (tried: number) => {
    if (!pose) return;
    leave();
    say(t("capture.getReady", { pose: pose.name }));
    change({ phase: { is: "counting", left: count }, shot: undefined, tries: tried });
  };
  /** Somebody stands at the phone: what was tried before counts no more. */
  const start = () => begin(0);
  const stop = () => {
    leave();
    change({ phase: { is: "ready" }, shot: undefined, tries: 0 });
  };

  const take = useEffectEvent(async () => {
    if (!pose) return;
    const mine = turn.current;
    const fresh = await shoot();
    if (turn.current !== mine) return;
    if (!fresh) {
      const says = t("capture.noPicture");
      say(says);
      return change({ phase: { is: "ready", says } });
    }
    change({ phase: { is: "looking" }, shot: fresh, tries: tries + 1 });
    const { data, width, height } = fresh.glance;
    const glanced = faultOf(data, width, height);
    waits.current = new AbortController();
    const told = await look(door, pose.pose, fresh.small, waits.current);
    if (turn.current !== mine) return;
    const said = told ?? { fault: glanced, says: t(`capture.alone.${glanced ?? "good"}`) };
    say(said.says);
    change({ phase: { is: "said", said, alone: told === undefined } });
  });
  const tick = useEffectEvent(() => {
    if (phase.is !== "counting") return;
    if (phase.left <= 1) void take();
    else {
      if (phase.left <= 4) say(String(phase.left - 1));
      change({ phase: { is: "counting", left: phase.left - 1 } });
    }
  });
  const left = phase.is === "counting" ? phase.left : undefined;
  useEffect(() => {
    if (left === undefined) return;
    const timer = setTimeout(tick, 1000);
    return () => clearTimeout(timer);
  }, [left]);

  /** Keeps the picture and goes to the next pose. */
  const keep = (going: boolean) => {
    if (!pose || !shot) return;
    onKeep(pose, shot.whole);
    const all = new Set([...taken, pose.pose]);
    const next = nextOpen(poses, all, place);
    change({ taken: all, place: next, shot: undefined, tries: 0, phase: { is: "ready" } });
    const name = next === undefined ? undefined : poses[next]?.name;
    if (name === undefined) return say(t("capture.allTaken"));
    if (going) {
      say(t("capture.getReady", { pose: name }));
      change({ phase: { is: "counting", left: count } });
    }
  };
  const goOn = useEffectEvent(() => {
    if (phase.is !== "said") return;
    if (!phase.said.fault) keep(true);
    else if (tries < MOST_TRIES) begin(tries);
  });
  useEffect(() => {
    if (phase.is !== "said" || !byItself) return;
    const timer = setTimeout(goOn, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [phase, byItself]);
  const onLeave = useEffectEvent(leave);
  useEffect(() => () => onLeave(), []);

  /** What the page can tell alone is enough. */
  const goAlone = () => waits.current?.abort();
  const choose = (other: number) => {
    leave();
    change({ place: other, phase: { is: "ready" }, shot: undefined, tries: 0 });
  };
  return { place, pose, phase, preview, taken, start, stop, keep, goAlone, choose };
}

/** A picture as an address that lives as long as it is shown. */
function usePreview(blob: Blob | undefined): string | undefined {
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    if (!blob) return setAddress(undefined);
    const made = URL.createObjectURL(blob);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [blob]);
  return address;
}
