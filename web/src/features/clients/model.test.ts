import { expect, test } from "vitest";
import type { Schemas } from "../../shared/api/client";
import { addressOf, isNarrowed, lineTarget, narrowingOf, nextStep } from "./model";

type Summary = Schemas["ClientSummary"];

const client = (change: Partial<Summary> = {}): Summary => ({
  id: "c",
  name: "Oda",
  age_years: 31,
  look: "sweep",
  days_per_week: 4,
  tags: [],
  due: false,
  newest: { id: "r", date: "2026-03-02", measured_by: "MT" },
  verdict: { areas: [], behind: [], regions: [], leans: [], outside: false, missing: [], bring_up: [] },
  ...change,
});

const verdict = (change: Partial<NonNullable<Summary["verdict"]>>) => ({
  areas: [],
  behind: [],
  regions: [],
  leans: [],
  outside: false,
  missing: [],
  bring_up: [],
  ...change,
});

test.each<[string, Summary, string]>([
  ["no round: open one", client({ newest: undefined, verdict: undefined }), "openRound"],
  [
    "too little measured: tape",
    client({ verdict: verdict({ missing: ["the girth of a wrist or an ankle"] }) }),
    "toTape",
  ],
  ["a verdict and no choice: choose", client(), "toVerdict"],
  ["something chosen: the plan", client({ verdict: verdict({ bring_up: ["neck"] }) }), "toPlan"],
])("%s", (_, summary, label) => {
  expect(nextStep(summary).label).toBe(label);
});

test("a line leads to the newest verdict, or to the client without rounds", () => {
  expect(lineTarget(client())).toBe("/clients/c/rounds/r/verdict");
  expect(lineTarget(client({ newest: undefined }))).toBe("/clients/c");
});

test.each([
  ["", false],
  ["find=ada", true],
  ["tag=online&order=last-round&page=3", true],
  ["behind=calf", true],
  ["due=1&away=1", true],
  ["order=next-round", false],
])("a list by ?%s is kept in its address", (query, narrowed) => {
  const narrowing = narrowingOf(new URLSearchParams(query));
  expect(new URLSearchParams(addressOf(narrowing)).toString()).toBe(query);
  expect(isNarrowed(narrowing)).toBe(narrowed);
});

test("an address that was bent gives the list as usual", () => {
  expect(addressOf(narrowingOf(new URLSearchParams("order=age&page=-2")))).toEqual({});
});
