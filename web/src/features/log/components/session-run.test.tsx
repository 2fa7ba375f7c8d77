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
  forms: [],
  variants: [],
  set_up_fields: [],
  lighter_sets: 1,
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
  run: [],
  warm_up: {
    takes_s: 40,
    moves: [
      {
        id: "arm-circles",
        name: "Arm circles",
        how: "Slowly.",
        reps: 12,
        picture: "arm-circles",
        why: "for the shoulder",
      },
    ],
  },
} as unknown as Session;
const lighter_today = { sleep_at_most: 2, soreness_at_least: 4, warm_up_times: 2 };
const week = {
  plan: { id: "p" },
  areas: [],
  lighter_today,
  today: "2026-03-02",
  sessions: [session],
} as unknown as Week;

function run(change: Partial<Session> = {}) {
  let count = 0;
  const write = vi.fn(() => `e${++count}`);
  const log = { local: [], refused: [], waiting: 0, write } as unknown as Log;
  const onLeave = vi.fn();
  const one = { ...session, ...change };
  show(<SessionRun week={{ ...week, sessions: [one] }} session={one} log={log} onLeave={onLeave} />);
  return { write, onLeave };
}

/** What was written, each with what it follows. */
const written = (write: ReturnType<typeof vi.fn>) =>
  write.mock.calls.map(([, part, follows]) => [part, follows]);

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
  expect(written(write)[0]).toEqual([{ kind: "session", finished: false, note: "Went well." }, []]);
});

test("finishing right after a line builds on it instead of standing beside it", () => {
  const { write } = run();
  for (const name of ["Begin", "Next", "To the end"]) press(name);
  const note = screen.getByLabelText("A line to the coach");
  fireEvent.change(note, { target: { value: "Went well." } });
  fireEvent.blur(note);
  press("Finish the session");
  expect(written(write)[1]).toEqual([{ kind: "session", finished: true, note: "Went well." }, ["e1"]]);
});

test("a group goes round by round: the next of it after a set, the rest after the round", () => {
  const grouped = (exercise: string, name: string, rest_s: number) => {
    const one = item(exercise, name);
    return { ...one, item: { ...one.item, group: "A", sets: 2, rest_s }, lighter_sets: 1 };
  };
  const step = (card: number, set: number, rest_s: number) => ({ card, set, work_s: 40, rest_s });
  run({
    items: [grouped("row", "Row", 0), grouped("curl", "Curl", 45)] as never,
    run: [step(0, 1, 0), step(1, 1, 45), step(0, 2, 0), step(1, 2, 45)],
  });
  press("Begin");
  const name = () => screen.getByRole("heading", { level: 2 }).textContent;
  expect(name()).toBe("A1Row");
  press("Set done");
  expect([name(), screen.queryByRole("button", { name: "End the rest" })]).toEqual(["A2Curl", null]);
  press("Set done");
  expect(name()).toBe("A1Row");
  expect(screen.getByRole("button", { name: "End the rest" }).textContent).toBe("0:45");
});

test("after a bad night a lighter session is offered, and half the sets are asked for", () => {
  const one = item("row", "Row");
  const { write } = run({ items: [{ ...one, item: { ...one.item, sets: 4 }, lighter_sets: 2 }] as never });
  expect(screen.queryByRole("button", { name: "Make it a lighter one" })).toBeNull();
  const slept = screen.getByRole("group", { name: "Slept: 1 badly, 5 well" });
  fireEvent.click(within(slept).getByText("1"));
  expect(written(write)[0]?.[0]).toMatchObject({ sleep: 1 });
});

test("the warm-up is shown move by move, twice as much after a bad night", () => {
  run();
  expect(screen.getByText("Arm circles × 12")).toBeTruthy();
  cleanup();
  const entry = { ...done("")[0]?.entry, part: { kind: "session", finished: false, sleep: 1 } };
  const entries = [{ entry, written_by: "Ada", written_at: "2026-03-02T18:00:00Z" }];
  run({ entries: entries as never });
  const back = () => fireEvent.click(screen.getByRole("button", { name: "Back" }));
  back();
  expect(screen.getByText("Arm circles × 24")).toBeTruthy();
});

test("a session that was made lighter asks for half the sets", () => {
  const one = item("row", "Row");
  const entry = {
    ...done("")[0]?.entry,
    part: { kind: "session", finished: false, sleep: 1, lighter: true },
  };
  const entries = [{ entry, written_by: "Ada", written_at: "2026-03-02T18:00:00Z" }];
  run({
    items: [{ ...one, item: { ...one.item, sets: 4 }, lighter_sets: 2 }] as never,
    entries: entries as never,
  });
  expect(within(screen.getByRole("list", { name: "Sets" })).getAllByRole("listitem")).toHaveLength(2);
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

async function clock(seconds: number, ran_ms: number) {
  vi.useFakeTimers({ now: START });
  const onCount = vi.fn();
  render(<SchemeClockView clock={{ kind: "down", seconds } as never} onCount={onCount} />);
  fireEvent.click(screen.getByRole("button"));
  await act(() => vi.advanceTimersByTimeAsync(ran_ms));
  const shown = screen.getByRole("status").textContent;
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  return { onCount, shown };
}

test("a time under tension runs down, then on, and is what is counted", async () => {
  const { onCount, shown } = await clock(30, 36_000);
  expect(shown).toBe("0:36");
  expect(onCount).toHaveBeenCalledWith(36);
});

test("a ladder counts the repetitions of every rung climbed", () => {
  const onCount = vi.fn();
  render(<SchemeClockView clock={{ kind: "ladder" } as never} onCount={onCount} />);
  for (const rung of [1, 2, 3])
    fireEvent.click(screen.getByRole("button", { name: new RegExp(`^${rung} s`) }));
  // 1 + 2 + 3 repetitions.
  expect(onCount.mock.calls).toEqual([[1], [3], [6]]);
});
