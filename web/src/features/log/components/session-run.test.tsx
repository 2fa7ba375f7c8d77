import { act, cleanup, fireEvent, render, renderHook, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { show } from "../../../test/render";
import type { EntryView, Session, Week } from "../model";
import type { Log } from "../useLog";
import { useRest } from "../useRest";
import { RestBar } from "./RestBar";
import { SchemeClockView } from "./SchemeClockView";
import { SessionRun } from "./SessionRun";

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const item = (exercise: string, name: string) => ({
  item: {
    exercise,
    name,
    region: "biceps.long",
    sets: 1,
    reps: [8, 12],
    reserve: 1,
    rest_s: 60,
    scheme: "straight",
    order: 1,
    sides: "both",
    extra_sets_weaker: 0,
    progression: { step_kg: 2 },
  },
  set_up: "",
  cues: [],
  faults: [],
  cautions: [],
  loads_joint: [],
  target: { kind: "hold", load_kg: 20, counts: [10], why: "" },
  instead: [],
  entries: [] as EntryView[],
  feels: [],
});

const session = {
  week: 2,
  day: 1,
  lighter: false,
  home: false,
  minutes: 44.6,
  state: "due",
  items: [item("row", "Row"), item("curl", "Curl")],
  entries: [],
  ladders: [],
} as unknown as Session;
const week = { plan: { id: "p" }, areas: [], today: "2026-03-02", sessions: [session] } as unknown as Week;

function run(change: Partial<Session> = {}) {
  const write = vi.fn();
  const log = { local: [], refused: [], waiting: 0, write } as unknown as Log;
  const onLeave = vi.fn();
  const one = { ...session, ...change };
  show(<SessionRun week={{ ...week, sessions: [one] }} session={one} log={log} onLeave={onLeave} />);
  return { write, onLeave };
}

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));

test("a session begins with how it is today and what is on", () => {
  const { write } = run();
  expect(screen.getByRole("heading", { name: "2 exercises today" })).toBeTruthy();
  expect(screen.getByText("45 min")).toBeTruthy();
  const slept = screen.getByRole("group", { name: "Slept: 1 badly, 5 well" });
  fireEvent.click(within(slept).getByText("4"));
  expect(write).toHaveBeenCalledWith(
    { plan: "p", week: 2, day: 1 },
    { kind: "session", finished: false, sleep: 4 },
    [],
  );
});

test("the way goes exercise by exercise to the end, and the session is finished there", () => {
  const { write } = run();
  press("Begin");
  expect(screen.getByRole("heading", { name: /Row/ })).toBeTruthy();
  press("Next");
  press("To the end");
  expect(screen.getByRole("heading", { name: "Done?" })).toBeTruthy();
  expect(screen.getAllByText(/: nothing$/)).toHaveLength(2);
  press("Finish the session");
  expect(write).toHaveBeenCalledWith(expect.anything(), { kind: "session", finished: true }, []);
});

test("a line to the coach is written when the field is left, and only when it changed", () => {
  const { write } = run();
  for (const name of ["Begin", "Next", "To the end"]) press(name);
  const note = screen.getByLabelText("A line to the coach");
  fireEvent.blur(note);
  expect(write).not.toHaveBeenCalled();
  fireEvent.change(note, { target: { value: " Went well. " } });
  fireEvent.blur(note);
  expect(write.mock.calls[0]?.[1]).toEqual({ kind: "session", finished: false, note: "Went well." });
});

const done = (exercise: string): EntryView[] => [
  {
    entry: {
      id: `${exercise}-1`,
      plan: "p",
      week: 2,
      day: 1,
      trained_on: "2026-03-02",
      at: "2026-03-02T18:00:00Z",
      part: {
        kind: "exercise",
        exercise,
        position: 1,
        scheme: "straight",
        sets: [{ number: 1, load_kg: 20, reps: 10 }],
      },
    },
    written_by: "Ada",
    written_at: "2026-03-02T18:00:00Z",
  } as EntryView,
];

test("a session that was begun goes on at the first exercise that is open", () => {
  run({ items: [{ ...item("row", "Row"), entries: done("row") }, item("curl", "Curl")] as never });
  const ticks = within(screen.getByRole("list", { name: "Exercises" })).getAllByRole("button");
  expect(ticks.map((tick) => tick.getAttribute("aria-current"))).toEqual(["false", "true"]);
  expect(ticks.map((tick) => tick.firstElementChild?.getAttribute("data-state"))).toEqual(["done", "here"]);
});

test("where everything is done it stands at the end, with what was done", () => {
  run({ items: [{ ...item("row", "Row"), entries: done("row") }] as never });
  expect(screen.getByRole("heading", { name: "Done?" })).toBeTruthy();
  expect(screen.getByText("Row: 20 kg × 10")).toBeTruthy();
});

const START = new Date("2026-03-02T18:00:00Z");

/** The rest clock, at a time that stands still until it is moved. */
function resting() {
  vi.useFakeTimers({ now: START });
  const hook = renderHook(() => useRest());
  const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
  return { ...hook, pass };
}

test("a rest runs down, and past its end until it is ended", async () => {
  const { result, pass } = resting();
  expect(result.current.left_s).toBeUndefined();
  act(() => result.current.start(60));
  await pass(45_000);
  expect(result.current.left_s).toBeCloseTo(15, 0);
  await pass(20_000);
  expect(result.current.left_s).toBeCloseTo(-5, 0);
  act(() => result.current.stop());
  expect(result.current.left_s).toBeUndefined();
});

test("a rest goes on while the page is closed, and one of long ago is forgotten", async () => {
  const { result, unmount, pass } = resting();
  act(() => result.current.start(90));
  unmount();
  vi.setSystemTime(START.getTime() + 30_000);
  const again = renderHook(() => useRest());
  expect(again.result.current.left_s).toBeCloseTo(60, 0);
  again.unmount();
  vi.setSystemTime(START.getTime() + 3_600_000);
  const later = renderHook(() => useRest());
  await pass(0);
  expect(later.result.current.left_s).toBeUndefined();
});

test.each([
  [61, "1:01"],
  [5, "0:05"],
  [-12, "Rested, 0:12 over"],
] as const)("with %d s left the bar says %s", (left_s, says) => {
  const stop = vi.fn();
  render(<RestBar rest={{ left_s, total_s: 90, start: vi.fn(), stop }} />);
  const bar = screen.getByRole("button", { name: "End the rest" });
  expect(bar.textContent).toBe(says);
  fireEvent.click(bar);
  expect(stop).toHaveBeenCalledTimes(1);
});

async function clock(scheme: string, seconds: number, ran_ms: number) {
  vi.useFakeTimers({ now: START });
  const onCount = vi.fn();
  render(<SchemeClockView clock={{ kind: "down", seconds } as never} scheme={scheme} onCount={onCount} />);
  fireEvent.click(screen.getByRole("button"));
  await act(() => vi.advanceTimersByTimeAsync(ran_ms));
  const shown = screen.getByRole("status").textContent;
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  return { onCount, shown };
}

test("a time under tension runs down, then on, and is what is counted", async () => {
  const { onCount, shown } = await clock("under-tension", 30, 36_000);
  expect(shown).toBe("0:36");
  expect(onCount).toHaveBeenCalledWith(36);
});

test("a pause within a set is timed, and repetitions stay what is counted", async () => {
  const { onCount, shown } = await clock("rest-pause", 15, 5_000);
  expect(shown).toBe("0:10");
  expect(onCount).not.toHaveBeenCalled();
});

test("a ladder counts the repetitions of every rung climbed", () => {
  const onCount = vi.fn();
  render(<SchemeClockView clock={{ kind: "ladder" } as never} scheme="ladder" onCount={onCount} />);
  for (const rung of [1, 2, 3])
    fireEvent.click(screen.getByRole("button", { name: new RegExp(`^${rung} s`) }));
  // 1 + 2 + 3 repetitions.
  expect(onCount.mock.calls).toEqual([[1], [3], [6]]);
});
