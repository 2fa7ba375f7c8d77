import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Around } from "../../test/render";
import { useUploads } from "./uploads";

/** Requests as the browser would make them, answered by the test. */
class Line {
  static open: Line[] = [];
  upload: { onprogress?: (event: object) => void; onload?: () => void } = {};
  onload?: () => void;
  onerror?: () => void;
  onabort?: () => void;
  status = 0;
  responseText = "";
  path = "";
  body?: File;
  open(_method: string, path: string) {
    this.path = path;
  }
  setRequestHeader() {}
  send(body: File) {
    this.body = body;
    Line.open.push(this);
  }
  abort() {
    this.onabort?.();
  }
  answers(status: number, body: object = {}) {
    this.status = status;
    this.responseText = JSON.stringify(body);
    act(() => this.onload?.());
  }
}

beforeEach(() => {
  Line.open = [];
  vi.stubGlobal("XMLHttpRequest", Line);
  vi.spyOn(URL, "createObjectURL").mockReturnValue("blob:x");
  vi.spyOn(URL, "revokeObjectURL").mockImplementation(() => {});
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const BROKEN = "The line broke off.";

function uploading(...names: string[]) {
  const { result } = renderHook(() => useUploads("r", BROKEN), { wrapper: Around });
  act(() => result.current.add(names.map((name) => new File(["x"], name))));
  const states = () => result.current.uploads.map(({ state }) => state);
  const key = (place: number) => result.current.uploads[place]?.key ?? -1;
  return { result, states, key };
}

const line = (place: number) => Line.open[place] as Line;

test("three are on their way at once, and the next one starts when one is in", () => {
  const { states } = uploading("a", "b", "c", "d");
  expect(Line.open.map(({ body }) => body?.name)).toEqual(["a", "b", "c"]);
  expect(line(0).path).toBe("/api/v1/rounds/r/photos");
  expect(states()).toEqual(["sending", "sending", "sending", "queued"]);
  line(1).answers(201);
  expect(states()).toEqual(["sending", "done", "sending", "sending"]);
  expect(line(3).body?.name).toBe("d");
});

test("progress is the share sent, then the server takes it in", () => {
  const { result, states } = uploading("a");
  act(() => line(0).upload.onprogress?.({ loaded: 3, total: 4 }));
  expect(result.current.uploads[0]?.sent).toBe(0.75);
  act(() => line(0).upload.onload?.());
  expect(states()).toEqual(["taking"]);
});

test.each([
  [
    "the server's own words",
    (one: Line) => one.answers(422, { status: 422, detail: "No picture." }),
    "No picture.",
  ],
  ["that the line broke off", (one: Line) => act(() => one.onerror?.()), BROKEN],
  ["the same when the answer is none", (one: Line) => one.answers(502), BROKEN],
] as const)("one that was not taken says %s, and can be sent again", (_, answer, why) => {
  const { result, states, key } = uploading("a");
  answer(line(0));
  expect([states()[0], result.current.uploads[0]?.why]).toEqual(["failed", why]);
  act(() => result.current.retry(key(0)));
  expect([states()[0], result.current.uploads[0]?.why, Line.open.length]).toEqual(["sending", undefined, 2]);
});

test("one on its way is stopped, one that waits never starts", () => {
  const { result, states, key } = uploading("a", "b", "c", "d");
  act(() => result.current.cancel(key(3)));
  act(() => result.current.cancel(key(0)));
  expect(states()).toEqual(["cancelled", "sending", "sending", "cancelled"]);
  expect(Line.open).toHaveLength(3);
});

test("clearing leaves what is still open and lets the rest go", () => {
  const { result, states } = uploading("a", "b");
  line(0).answers(201);
  act(() => result.current.clear());
  expect(states()).toEqual(["sending"]);
  expect(URL.revokeObjectURL).toHaveBeenCalledTimes(1);
});
