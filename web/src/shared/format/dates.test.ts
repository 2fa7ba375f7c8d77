import { afterEach, expect, test, vi } from "vitest";
import { day, dayName, dayPattern, moment, shortDay, shortMonths } from "./dates";

afterEach(() => vi.restoreAllMocks());

test.each([
  ["en-GB", "2 Mar 2026", "2 Mar", "2 Mar 2026, 14:05"],
  ["en-US", "Mar 2, 2026", "Mar 2", "Mar 2, 2026, 14:05"],
])("days are written as they are in %s, the same everywhere on a page", (own, whole, short, at) => {
  vi.spyOn(navigator, "languages", "get").mockReturnValue([own]);
  expect([day("2026-03-02"), shortDay("2026-03-02"), moment("2026-03-02T14:05:00")]).toEqual([
    whole,
    short,
    at,
  ]);
});

test.each([
  ["en-GB", "D MMM YYYY", "Sept"],
  ["en-US", "MMM D, YYYY", "Sep"],
])("a field for a day shows it as %s has it", (own, pattern, september) => {
  vi.spyOn(navigator, "languages", "get").mockReturnValue([own]);
  expect([dayPattern(), shortMonths()[8]]).toEqual([pattern, september]);
});

test("a language that the page does not speak writes none of its days", () => {
  vi.spyOn(navigator, "languages", "get").mockReturnValue(["de-DE", "en-US"]);
  expect([shortDay("2026-03-02"), dayName(1)]).toEqual(["Mar 2", "Monday"]);
});
