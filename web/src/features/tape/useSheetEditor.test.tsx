import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../shared/api/client";
import { Around } from "../../test/render";
import type { Site } from "./model";
import { useSheetEditor } from "./useSheetEditor";

type Sheet = Schemas["TapeSheet"];

const sites = [
  { id: "waist", name: "Waist", paired: false },
  { id: "hip", name: "Hips", paired: false },
] as unknown as Site[];
const empty = {
  revision: 0,
  measured_by: "MT",
  entries: [],
  folds: [],
  levels_cm: {},
  problems: [],
} as unknown as Sheet;

/** A server that keeps one sheet, answers after `delay_ms`, and refuses an older revision. */
function server(delay_ms: number) {
  const stored = { revision: 0, entries: [] as Schemas["TapeEntry"][] };
  const put = vi.fn(async (_path: string, { body }: { body: Schemas["SaveTape"] }) => {
    await new Promise((done) => setTimeout(done, delay_ms));
    if (body.revision !== stored.revision)
      return { error: { status: 409, title: "Conflict", detail: "was saved by Jo since you opened it" } };
    stored.revision += 1;
    stored.entries = body.entries;
    return { data: { ...empty, revision: stored.revision, entries: body.entries } };
  });
  vi.spyOn(fetchClient, "PUT").mockImplementation(put as never);
  return { stored, put };
}

const editor = (refetch: () => Promise<Sheet | undefined> = async () => undefined) =>
  renderHook(() => useSheetEditor("round", sites, [], empty, refetch), { wrapper: Around }).result;

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test("readings typed faster than the server answers are all saved, one save after another", async () => {
  const { stored, put } = server(30);
  const sheet = editor();
  for (const [cell, text] of [
    ["waist||0", "80.1"],
    ["waist||1", "80.3"],
    ["hip||0", "97,5"],
  ] as const) {
    act(() => sheet.current.type(cell, text));
    // Leaving the field saves at once; twice in a row must not send the same revision twice.
    act(() => {
      sheet.current.document.flush();
      sheet.current.document.flush();
    });
  }
  await waitFor(() => expect(sheet.current.document.state).toBe("saved"), { timeout: 4000 });
  expect(stored.entries).toEqual([
    { site: "waist", readings_cm: [80.1, 80.3] },
    { site: "hip", readings_cm: [97.5] },
  ]);
  const revisions = put.mock.calls.map(([, { body }]) => body.revision);
  expect(new Set(revisions).size).toBe(revisions.length);
  expect(sheet.current.document.conflict).toBeUndefined();
});

test("what is not a number is kept in the field, counted and never sent", async () => {
  const { put } = server(0);
  const sheet = editor();
  act(() => sheet.current.type("waist||0", "8o.1"));
  act(() => sheet.current.type("hip||0", "97.0"));
  act(() => sheet.current.document.flush());
  await waitFor(() => expect(sheet.current.document.state).toBe("saved"));
  expect(sheet.current.unreadable).toEqual(["waist||0"]);
  expect(put.mock.calls.at(-1)?.[1].body.entries).toEqual([{ site: "hip", readings_cm: [97] }]);
  expect(sheet.current.texts["waist||0"]).toBe("8o.1");
});

test("typing outlives a closed tab and is dropped once it is stored", async () => {
  server(0);
  const first = editor();
  act(() => first.current.type("waist||0", "80.1"));
  cleanup();
  const second = editor();
  expect(second.current.texts["waist||0"]).toBe("80.1");
  await waitFor(() => expect(second.current.document.state).toBe("saved"), { timeout: 4000 });
  cleanup();
  expect(editor().current.texts["waist||0"]).toBeUndefined();
});

test("a sheet someone else saved is asked about, and keeping mine saves over theirs", async () => {
  const { stored } = server(0);
  stored.revision = 3;
  const theirs = { ...empty, revision: 3, entries: [{ site: "waist", readings_cm: [77] }] } as Sheet;
  const sheet = editor(async () => theirs);
  act(() => sheet.current.type("waist||0", "80.1"));
  act(() => sheet.current.document.flush());
  await waitFor(() => expect(sheet.current.document.conflict).toBeDefined());
  expect(sheet.current.document.conflict).toMatchObject({
    why: "was saved by Jo since you opened it",
    differ: 1,
  });
  act(() => sheet.current.document.conflict?.keepMine());
  await waitFor(() => expect(stored.entries).toEqual([{ site: "waist", readings_cm: [80.1] }]));
});

test("without a line nothing is lost and the state says so", async () => {
  vi.spyOn(fetchClient, "PUT").mockRejectedValue(new TypeError("no network"));
  const sheet = editor();
  act(() => sheet.current.type("waist||0", "80.1"));
  act(() => sheet.current.document.flush());
  await waitFor(() => expect(sheet.current.document.state).toBe("offline"));
  expect(sheet.current.texts["waist||0"]).toBe("80.1");
});

test("taking theirs leaves what was typed here one step back", async () => {
  const { stored } = server(0);
  stored.revision = 3;
  const theirs = { ...empty, revision: 3, entries: [{ site: "waist", readings_cm: [77] }] } as Sheet;
  const sheet = editor(async () => theirs);
  act(() => sheet.current.type("waist||0", "80.1"));
  act(() => sheet.current.document.flush());
  await waitFor(() => expect(sheet.current.document.conflict).toBeDefined());
  act(() => sheet.current.document.conflict?.takeTheirs());
  expect(sheet.current.texts["waist||0"]).toBe("77.0");
  act(() => sheet.current.document.undo?.());
  expect(sheet.current.texts["waist||0"]).toBe("80.1");
});

test("a field typed into is one step back, a file taken in is one, and both come back again", () => {
  server(0);
  const sheet = editor();
  for (const text of ["8", "80", "80.1"]) act(() => sheet.current.type("waist||0", text));
  act(() => sheet.current.fill({ "hip||0": "97.0", "hip||1": "97.2" }));
  act(() => sheet.current.document.undo?.());
  expect(sheet.current.texts).toEqual({ "waist||0": "80.1" });
  act(() => sheet.current.document.undo?.());
  expect(sheet.current.texts).toEqual({});
  expect(sheet.current.document.undo).toBeUndefined();
  act(() => sheet.current.document.redo?.());
  act(() => sheet.current.document.redo?.());
  expect(sheet.current.texts["hip||1"]).toBe("97.2");
});

test("a refusal stands at its field until it is typed again", async () => {
  const problems = [{ pointer: "/entries/0/readings_cm/0", says: "801 cm is outside 45 to 200 cm" }];
  vi.spyOn(fetchClient, "PUT").mockImplementation((async () => ({
    data: { ...empty, revision: 1, problems },
  })) as never);
  const sheet = editor();
  act(() => sheet.current.type("waist||0", "801"));
  act(() => sheet.current.document.flush());
  await waitFor(() => expect(sheet.current.problems["waist||0"]).toMatch(/^801 cm/));
  act(() => sheet.current.type("waist||0", "80.1"));
  expect(sheet.current.problems).toEqual({});
});
