import { expect, test } from "vitest";
import { brief as filled } from "../../test/brief";
import { differing, fieldPath, lookWeight, tidied, withWeight } from "./model";

test("a pointer of the server leads to the field of the form", () => {
  expect(fieldPath("/brief/pain/0/level")).toEqual(["pain", 0, "level"]);
  expect(fieldPath("/birth_date")).toEqual(["birth_date"]);
  expect(fieldPath("/brief/tags/1"), "one field holds them all").toEqual(["tags"]);
});

test("one shoulder alone is no screen, and a pain without a side has none", () => {
  const brief = tidied({
    ...filled,
    pain: [{ area: "elbow", side: undefined, level: 2 }],
    screens: { shoulder_extension_deg: { left: 60, right: undefined as unknown as number } },
  });
  expect(brief.pain).toEqual([{ area: "elbow", level: 2 }]);
  expect(brief.screens).toEqual({});
});

const look = { id: "x", name: "X", reason: "", weights: { calves: 1.4, "calves.soleus": 0.8 } };

test.each([
  ["calves.soleus", 0.8],
  ["calves.gastrocnemius", 1.4],
  ["neck", 1],
])("the look gives %s its own weight, else its muscle's, else neutral: %d", (region, weight) => {
  expect(lookWeight(look, region)).toBe(weight);
});

test.each([
  ["a change is kept", 2.04, { neck: 2 }],
  ["back at the look's weight it is no change", 1, {}],
  ["nothing weighs more than three times", 9, { neck: 3 }],
  ["nothing weighs less than nothing", -1, { neck: 0 }],
])("%s", (_, weight, own) => {
  expect(withWeight({}, look, "neck", weight)).toEqual(own);
});

test("briefs differ by field, whatever the order of typing and what is left empty", () => {
  const mine = { ...filled, equipment: ["band"], screens: {}, look_weights: { a: 1, b: 2 } };
  const theirs = { ...filled, home: null, look_weights: { b: 2, a: 1 } };
  expect(differing(mine, theirs)).toBe(1);
  expect(differing(mine, structuredClone(mine))).toBe(0);
});
