// The one way in which sheets are kept: typed, undone, saved after a pause, kept in this browser until they are, and never
// written over somebody else's.
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { problemOf } from "../api/client";
import { sessionEvents } from "../api/session";
import { draftOf, dropDraft, keepDraft } from "./draft";
import { after, type History, redone, start, undone } from "./history";
import { type Clash, type Merged, merged, same } from "./merge";

/** A pause in typing after which a sheet is saved. */
const PAUSE_MS = 350;
/** How long after a failed attempt a server that could not be reached is tried again. */
const AGAIN_MS = 5000;

/** A field that was changed here and elsewhere; what is no single value is only named. */
export interface NamedClash {
  name: string;
  values?: { mine: string; theirs: string };
}

export interface Conflict {
  /** Who saved it; unknown when it happened before the sheet was opened here. */
  why?: string;
  /** Places at which what is here and what is stored differ. */
  differ: number;
  /** Those of them that can be named. */
  clashes: NamedClash[];
  takeTheirs: () => void;
  keepMine: () => void;
}

/** `ended`: whoever was signed in no longer is, and it is sent once they are again. */
export type SaveStanding = "saved" | "saving" | "unsaved" | "failed" | "offline" | "ended";

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
  /**
   * A sheet of fields that stand for themselves is put together field by field, and asks by name only where two changed the
   * same one; others are asked about as a whole.
   */
  fields?: {
    named: (path: string[]) => string;
    /** A value as it is read, where it is not as it is kept. */
    shown?: (path: string[], value: string) => string;
    /** Fields whose parts belong together. */
    whole?: string[];
  };
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
  /** This browser has no room to keep what was typed: only the server can. */
  unkept: boolean;
  /** What the server said last. */
  stored: S;
  /** Saves at once, as when a field is left. */
  flush: () => void;
}

/** What two made of one sheet, and whether somebody has to say what counts. */
interface Both<T> extends Merged<T> {
  asks: boolean;
}

/** What is stored now beside what both began with, and why it is asked; nothing is said where the sheet was only opened again. */
interface Met<S, T> {
  base: T;
  stored: S;
  why?: string;
}

/** A single value as people read it; undefined where it is none. */
function readable(value: unknown): string | undefined {
  if (value === undefined || value === null) return "";
  return typeof value === "string" || typeof value === "number" ? String(value) : undefined;
}

function namedClash<S, T>({ path, ...clash }: Clash, fields: Kind<S, T>["fields"]): NamedClash {
  const [mine, theirs] = [readable(clash.mine), readable(clash.theirs)];
  const own = (value: string) => (value && fields?.shown ? fields.shown(path, value) : value);
  const values =
    mine !== undefined && theirs !== undefined ? { mine: own(mine), theirs: own(theirs) } : undefined;
  return { name: fields?.named(path) ?? path.join(" "), values };
}

function together<S, T>(kind: Kind<S, T>, base: T, mine: T, theirs: T): Both<T> {
  if (!kind.fields) return { mine, theirs, clashes: [], asks: true };
  const both = merged(base, mine, theirs, kind.fields.whole);
  return { ...both, asks: both.clashes.length > 0 };
}

/** What was typed in this browser and not saved, put together with what was stored since. */
function found<S, T>(stored: S, kind: Kind<S, T>): { value: T; met?: Met<S, T> } | undefined {
  const draft = draftOf<T>(kind.key);
  if (!draft) return undefined;
  const { base, value } = draft;
  const now = kind.valueOf(stored);
  if (!base || same(base, now) || kind.differing(value, now) === 0) return { value };
  const both = together(kind, base, value, now);
  return both.asks ? { value, met: { base, stored } } : { value: both.mine };
}

/**
 * Saves go one after another, each from the revision the last one gave, so that this tab never conflicts with itself; when
 * another one saved in between, nothing is sent until someone decides.
 */
export function useDocument<S, T>(stored: S, kind: Kind<S, T>): Document<S, T> {
  const [draft] = useState(() => found(stored, kind));
  const [history, setHistory] = useState<History<T>>(() => start(draft?.value ?? kind.valueOf(stored)));
  const [dirty, setDirty] = useState(draft !== undefined);
  const [failure, setFailure] = useState<{
    kind: "failed" | "offline" | "ended";
    problem?: ReturnType<typeof problemOf>;
  }>();
  const [theirs, setTheirs] = useState<Met<S, T> | undefined>(draft?.met);
  const [unkept, setUnkept] = useState(false);
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

  const keep = (value: T) => keepDraft(kind.key, { value, base: kind.valueOf(known.current) });

  /** Somebody saved in between: what can be put together is, and what cannot is asked about. */
  const meet = (current: S, why: string) => {
    const stored = kind.valueOf(current);
    if (kind.differing(latest.current, stored) === 0) {
      known.current = current;
      return;
    }
    const base = kind.valueOf(known.current);
    const both = together(kind, base, latest.current, stored);
    if (both.asks) {
      setTheirs({ base, stored: current, why });
      return;
    }
    known.current = current;
    latest.current = both.mine;
    keep(both.mine);
    setHistory((history) => after(history, both.mine));
  };

  const failed = async (error: unknown) => {
    const problem = problemOf(error);
    if (problem?.status !== 409) {
      const ended = problem?.status === 401;
      setFailure({ kind: ended ? "ended" : problem ? "failed" : "offline", problem });
      return;
    }
    const current = await kind.refetch();
    if (current) meet(current, problem.detail);
    else setFailure({ kind: "offline" });
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
        return failed(error);
      })
      .finally(() => {
        inFlight.current = false;
        setPending(false);
        setAttempts((count) => count + 1);
      });
  };
  const saveNow = useEffectEvent(save);

  // biome-ignore lint/correctness/useExhaustiveDependencies: after every attempt there is one to be made again
  useEffect(() => {
    if (!dirty || failure || theirs || pending) return;
    const timer = setTimeout(() => saveNow(), unkept ? 0 : (kind.pause_ms ?? PAUSE_MS));
    return () => clearTimeout(timer);
  }, [dirty, failure, theirs, pending, attempts, unkept, kind.pause_ms]);

  // What waited for its owner is sent once they are back.
  const ended = failure?.kind === "ended";
  useEffect(() => {
    if (!ended) return;
    const back = () => setFailure(undefined);
    sessionEvents.addEventListener("back", back);
    return () => sessionEvents.removeEventListener("back", back);
  }, [ended]);

  // A server that was away for a while is found again without anybody typing.
  const away = dirty && failure?.kind === "offline" && !theirs && !pending;
  // biome-ignore lint/correctness/useExhaustiveDependencies: after every attempt there is one to be made again
  useEffect(() => {
    if (!away) return;
    const again = () => saveNow();
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
    setUnkept(!keep(next.now));
    // While nobody is signed in sending it again would only be refused again.
    if (!ended) setFailure(undefined);
    setDirty(true);
  };
  /** As it is now: whoever is asked may type on before they answer. */
  const both = theirs && together(kind, theirs.base, history.now, kind.valueOf(theirs.stored));
  /** Goes on from what is stored with one of the two; the other stays one step back, so that nothing is lost. */
  const goOn = (current: S, value: T) => {
    known.current = current;
    const next = after(history, value);
    latest.current = next.now;
    setHistory(next);
    setTheirs(undefined);
    const dirty = kind.differing(value, kind.valueOf(current)) > 0;
    if (dirty) keep(value);
    else dropDraft(kind.key);
    setDirty(dirty);
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
    conflict: theirs &&
      both && {
        why: theirs.why,
        differ: kind.differing(history.now, kind.valueOf(theirs.stored)),
        clashes: both.clashes.map((clash) => namedClash(clash, kind.fields)),
        takeTheirs: () => goOn(theirs.stored, both.theirs),
        keepMine: () => goOn(theirs.stored, both.mine),
      },
    unkept,
    stored: known.current,
    flush: () => dirty && !failure && save(),
  };
}
