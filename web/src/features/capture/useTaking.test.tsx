import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import "../../test/render";
import * as texts from "../../i18n/en-capture";
import { alsoSay } from "../../i18n/start";
import { doorOf } from "./api";
import type { PoseAsked } from "./model";
import { useTaking } from "./useTaking";

alsoSay(texts);

const poses: PoseAsked[] = [
  { pose: "F", name: "Front", sent: 0 },
  { pose: "B", name: "Back", sent: 0 },
];
const glance = { data: new Uint8ClampedArray(4), width: 1, height: 1 } as unknown as ImageData;
const shot = { whole: new Blob(["whole"]), small: new Blob(["small"]), glance };

beforeEach(() => {
  vi.useFakeTimers();
  vi.spyOn(URL, "createObjectURL").mockReturnValue("blob:shot");
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

/** A studio that says this of each picture in turn, or that is out of reach. */
function studio(...answers: (object | undefined)[]) {
  const look = vi.fn(async (_path: string) => {
    const answer = answers.shift();
    if (!answer) throw new TypeError("no line");
    return Response.json(answer);
  });
  vi.stubGlobal("fetch", look);
  return look;
}

function taking(byItself: boolean, shoot: () => Promise<typeof shot | undefined> = async () => shot) {
  const onKeep = vi.fn();
  const { result } = renderHook(() =>
    useTaking({ door: doorOf("t"), poses, count: 3, byItself, shoot, onKeep }),
  );
  const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
  const kept = () => onKeep.mock.calls.map(([pose]) => pose.pose);
  return { result, pass, kept };
}

/** A second at a time, as each is counted anew. */
async function countedDown(pass: (ms: number) => Promise<unknown>) {
  for (let second = 0; second < 3; second++) await pass(1000);
}

test("a countdown ends with a picture, which the studio speaks of, and the next pose follows", async () => {
  const look = studio({ says: "Good: as last time." });
  const { result, pass, kept } = taking(false);
  act(() => result.current.start());
  expect(result.current.phase).toEqual({ is: "counting", left: 3 });
  await pass(1000);
  expect(result.current.phase).toEqual({ is: "counting", left: 2 });
  await countedDown(pass);
  expect(look.mock.calls[0]?.[0]).toBe("/api/v1/my/photos/look?pose=F");
  expect(result.current.phase).toMatchObject({ is: "said", said: { says: "Good: as last time." } });
  act(() => result.current.keep(false));
  expect(kept()).toEqual(["F"]);
  expect([result.current.pose?.pose, result.current.phase.is]).toEqual(["B", "ready"]);
});

test("by itself a bad picture is taken again and a good one leads on to the next", async () => {
  studio({ fault: "turned", says: "You are turned." }, { says: "Good." }, { says: "Good." });
  const { result, pass, kept } = taking(true);
  act(() => result.current.start());
  await countedDown(pass);
  await pass(5000);
  expect([kept(), result.current.phase.is]).toEqual([[], "counting"]);
  await countedDown(pass);
  await pass(5000);
  expect([kept(), result.current.pose?.pose, result.current.phase.is]).toEqual([["F"], "B", "counting"]);
  await countedDown(pass);
  await pass(5000);
  expect([kept(), result.current.pose]).toEqual([["F", "B"], undefined]);
});

test("after three bad pictures it waits for somebody to look", async () => {
  const bad = { fault: "cut", says: "Your feet are cut off." };
  const look = studio(bad, bad, bad, bad);
  const { result, pass } = taking(true);
  act(() => result.current.start());
  for (let round = 0; round < 4; round++) {
    await countedDown(pass);
    await pass(5000);
  }
  expect(look).toHaveBeenCalledTimes(3);
  expect(result.current.phase.is).toBe("said");
});

test("without a line the page says what it can tell alone", async () => {
  studio();
  const { result, pass } = taking(false);
  act(() => result.current.start());
  await countedDown(pass);
  const said = { fault: "light", says: "It is too dark: put a light in front of you, or open the curtains." };
  expect(result.current.phase).toEqual({ is: "said", said, alone: true });
});

test("who does not wait for the studio hears what the page can tell alone", async () => {
  const hangs = (_: string, { signal }: { signal: AbortSignal }) =>
    new Promise((_, failed) => signal.addEventListener("abort", () => failed(signal.reason)));
  vi.stubGlobal("fetch", hangs);
  const { result, pass } = taking(false);
  act(() => result.current.start());
  await countedDown(pass);
  expect(result.current.phase.is).toBe("looking");
  act(() => result.current.goAlone());
  await pass(0);
  expect(result.current.phase).toMatchObject({ is: "said", alone: true });
});

test("a sentence that comes after another pose was chosen is not said of that one", async () => {
  let answers = (_: Response) => {};
  vi.stubGlobal("fetch", () => new Promise<Response>((resolve) => (answers = resolve)));
  const { result, pass } = taking(false);
  act(() => result.current.start());
  await countedDown(pass);
  act(() => result.current.choose(1));
  answers(Response.json({ says: "Good: as last time." }));
  await pass(0);
  expect([result.current.pose?.pose, result.current.phase]).toEqual(["B", { is: "ready" }]);
});

test("a camera that gives no picture is told, and can be tried again", async () => {
  const { result, pass } = taking(true, async () => undefined);
  act(() => result.current.start());
  await countedDown(pass);
  expect(result.current.phase).toEqual({ is: "ready", says: "The camera gave no picture. Start again." });
});

test("a countdown that is stopped takes nothing", async () => {
  const look = studio({ says: "Good." });
  const { result, pass } = taking(true);
  act(() => result.current.start());
  await pass(1000);
  act(() => result.current.stop());
  await pass(20_000);
  expect([look.mock.calls.length, result.current.phase.is]).toEqual([0, "ready"]);
});
