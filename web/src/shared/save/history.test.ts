import { expect, test } from "vitest";
import { after, redone, start, undone } from "./history";

test("steps about one thing are one step, others each their own", () => {
  let history = start("");
  for (const [now, tag] of [
    ["a", "name"],
    ["ab", "name"],
    ["abc", "note"],
    ["abcd", undefined],
    ["abcde", undefined],
  ] as const)
    history = after(history, now, tag);
  expect(history.past).toEqual(["", "ab", "abc", "abcd"]);
});

test("back and forth again, until something new is done", () => {
  const two = after(after(start(0), 1), 2);
  const back = undone(two);
  expect(back?.now).toBe(1);
  expect(back && redone(back)?.now).toBe(2);
  expect(back && redone(after(back, 7))).toBeUndefined();
  expect(undone(start(0))).toBeUndefined();
});

test("a value that is nothing can be gone back to", () => {
  expect(undone(after(start<number | undefined>(undefined), 1))).toMatchObject({ now: undefined, past: [] });
});
