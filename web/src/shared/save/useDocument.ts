// The one way in which sheets are kept: typed, undone, saved after a pause, kept in this browser until they are, and never
// written over somebody else's.
import { useEffect, useRef, useState } from "react";
import { problemOf } from "../api/client";
import { draftOf, dropDraft, keepDraft } from "./draft";
import { after, type History, redone, start, undone } from "./history";

/** A pause in typing after which a sheet is saved. */
const PAUSE_MS = 350;
/** How long after a failed attempt a server that could not be reached is tried again. */
const AGAIN_MS = 5000;

export interface Conflict {
  why: string;
  /** Places at which what is here and what is stored differ. */
  differ: number;
  takeTheirs: () => void;
  keepMine: () => void;
}

export type SaveStanding = "saved" | "saving" | "unsaved" | "failed" | "offline";

/** How a kind of sheet is read, sent and compared. `S` is what the server gives, `T` what is worked on. */
export interface Kind<S, T> {
  /** Names the draft in this browser; one for each sheet. */
  key: string;
  revisionOf: (stored: S) => number;
  valueOf: (stored: S) => T;
  /** Sends a value that was worked out from `known`; refused when something newer is stored. */
  send: (known: S, value: T) => Promise<S>;
  refetch: () => Promise<S | undefined>;
  /** Places at which two values differ; 0 when they are the same. */
  differing: (mine: T, theirs: T) => number;
  /** How long a change waits for the next one before it is saved; 0 for what is chosen rather than typed. */
  pause_ms?: number;
  /** Whether all of a sheet was stored: while something of it was refused the draft is kept. */
  complete?: (saved: S, sent: T) => boolean;
}

export interface Document<S, T> {
  value: T;
  /** Changes it. Changes with the same tag one after another are undone together. */
  change: (next: T, tag?: string) => void;
  undo?: () => void;
  redo?: () => void;
  state: SaveStanding;
  failure?: string;
  /** The problem details of the last refusal. */
  refusal?: ReturnType<typeof problemOf>;
  conflict?: Conflict;
  /** What the server said last. */
  stored: S;
  /** Saves at once, as when a field is left. */
  flush: () => void;
}

/**
 * Saves go one after another, each from the revision the last one gave, so that this tab never conflicts with itself; when
 * another one saved in between, nothing is sent until someone decides.
 */
export function useDocument<S, T>(stored: S, kind: Kind<S, T>): Document<S, T> {
  const draft = useRef(draftOf<T>(kind.key)).current;
  const [history, setHistory] = useState<History<T>>(() => start(draft ?? kind.valueOf(stored)));
  const [dirty, setDirty] = useState(draft !== undefined);
  const [failure, setFailure] = useState<{
    kind: "failed" | "offline";
    problem?: ReturnType<typeof problemOf>;
  }>();
  const [theirs, setTheirs] = useState<{ why: string; stored: S }>();
  const [pending, setPending] = useState(false);
  /** Attempts that have ended: one that ends at once would else go unseen, and the next never be made. */
  const [attempts, setAttempts] = useState(0);
  const inFlight = useRef(false);
  const known = useRef(stored);
  const latest = useRef(history.now);
  latest.current = history.now;

  // Changed elsewhere while nothing is being written here: that is simply the newer sheet.
  useEffect(() => {
    if (kind.revisionOf(stored) <= kind.revisionOf(known.current)) return;
    if (dirty || inFlight.current || theirs) return;
    known.current = stored;
    setHistory((history) => start(kind.valueOf(stored), history));
  }, [stored, dirty, theirs, kind]);

  const failed = async (error: unknown, sent: T) => {
    const problem = problemOf(error);
    if (problem?.status !== 409) {
      setFailure({ kind: problem ? "failed" : "offline", problem });
      return;
    }
    const current = await kind.refetch();
    if (!current) setFailure({ kind: "offline" });
    else if (kind.differing(sent, kind.valueOf(current)) > 0)
      setTheirs({ why: problem.detail, stored: current });
    else known.current = current;
  };

  const save = () => {
    // The state reaches the next render a moment late; two saves from one revision would conflict.
    if (inFlight.current || theirs) return;
    inFlight.current = true;
    setPending(true);
    setDirty(false);
    setFailure(undefined);
    const sent = latest.current;
    const succeeded = (saved: S) => {
      known.current = saved;
      const complete = kind.complete?.(saved, sent) ?? true;
      if (complete && latest.current === sent) dropDraft(kind.key);
    };
    kind
      .send(known.current, sent)
      .then(succeeded, (error) => {
        setDirty(true);
        return failed(error, sent);
      })
      .finally(() => {
        inFlight.current = false;
        setPending(false);
        setAttempts((count) => count + 1);
      });
  };
  const saveNow = useRef(save);
  saveNow.current = save;

  // biome-ignore lint/correctness/useExhaustiveDependencies: after every attempt there is one to be made again
  useEffect(() => {
    if (!dirty || failure || theirs || pending) return;
    const timer = setTimeout(() => saveNow.current(), kind.pause_ms ?? PAUSE_MS);
    return () => clearTimeout(timer);
  }, [dirty, failure, theirs, pending, attempts, kind.pause_ms]);

  // A server that was away for a while is found again without anybody typing.
  const away = dirty && failure?.kind === "offline" && !theirs && !pending;
  // biome-ignore lint/correctness/useExhaustiveDependencies: after every attempt there is one to be made again
  useEffect(() => {
    if (!away) return;
    const again = () => saveNow.current();
    const timer = setTimeout(again, AGAIN_MS);
    window.addEventListener("online", again);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("online", again);
    };
  }, [away, attempts]);

  const become = (next: History<T>) => {
    latest.current = next.now;
    setHistory(next);
    keepDraft(kind.key, next.now);
    setFailure(undefined);
    setDirty(true);
  };
  const takeTheirs = (current: S) => {
    known.current = current;
    // What was typed here stays one step back, so that nothing is lost by taking theirs.
    const next = after(history, kind.valueOf(current));
    latest.current = next.now;
    setHistory(next);
    dropDraft(kind.key);
    setDirty(false);
    setTheirs(undefined);
  };
  const keepMine = (current: S) => {
    known.current = current;
    setTheirs(undefined);
    setDirty(true);
  };
  const back = undone(history);
  const forth = redone(history);
  return {
    value: history.now,
    change: (next, tag) => become(after(history, next, tag)),
    undo: back && (() => become(back)),
    redo: forth && (() => become(forth)),
    state: failure?.kind ?? (pending ? "saving" : dirty ? "unsaved" : "saved"),
    failure: failure?.problem?.detail,
    refusal: failure?.problem,
    conflict: theirs && {
      why: theirs.why,
      differ: kind.differing(history.now, kind.valueOf(theirs.stored)),
      takeTheirs: () => takeTheirs(theirs.stored),
      keepMine: () => keepMine(theirs.stored),
    },
    stored: known.current,
    flush: () => dirty && !failure && saveNow.current(),
  };
}
