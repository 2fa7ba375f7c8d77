import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../shared/api/client";
import { Around } from "../../test/render";
import type { Moved, Photo } from "./model";
import { useMoved } from "./useMoved";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const nothing: Moved = { landmarks: {}, strokes: [] };
const stroke = { points: [[1, 2]], radius_px: 4, adds: true } as unknown as Moved["strokes"][number];

/** A server with one picture that refuses an older revision; `answer` lets it go on. */
function server() {
  const stored = { id: "p", revision: 1, pose: "F", pose_guessed: true, moved: nothing } as unknown as Photo;
  let letGo = () => {};
  const held = { on: false };
  const put = vi.fn(async (_: string, { body }: { body: Schemas["SavePhoto"] }) => {
    if (held.on) await new Promise<void>((done) => (letGo = done));
    if (body.revision !== stored.revision)
      return { error: { status: 409, title: "", detail: "saved by Jo" }, response: new Response() };
    Object.assign(stored, { revision: stored.revision + 1, moved: body.moved });
    return { data: { ...stored }, response: new Response() };
  });
  vi.spyOn(fetchClient, "PUT").mockImplementation(put as never);
  return { stored, put, held, answer: () => letGo() };
}

function moving({ stored }: ReturnType<typeof server>) {
  const onError = vi.fn();
  const hook = renderHook(({ photo }) => useMoved(photo, onError), {
    initialProps: { photo: { ...stored } as Photo | undefined },
    wrapper: Around,
  });
  return { ...hook, onError };
}

const knee = (moved: Moved) => moved.landmarks["knee-left"];

test("a landmark follows the hand at once and is saved when it rests", async () => {
  const studio = server();
  const { result } = moving(studio);
  act(() => result.current.move("knee-left", { x: 10, y: 20 }));
  act(() => result.current.move("knee-left", { x: 12, y: 24 }));
  expect(knee(result.current.moved)).toMatchObject({ x: 12, y: 24 });
  expect(studio.put).not.toHaveBeenCalled();
  act(() => result.current.done());
  await waitFor(() => expect(knee(studio.stored.moved)).toMatchObject({ x: 12, y: 24 }));
  expect(studio.put).toHaveBeenCalledTimes(1);
});

test("one drag is one step back, however far it went", async () => {
  const studio = server();
  const { result } = moving(studio);
  for (const x of [10, 11, 12]) act(() => result.current.move("knee-left", { x, y: 20 }));
  act(() => result.current.done());
  act(() => result.current.undo());
  await waitFor(() => expect(studio.stored.moved).toEqual(nothing));
  expect(result.current.moved).toEqual(nothing);
  expect(result.current.canUndo).toBe(false);
});

test("what is drawn while a save is on its way goes with the next one, from the newer revision", async () => {
  const studio = server();
  studio.held.on = true;
  const { result, onError } = moving(studio);
  act(() => result.current.stroke(stroke));
  act(() => result.current.stroke(stroke));
  act(() => result.current.stroke(stroke));
  await waitFor(() => expect(studio.put).toHaveBeenCalledTimes(1));
  studio.held.on = false;
  await act(async () => studio.answer());
  await waitFor(() => expect(studio.stored.moved.strokes).toHaveLength(3));
  expect(studio.put).toHaveBeenCalledTimes(2);
  expect(onError).not.toHaveBeenCalled();
});

test("everything goes back to what was found, and that is a step of its own", async () => {
  const studio = server();
  const { result } = moving(studio);
  act(() => result.current.stroke(stroke));
  act(() => result.current.reset());
  await waitFor(() => expect([studio.stored.revision, studio.stored.moved]).toEqual([3, nothing]));
  act(() => result.current.undo());
  await waitFor(() => expect(studio.stored.moved.strokes).toHaveLength(1));
});

test("when somebody else was faster it is told, and their picture is shown", async () => {
  const studio = server();
  const { result, onError } = moving(studio);
  studio.stored.revision = 5;
  act(() => result.current.stroke(stroke));
  await waitFor(() => expect(onError).toHaveBeenCalledTimes(1));
  expect(result.current.moved).toEqual(nothing);
});

test("another picture has steps of its own", async () => {
  const studio = server();
  const { result, rerender } = moving(studio);
  act(() => result.current.stroke(stroke));
  expect(result.current.canUndo).toBe(true);
  rerender({ photo: { ...studio.stored, id: "q" } as Photo });
  expect([result.current.canUndo, result.current.moved]).toEqual([false, studio.stored.moved]);
});

test("what was undone is done again, until something else is drawn", async () => {
  const studio = server();
  const { result } = moving(studio);
  act(() => result.current.stroke(stroke));
  act(() => result.current.undo());
  act(() => result.current.redo());
  await waitFor(() => expect(studio.stored.moved.strokes).toHaveLength(1));
  act(() => result.current.undo());
  act(() => result.current.move("knee-left", { x: 1, y: 2 }));
  act(() => result.current.done());
  expect(result.current.canRedo).toBe(false);
  await waitFor(() => expect(knee(studio.stored.moved)).toMatchObject({ x: 1, y: 2 }));
  expect(studio.stored.moved.strokes).toHaveLength(0);
});
