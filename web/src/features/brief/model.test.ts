import { expect, test } from "vitest";
import { emptyBrief, fieldPath, tidied, unevenWeights } from "./model";

test("a pointer of the server leads to the field of the form", () => {
  expect(fieldPath("/brief/pain/0/level")).toEqual(["pain", 0, "level"]);
  expect(fieldPath("/birth_date")).toEqual(["birth_date"]);
});

test("one shoulder alone is no screen, and a pain without a side has none", () => {
  const brief = tidied({
    ...emptyBrief,
    pain: [{ area: "elbow", side: undefined, level: 2 }],
    screens: { shoulder_extension_deg: { left: 60, right: undefined as unknown as number } },
  });
  expect(brief.pain).toEqual([{ area: "elbow", level: 2 }]);
  expect(brief.screens).toEqual({});
});

test("the weights of a look come heaviest first, without the neutral ones", () => {
  const look = { id: "x", name: "X", reason: "", weights: { neck: 1, calves: 0.5, quads: 1.7 } };
  expect(unevenWeights(look)).toEqual([
    ["quads", 1.7],
    ["calves", 0.5],
  ]);
});
