import { act, cleanup, render, renderHook, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import "../../i18n";
import { sessionEvents } from "../api/session";
import { ConflictNote } from "./ConflictNote";
import * as drafts from "./draft";
import { SaveState } from "./SaveState";
import { type Kind, useDocument } from "./useDocument";

/** What is worked on: an object, as every sheet is. */
interface Typed {
  text: string;
}

interface Sheet extends Typed {
  revision: number;
}

const PAUSE_MS = 400;
const RETRY_MS = 6000;

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** A server with one sheet: it refuses an older revision, can be cut off, and has rules of its own. */
function server(text = "first") {
  const state = { stored: { revision: 1, text }, line: true, refuses: "" };
  const send = vi.fn(async (known: Sheet, { text: value }: Typed): Promise<Sheet> => {
    if (!state.line) throw new TypeError("Failed to fetch");
    if (state.refuses === value)
      throw { status: 422, title: "Invalid", detail: "That is no word.", errors: [] };
    if (known.revision !== state.stored.revision)
      throw { status: 409, title: "Conflict", detail: "this sheet was saved by Jo since you opened it" };
    state.stored = { revision: known.revision + 1, text: value };
    return state.stored;
  });
  const kind: Kind<Sheet, Typed> = {
    key: "sheet",
    revisionOf: ({ revision }) => revision,
    valueOf: ({ text }) => ({ text }),
    differing: (mine, theirs) => Number(mine.text !== theirs.text),
    refetch: async () => (state.line ? state.stored : undefined),
    send,
  };
  /** Somebody else saves. */
  const elsewhere = (text: string) => {
    state.stored = { revision: state.stored.revision + 1, text };
  };
  return { state, send, kind, elsewhere };
}

type Server = ReturnType<typeof server>;

const opened = ({ kind, state }: Server) =>
  renderHook(({ stored }) => useDocument(stored, kind), { initialProps: { stored: state.stored as Sheet } });

const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

test("what is typed is saved once, after a pause", async () => {
  const studio = server();
  const { result } = opened(studio);
  for (const text of ["s", "se", "second"]) act(() => result.current.change({ text }, "text"));
  expect(result.current.state).toBe("unsaved");
  expect(studio.send).not.toHaveBeenCalled();
  await pass(PAUSE_MS);
  expect(studio.send).toHaveBeenCalledTimes(1);
  expect([studio.state.stored.text, result.current.state]).toEqual(["second", "saved"]);
});

test("steps in one field are taken back together, and forth again", async () => {
  const { result } = opened(server());
  for (const text of ["s", "se", "second"]) act(() => result.current.change({ text }, "text"));
  act(() => result.current.change({ text: "third" }, "another"));
  act(() => result.current.undo?.());
  expect(result.current.value.text).toBe("second");
  act(() => result.current.undo?.());
  expect(result.current.value.text).toBe("first");
  expect(result.current.undo).toBeUndefined();
  act(() => result.current.redo?.());
  expect(result.current.value.text).toBe("second");
});

test("a refusal is told with its reason and tried again with the next change", async () => {
  const studio = server();
  studio.state.refuses = "qwrt";
  const { result } = opened(studio);
  act(() => result.current.change({ text: "qwrt" }));
  await pass(PAUSE_MS);
  expect([result.current.state, result.current.failure]).toEqual(["failed", "That is no word."]);
  await pass(RETRY_MS);
  expect(studio.send, "what was refused once is refused again").toHaveBeenCalledTimes(1);
  act(() => result.current.change({ text: "quart" }));
  await pass(PAUSE_MS);
  expect([result.current.state, studio.state.stored.text]).toEqual(["saved", "quart"]);
});

test("without a line it is kept here, and sent by itself when there is one again", async () => {
  const studio = server();
  studio.state.line = false;
  const { result } = opened(studio);
  act(() => result.current.change({ text: "second" }));
  await pass(PAUSE_MS);
  expect(result.current.state).toBe("offline");
  await pass(RETRY_MS);
  expect(result.current.state).not.toBe("saved");
  studio.state.line = true;
  await pass(RETRY_MS);
  expect([result.current.state, studio.state.stored.text]).toEqual(["saved", "second"]);
});

test("what was not saved is there when the page is opened again", async () => {
  const studio = server();
  studio.state.line = false;
  const first = opened(studio);
  act(() => first.result.current.change({ text: "second" }));
  await pass(PAUSE_MS);
  first.unmount();
  studio.state.line = true;
  const again = opened(studio);
  expect(again.result.current.value.text).toBe("second");
  await pass(PAUSE_MS);
  expect(studio.state.stored.text).toBe("second");
  again.unmount();
  expect(opened(studio).result.current.state, "and forgotten once it is saved").toBe("saved");
});

test("a newer sheet is simply shown while nothing is being written", async () => {
  const studio = server();
  const { result, rerender } = opened(studio);
  studio.elsewhere("theirs");
  rerender({ stored: studio.state.stored });
  expect([result.current.value.text, result.current.state]).toEqual(["theirs", "saved"]);
});

/** Both wrote: the one who saved later is asked. */
async function conflicting() {
  const studio = server();
  const { result } = opened(studio);
  act(() => result.current.change({ text: "mine" }));
  studio.elsewhere("theirs");
  await pass(PAUSE_MS);
  return { studio, result };
}

test("of two who wrote the later one is asked, and nothing is sent until they say", async () => {
  const { studio, result } = await conflicting();
  expect(result.current.conflict).toMatchObject({ differ: 1, why: expect.stringContaining("saved by Jo") });
  await pass(RETRY_MS);
  expect([studio.state.stored.text, result.current.value.text]).toEqual(["theirs", "mine"]);
});

test("mine goes over theirs when that is what was said", async () => {
  const { studio, result } = await conflicting();
  act(() => result.current.conflict?.keepMine());
  await pass(PAUSE_MS);
  expect([studio.state.stored.text, result.current.conflict]).toEqual(["mine", undefined]);
});

test("theirs are taken, and mine stay one step back", async () => {
  const { studio, result } = await conflicting();
  act(() => result.current.conflict?.takeTheirs());
  await pass(PAUSE_MS);
  expect([studio.state.stored.text, result.current.value.text]).toEqual(["theirs", "theirs"]);
  act(() => result.current.undo?.());
  await pass(PAUSE_MS);
  expect(studio.state.stored.text).toBe("mine");
});

test("two who wrote the same are not asked", async () => {
  const studio = server();
  const { result } = opened(studio);
  act(() => result.current.change({ text: "same" }));
  studio.elsewhere("same");
  await pass(PAUSE_MS);
  expect(result.current.conflict).toBeUndefined();
  await pass(PAUSE_MS);
  expect(result.current.state).toBe("saved");
});

/** A sheet of two fields, each of which stands for itself. */
function fields() {
  const state = { stored: { revision: 1, calf: "36", waist: "80" }, status: 0 };
  type Two = { calf: string; waist: string };
  type Stored = Two & { revision: number };
  const send = vi.fn(async (known: Stored, value: Two): Promise<Stored> => {
    if (state.status) throw { status: state.status, title: "", detail: "sign in first" };
    if (known.revision !== state.stored.revision)
      throw { status: 409, title: "", detail: "it was saved by Jo" };
    state.stored = { ...value, revision: known.revision + 1 };
    return state.stored;
  });
  const kind: Kind<Stored, Two> = {
    key: "fields",
    revisionOf: ({ revision }) => revision,
    valueOf: ({ calf, waist }) => ({ calf, waist }),
    differing: (mine, theirs) => Number(mine.calf !== theirs.calf) + Number(mine.waist !== theirs.waist),
    fields: { named: ([field = ""]) => field },
    refetch: async () => state.stored,
    send,
  };
  const elsewhere = (change: Partial<Two>) => {
    state.stored = { ...state.stored, ...change, revision: state.stored.revision + 1 };
  };
  const open = () => renderHook(() => useDocument(state.stored, kind)).result;
  return { state, send, elsewhere, open };
}

test("two who changed different fields are put together without asking", async () => {
  const { state, elsewhere, open } = fields();
  const sheet = open();
  act(() => sheet.current.change({ ...sheet.current.value, calf: "37" }));
  elsewhere({ waist: "81" });
  await pass(2 * PAUSE_MS);
  await pass(2 * PAUSE_MS);
  expect(sheet.current.conflict).toBeUndefined();
  expect([state.stored.calf, state.stored.waist, sheet.current.value.waist]).toEqual(["37", "81", "81"]);
});

test("two who changed one field are asked by its name and both values, and the other fields of both stay", async () => {
  const { state, elsewhere, open } = fields();
  const sheet = open();
  act(() => sheet.current.change({ ...sheet.current.value, calf: "37" }));
  elsewhere({ calf: "38", waist: "81" });
  await pass(2 * PAUSE_MS);
  expect(sheet.current.conflict?.clashes).toEqual([{ name: "calf", values: { mine: "37", theirs: "38" } }]);
  act(() => sheet.current.conflict?.keepMine());
  await pass(2 * PAUSE_MS);
  expect([state.stored.calf, state.stored.waist]).toEqual(["37", "81"]);
});

test("what is typed while it is asked is kept whoever is decided for", async () => {
  const { state, elsewhere, open } = fields();
  const sheet = open();
  act(() => sheet.current.change({ ...sheet.current.value, calf: "37" }));
  elsewhere({ calf: "38" });
  await pass(2 * PAUSE_MS);
  act(() => sheet.current.change({ ...sheet.current.value, waist: "82" }));
  act(() => sheet.current.conflict?.takeTheirs());
  await pass(2 * PAUSE_MS);
  expect([state.stored.calf, state.stored.waist]).toEqual(["38", "82"]);
});

test.each([
  ["another field", { waist: "81" }, { calf: "37", waist: "81" }, undefined],
  ["the same field", { calf: "38" }, { calf: "37", waist: "80" }, ["calf"]],
] as const)(
  "what was typed before %s was saved elsewhere is not laid over it unseen",
  async (_, change, value, asked) => {
    const { state, elsewhere, open } = fields();
    state.status = 503;
    const before = open();
    act(() => before.current.change({ ...before.current.value, calf: "37" }));
    await pass(PAUSE_MS);
    cleanup();
    state.status = 0;
    elsewhere(change);
    const again = open();
    expect(again.current.value).toEqual(value);
    expect(again.current.conflict?.clashes.map(({ name }) => name)).toEqual(asked);
  },
);

test("what was refused because a session ended waits, and is sent once somebody is back", async () => {
  const { state, send, open } = fields();
  state.status = 401;
  const sheet = open();
  act(() => sheet.current.change({ ...sheet.current.value, calf: "37" }));
  await pass(PAUSE_MS);
  expect(sheet.current.state).toBe("ended");
  act(() => sheet.current.change({ ...sheet.current.value, calf: "37.5" }));
  await pass(RETRY_MS);
  expect(send, "nobody is there to be asked").toHaveBeenCalledTimes(1);
  state.status = 0;
  act(() => void sessionEvents.dispatchEvent(new Event("back")));
  await pass(PAUSE_MS);
  expect([sheet.current.state, state.stored.calf]).toEqual(["saved", "37.5"]);
});

test("a browser without room is told of, and what is typed is sent all the same", async () => {
  const { state, open } = fields();
  const full = vi.spyOn(drafts, "keepDraft").mockReturnValue(false);
  const sheet = open();
  act(() => sheet.current.change({ ...sheet.current.value, calf: "37" }));
  expect(sheet.current.unkept).toBe(true);
  await pass(PAUSE_MS);
  full.mockRestore();
  expect([sheet.current.state, state.stored.calf]).toEqual(["saved", "37"]);
});

test.each([
  ["saved", {}, "Saved"],
  ["unsaved", {}, "not saved yet"],
  ["offline", {}, "kept in this browser"],
  ["offline", { unkept: true }, "Leave this page open"],
  ["ended", {}, "sign in again"],
  ["unsaved", { unkept: true }, "no room"],
  ["failed", { failure: "That is no word." }, "That is no word."],
  ["saved", { wrong: 2 }, "2 fields"],
] as const)("%s is said in words", (state, more, says) => {
  render(<SaveState state={state} {...more} />);
  expect(screen.getByRole("status").textContent).toContain(says);
});

test("who decides a conflict is told in how many places the sheets differ", () => {
  const [takeTheirs, keepMine] = [vi.fn(), vi.fn()];
  render(
    <ConflictNote conflict={{ why: "it was saved by Jo", differ: 3, clashes: [], takeTheirs, keepMine }} />,
  );
  const note = screen.getByRole("alert");
  expect(note.textContent).toContain("it was saved by Jo. 3 places");
  for (const button of screen.getAllByRole("button")) button.click();
  expect([takeTheirs.mock.calls.length, keepMine.mock.calls.length]).toEqual([1, 1]);
});
