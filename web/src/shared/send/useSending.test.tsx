import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Line, line, stubLine } from "../../test/line";
import { useSending } from "./useSending";

beforeEach(stubLine);
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

function uploading(...names: string[]) {
  const onDone = vi.fn();
  const way = (to: string) => ({ method: "POST" as const, path: `/${to}`, headers: { Authorization: "x" } });
  const { result } = renderHook(() => useSending({ way, onDone }));
  act(() =>
    result.current.add(
      names.map((name) => new File(["x"], name, { type: "image/jpeg" })),
      "round",
    ),
  );
  const states = () => result.current.all.map(({ state }) => state);
  const key = (place: number) => result.current.all[place]?.key ?? -1;
  return { result, states, key, onDone };
}

test("three are on their way at once, and the next one starts when one is in", async () => {
  const { states, onDone } = uploading("a", "b", "c", "d");
  expect(Line.open.map(({ body }) => body?.name)).toEqual(["a", "b", "c"]);
  expect([line(0).path, line(0).headers.Authorization]).toEqual(["/round", "x"]);
  expect(states()).toEqual(["sending", "sending", "sending", "queued"]);
  await line(1).answers(201, { id: 7 });
  expect(onDone.mock.calls).toEqual([[{ id: 7 }, "round"]]);
  expect(states()).toEqual(["sending", "done", "sending", "sending"]);
  expect(line(3).body?.name).toBe("d");
});

test("progress is the share sent, then the server takes it in", async () => {
  const { result, states } = uploading("a");
  await line(0).passes(3, 4);
  expect(result.current.all[0]?.share).toBe(0.75);
  act(() => line(0).upload.onload?.());
  expect(states()).toEqual(["taking"]);
});

test.each([
  [
    "the server's own words",
    (one: Line) => one.answers(422, { status: 422, detail: "No picture." }),
    "No picture.",
  ],
  ["that the line broke off", (one: Line) => one.breaks(), undefined],
  ["the same when the answer is none", (one: Line) => one.answers(502), undefined],
] as const)("one that was not taken says %s, and can be sent again", async (_, answer, why) => {
  const { result, states, key } = uploading("a");
  await answer(line(0));
  expect([states()[0], result.current.all[0]?.why]).toEqual(["failed", why]);
  act(() => result.current.retry(key(0)));
  expect([states()[0], result.current.all[0]?.why, Line.open.length]).toEqual(["sending", undefined, 2]);
});

test("one on its way is stopped, one that waits never starts", () => {
  const { result, states, key } = uploading("a", "b", "c", "d");
  act(() => result.current.stop(key(3)));
  act(() => result.current.stop(key(0)));
  expect(states()).toEqual(["stopped", "sending", "sending", "stopped"]);
  expect(Line.open).toHaveLength(3);
});

test("clearing leaves what is still open and lets the rest go", async () => {
  const { result, states } = uploading("a", "b");
  await line(0).answers(201);
  act(() => result.current.clear());
  expect(states()).toEqual(["sending"]);
  expect(URL.revokeObjectURL).toHaveBeenCalledTimes(1);
});
