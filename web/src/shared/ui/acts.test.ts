import { expect, test } from "vitest";
import { ACTS, keyLines, shortcut } from "./acts";

/** Acts that are heard on every page: nothing of a page may have one of their keys. */
const EVERYWHERE = ["help", "goToday", "goClients", "goLibrary", "goEye", "goPractice"] as const;

test("a key that is heard everywhere is nobody else's", () => {
  const own = EVERYWHERE.flatMap((act) => [...ACTS[act].keys] as string[]);
  const others = Object.entries(ACTS)
    .filter(([act]) => !(EVERYWHERE as readonly string[]).includes(act))
    .flatMap(([, { keys }]) => [...keys] as string[]);
  expect(others.length).toBeGreaterThan(30);
  expect(own.filter((key) => others.includes(key))).toEqual([]);
});

test("the list has every key once a line, Space by its name", () => {
  const lines = new Map(keyLines());
  expect(lines.get("judge")).toEqual(["1", "2", "3", "4", "5", "6", "7", "8", "9", "0", "x"]);
  expect(lines.get("hang")).toEqual(["Space"]);
  expect(lines.get("lay")).toEqual(["s", "z"]);
});

test("a button tells its key, and one of several its own", () => {
  expect([shortcut("bringUp"), shortcut("sides", 4), shortcut("goOn")]).toEqual(["b", "0", "Enter n"]);
});
