// The log on this device: shown at once, kept at once, sent when there is a line.
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v4 as uuid } from "uuid";
import { alone } from "../../shared/save";
import {
  addEntry,
  adopt,
  changeEntry,
  dropEntry,
  keepWeek,
  keptWeek,
  type LocalEntry,
  localEntries,
} from "./db";
import type { Entry, EntryView, Place, Week } from "./model";
import type { Source } from "./source";

/** Entries sent at once: a phone that was away for weeks sends them in turns. */
const AT_ONCE = 100;
/** How long to wait before trying again without a sign that there is a line. */
const AGAIN_MS = 15_000;

export interface Log {
  /** The week; undefined while nothing is known. */
  week?: Week;
  /** When it was seen, while the server cannot be reached. */
  seenAt?: string;
  /** Entries that the server does not show yet. */
  local: EntryView[];
  /** Entries that wait to be sent. */
  waiting: number;
  /** Entries that this device has no room for: only while the page is open can they be sent. */
  unkept: number;
  /** Entries the server cannot keep, with why. */
  refused: LocalEntry[];
  /** Why nothing can be sent, in a sentence. */
  trouble?: string;
  /** How far this device's clock is ahead, s. */
  clockAheadS: number;
  /** What the server said to the last sending, such as to stop. */
  said?: { says: string; alarm?: string };
  /** Keeps what was done and sends it; gives its id at once. */
  write: (place: Place, part: Entry["part"], follows: string[]) => string;
  discard: (entry: LocalEntry) => Promise<void>;
  retry: () => void;
}

export function useLog(source: Source): Log {
  const [week, setWeek] = useState<Week>();
  const [seenAt, setSeenAt] = useState<string>();
  const [entries, setEntries] = useState<LocalEntry[]>([]);
  const [trouble, setTrouble] = useState<string>();
  const [clockAheadS, setClockAheadS] = useState(0);
  const [said, setSaid] = useState<{ says: string; alarm?: string }>();
  const sending = useRef(false);
  /** Entries that this device had no room for: they live as long as the page does, and are sent like the others. */
  const unkept = useRef<LocalEntry[]>([]);
  const { key } = source;

  const reload = useCallback(
    async () => setEntries([...(await localEntries(key)), ...unkept.current]),
    [key],
  );

  const look = useCallback(async () => {
    const answer = await source.week();
    if ("data" in answer) {
      setWeek(answer.data);
      setSeenAt(undefined);
      setTrouble(undefined);
      // Without room for it the week is there as long as the page is.
      await keepWeek(key, answer.data).catch(() => undefined);
      // What the server has shown is no longer needed here.
      const shown = await localEntries(key);
      for (const { order, state } of shown) if (state === "sent" && order) await dropEntry(order);
      await reload();
      return;
    }
    setTrouble(answer.status ? answer.says : undefined);
    const kept = await keptWeek(key);
    if (kept) {
      setWeek((known) => known ?? kept.week);
      setSeenAt(kept.seen_at);
    }
  }, [source, key, reload]);

  const settle = useCallback(async (changed: LocalEntry) => {
    if (changed.order !== undefined) return changeEntry(changed);
    const others = unkept.current.filter(({ entry }) => entry.id !== changed.entry.id);
    unkept.current = changed.state === "sent" ? others : [...others, changed];
  }, []);

  const sendQueued = useCallback(async () => {
    for (;;) {
      const all = [...(await localEntries(key)), ...unkept.current];
      const queued = all.filter(({ state }) => state === "queued").slice(0, AT_ONCE);
      if (queued.length === 0) break;
      const answer = await source.send({
        sent_at: new Date().toISOString(),
        entries: queued.map(({ entry }) => entry),
      });
      if (!("data" in answer)) {
        setTrouble(answer.status ? answer.says : undefined);
        return;
      }
      setTrouble(undefined);
      setClockAheadS(answer.data.clock_ahead_s);
      for (const [index, outcome] of answer.data.outcomes.entries()) {
        const one = queued[index];
        if (!one) continue;
        const refused = outcome.fate === "refused";
        const says = outcome.says ?? undefined;
        await settle({ ...one, state: refused ? "refused" : "sent", fate: outcome.fate, says });
        if (outcome.alarm && says) setSaid({ says, alarm: outcome.alarm });
      }
      await reload();
    }
    await look();
  }, [source, key, look, reload, settle]);

  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      await alone(`send ${key}`, sendQueued);
    } finally {
      sending.current = false;
      await reload();
    }
  }, [key, sendQueued, reload]);

  useEffect(() => {
    const adopted = source.formerly ? adopt(source.formerly, key) : Promise.resolve();
    void adopted.then(reload).then(look).then(send);
    const wake = () => document.visibilityState === "visible" && void send();
    const online = () => void send();
    window.addEventListener("online", online);
    document.addEventListener("visibilitychange", wake);
    return () => {
      window.removeEventListener("online", online);
      document.removeEventListener("visibilitychange", wake);
    };
  }, [source, key, look, reload, send]);

  const waiting = entries.filter(({ state }) => state === "queued").length;
  useEffect(() => {
    if (waiting === 0) return;
    const timer = setInterval(() => void send(), AGAIN_MS);
    return () => clearInterval(timer);
  }, [waiting, send]);

  const write = (place: Place, part: Entry["part"], follows: string[]) => {
    const now = new Date();
    const day = `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, "0")}-${String(now.getDate()).padStart(2, "0")}`;
    const entry: Entry = { id: uuid(), follows, ...place, trained_on: day, at: now.toISOString(), part };
    const noRoom = (): LocalEntry => {
      const added: LocalEntry = { source: key, entry, state: "queued" };
      unkept.current = [...unkept.current, added];
      return added;
    };
    void addEntry(key, entry)
      .catch(noRoom)
      .then((added) => {
        setEntries((known) => [...known, added]);
        void send();
      });
    return entry.id;
  };

  const local = useMemo(
    () =>
      entries
        .filter(({ state }) => state !== "refused")
        .map(({ entry }) => ({ entry, written_by: source.writer, written_at: entry.at })),
    [entries, source.writer],
  );
  return {
    week,
    seenAt,
    local,
    waiting,
    unkept: entries.filter(({ order, state }) => order === undefined && state === "queued").length,
    refused: entries.filter(({ state }) => state === "refused"),
    trouble,
    clockAheadS,
    said,
    write,
    discard: async ({ order, entry }) => {
      if (order) await dropEntry(order);
      unkept.current = unkept.current.filter((one) => one.entry.id !== entry.id);
      await reload();
    },
    retry: () => void send(),
  };
}
