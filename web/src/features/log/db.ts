// What this device keeps: the week as last seen, and every entry until the server has it.
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Schemas } from "../../shared/api/client";
import { completed, type Entry, type Week } from "./model";

export interface LocalEntry {
  /** Order of writing. */
  order?: number;
  source: string;
  entry: Entry;
  state: "queued" | "sent" | "refused";
  /** Why it was refused, or what it says at once. */
  says?: string;
  fate?: Schemas["EntryFate"];
}

interface Kept extends DBSchema {
  weeks: { key: string; value: { source: string; week: Week; seen_at: string } };
  entries: { key: number; value: LocalEntry; indexes: { source: string } };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

function db(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("orthomer-log", 1, {
    upgrade(made) {
      made.createObjectStore("weeks", { keyPath: "source" });
      const entries = made.createObjectStore("entries", { keyPath: "order", autoIncrement: true });
      entries.createIndex("source", "source");
    },
  });
  return opened;
}

export async function keepWeek(source: string, week: Week): Promise<void> {
  await (await db()).put("weeks", { source, week, seen_at: new Date().toISOString() });
}

export async function keptWeek(source: string): Promise<{ week: Week; seen_at: string } | undefined> {
  const kept = await (await db()).get("weeks", source);
  return kept && { ...kept, week: completed(kept.week) };
}

/** Gives a source what was kept under an earlier name of it. */
export async function adopt(from: string, to: string): Promise<void> {
  const store = await db();
  const week = await store.get("weeks", from);
  if (week) {
    await store.put("weeks", { ...week, source: to });
    await store.delete("weeks", from);
  }
  for (const entry of await store.getAllFromIndex("entries", "source", from))
    await store.put("entries", { ...entry, source: to });
}

/** Forgets what was kept for sources: the week as last seen and what was written. */
export async function forgetSources(which: (source: string) => boolean): Promise<void> {
  const store = await db();
  for (const key of await store.getAllKeys("weeks")) if (which(key)) await store.delete("weeks", key);
  for (const { source, order } of await store.getAll("entries"))
    if (order !== undefined && which(source)) await store.delete("entries", order);
}

/** Entries that the server does not have yet. */
export async function queuedCount(which: (source: string) => boolean): Promise<number> {
  const all = await (await db()).getAll("entries");
  return all.filter(({ source, state }) => state === "queued" && which(source)).length;
}

/** In the order written. */
export async function localEntries(source: string): Promise<LocalEntry[]> {
  return (await db()).getAllFromIndex("entries", "source", source);
}

export async function addEntry(source: string, entry: Entry): Promise<LocalEntry> {
  const added: LocalEntry = { source, entry, state: "queued" };
  const order = await (await db()).add("entries", added as LocalEntry & { order: number });
  return { ...added, order };
}

export async function changeEntry(changed: LocalEntry): Promise<void> {
  await (await db()).put("entries", changed);
}

export async function dropEntry(order: number): Promise<void> {
  await (await db()).delete("entries", order);
}
