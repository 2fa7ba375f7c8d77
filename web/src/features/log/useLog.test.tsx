import "fake-indexeddb/auto";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Schemas } from "../../shared/api/client";
import * as db from "./db";
import type { Entry, Week } from "./model";
import type { Answer, Source } from "./source";
import { useLog } from "./useLog";

const WEEK = { client_name: "Ada", sessions: [], areas: [], today: "2026-03-02" } as unknown as Week;
const PLACE = { plan: "p", week: 1, day: 1 };
// What was still being written when a test ended is done before the next one, or the end.
afterEach(async () => {
  cleanup();
  await new Promise((settled) => setTimeout(settled, 50));
});

const PART = { kind: "session", finished: true } as Entry["part"];

/** A studio behind a line that can be cut; what arrives twice is kept once. */
function studio(key: string) {
  const kept = new Map<string, Entry>();
  const state = { line: true, sendings: 0, fate: "kept" as Schemas["EntryFate"], ahead: 0, status: 0 };
  const reached = <T,>(data: () => T): Answer<T> => {
    if (state.status) return { says: "This link was taken back.", status: state.status };
    return state.line ? { data: data() } : {};
  };
  const source: Source = {
    key,
    writer: "Ada",
    week: async () => reached(() => WEEK),
    send: async ({ entries }) =>
      reached(() => {
        state.sendings += 1;
        for (const entry of entries) kept.set(entry.id, entry);
        const outcomes = entries.map(({ id }) => ({
          id,
          fate: state.fate,
          says: state.fate === "refused" ? "why" : null,
        }));
        return { outcomes, clock_ahead_s: state.ahead } as Schemas["SentEntries"];
      }),
  };
  return { source, state, kept };
}

test("what is written without a line is kept and sent when there is one", async () => {
  const { source, state, kept } = studio("offline");
  const { result, rerender } = renderHook(() => useLog(source));
  await waitFor(() => expect(result.current.week).toBeDefined());
  state.line = false;
  await act(async () => void result.current.write(PLACE, PART, []));
  await act(async () => void result.current.write(PLACE, PART, []));
  await waitFor(() => expect(result.current.waiting).toBe(2));
  expect(result.current.local).toHaveLength(2);
  state.line = true;
  await act(async () => window.dispatchEvent(new Event("online")));
  rerender();
  await waitFor(() => expect(result.current.waiting).toBe(0));
  expect(kept.size).toBe(2);
});

test("the week is shown from this device when the studio cannot be reached", async () => {
  const { source, state } = studio("kept");
  const first = renderHook(() => useLog(source));
  await waitFor(() => expect(first.result.current.week).toBeDefined());
  first.unmount();
  state.line = false;
  const { result } = renderHook(() => useLog(source));
  await waitFor(() => expect(result.current.week?.client_name).toBe("Ada"));
  expect(result.current.seenAt).toBeDefined();
});

test("what the studio cannot keep stays here with its reason until it is dropped", async () => {
  const { source, state } = studio("refused");
  state.fate = "refused";
  const { result } = renderHook(() => useLog(source));
  await act(async () => void result.current.write(PLACE, PART, []));
  await waitFor(() => expect(result.current.refused[0]?.says).toBe("why"));
  const [refused] = result.current.refused;
  await act(() => (refused ? result.current.discard(refused) : Promise.resolve()));
  expect(result.current.refused).toHaveLength(0);
});

test("a link that was taken back says so and loses nothing", async () => {
  const { source, state } = studio("shut");
  const { result } = renderHook(() => useLog(source));
  await waitFor(() => expect(result.current.week).toBeDefined());
  state.status = 401;
  await act(async () => void result.current.write(PLACE, PART, []));
  await waitFor(() => expect(result.current.trouble).toContain("taken back"));
  expect(result.current.waiting).toBe(1);
});

test("a wrong clock is told", async () => {
  const { source, state } = studio("clock");
  state.ahead = 7200;
  const { result } = renderHook(() => useLog(source));
  await act(async () => void result.current.write(PLACE, PART, []));
  await waitFor(() => expect(result.current.clockAheadS).toBe(7200));
});

test("what a full phone cannot keep is told of, and sent while the page is open", async () => {
  const { source, state, kept } = studio("full");
  const { result } = renderHook(() => useLog(source));
  await waitFor(() => expect(result.current.week).toBeDefined());
  state.line = false;
  const full = vi.spyOn(db, "addEntry").mockRejectedValue(new DOMException("full", "QuotaExceededError"));
  await act(async () => void result.current.write(PLACE, PART, []));
  full.mockRestore();
  await waitFor(() => expect(result.current.unkept).toBe(1));
  expect(result.current.local).toHaveLength(1);
  state.line = true;
  await act(async () => window.dispatchEvent(new Event("online")));
  await waitFor(() => expect(result.current.unkept).toBe(0));
  expect(kept.size).toBe(1);
});

test("what was kept before sources had an account is found by the account that opens it", async () => {
  const { source, state, kept } = studio("client c");
  state.line = false;
  const before = renderHook(() => useLog(source));
  await act(async () => void before.result.current.write(PLACE, PART, []));
  await waitFor(() => expect(before.result.current.waiting).toBe(1));
  before.unmount();
  state.line = true;
  const { result } = renderHook(() => useLog({ ...source, key: "client c of mara", formerly: "client c" }));
  await waitFor(() => expect(kept.size).toBe(1));
  await waitFor(() => expect(result.current.waiting).toBe(0));
});
