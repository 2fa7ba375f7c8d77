import { expect, test } from "vitest";
import { differing, type PracticeView, problemsByField, settingsOf, typingOf } from "./model";

const view = {
  settings: {
    schools: { sizing: "frame-ratios" },
    numbers: { "observation_sd.outline": 3 },
    composition: {},
  },
  numbers: [
    { setting: { id: "observation_sd.outline" }, shipped: 2 },
    { setting: { id: "verdict_probability" }, shipped: 0.7 },
  ],
  shipped_composition: { neck: { neck: 0.6, "traps.upper": 0.4 } },
} as unknown as PracticeView;

test("stored settings come back as they were, and nothing that ships is sent", () => {
  expect(settingsOf(view, typingOf(view)).settings).toEqual(view.settings);
});

test("one changed share sends its whole row", () => {
  const typing = { schools: {}, texts: { "share neck neck": "0,7" } };
  expect(settingsOf(view, typing).settings.composition).toEqual({ neck: { neck: 0.7, "traps.upper": 0.4 } });
});

test("an emptied field is what ships again, and a word is no number", () => {
  const emptied = settingsOf(view, { schools: {}, texts: { "number observation_sd.outline": " " } });
  expect([emptied.settings.numbers, emptied.unreadable]).toEqual([{}, []]);
  const word = settingsOf(view, { schools: {}, texts: { "number verdict_probability": "high" } });
  expect([word.settings.numbers, word.unreadable]).toEqual([{}, ["number verdict_probability"]]);
});

test("a problem stands at its number, its share or its row", () => {
  const problems = [
    { pointer: "/settings/numbers/verdict_probability", says: "out of range" },
    { pointer: "/settings/composition/neck/neck", says: "a share of 2" },
    { pointer: "/settings/composition/neck", says: "add to 1.30" },
  ];
  expect(problemsByField(problems)).toEqual({
    "number verdict_probability": "out of range",
    "share neck neck": "a share of 2",
    "row neck": "add to 1.30",
  });
});

test("settings differ by number, school and row", () => {
  const mine = typingOf(view);
  expect(differing(view, mine, { ...mine, schools: {} })).toBe(1);
  expect(differing(view, mine, mine)).toBe(0);
});
