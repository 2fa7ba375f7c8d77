// The log on this device: shown at once, kept at once, sent when there is a line.
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v4 as uuid } from "uuid";
import { addEntry, changeEntry, dropEntry, keepWeek, keptWeek, type LocalEntry, localEntries } from "./db";
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
  const { key } = source;

  const reload = useCallback(async () => setEntries(await localEntries(key)), [key]);

  const look = useCallback(async () => {
    const answer = await source.week();
    if ("data" in answer) {
      setWeek(answer.data);
      setSeenAt(undefined);
      setTrouble(undefined);
      await keepWeek(key, answer.data);
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

  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      for (;;) {
        const queued = (await localEntries(key)).filter(({ state }) => state === "queued").slice(0, AT_ONCE);
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
          await changeEntry({ ...one, state: refused ? "refused" : "sent", fate: outcome.fate, says });
          if (outcome.alarm && says) setSaid({ says, alarm: outcome.alarm });
        }
        await reload();
      }
      await look();
    } finally {
      sending.current = false;
      await reload();
    }
  }, [source, key, look, reload]);

  useEffect(() => {
    void reload();
    void look().then(send);
    const wake = () => document.visibilityState === "visible" && void send();
    const online = () => void send();
    window.addEventListener("online", online);
    document.addEventListener("visibilitychange", wake);
    return () => {
      window.removeEventListener("online", online);
      document.removeEventListener("visibilitychange", wake);
    };
  }, [look, reload, send]);

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
    void addEntry(key, entry).then((added) => {
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
    refused: entries.filter(({ state }) => state === "refused"),
    trouble,
    clockAheadS,
    said,
    write,
    discard: async ({ order }) => {
      if (order) await dropEntry(order);
      await reload();
    },
    retry: () => void send(),
  };
}
