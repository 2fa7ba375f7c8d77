import { describe, expect, test } from "vitest";
import type { Atlas } from "../../shared/api/atlas";
import {
  type Assessment,
  evidenceFor,
  groups,
  moved,
  noChoices,
  overruled,
  type RegionEntry,
  rows,
  sidesKnown,
  takenBack,
  toggledBringUp,
  toggledHoldBack,
} from "./model";

const region = (id: string): RegionEntry => ({
  region: id,
  look_weight: 1,
  class: "grow",
  conflict: [],
  causes: [],
  bulk: { mean: 0, sd: 1, p_behind: 0.3, p_ahead: 0.3, verdict: "unclear", need: 0 },
});

const atlas = {
  sites: [{ id: "arm-relaxed" }, { id: "arm-flexed" }, { id: "wrist" }, { id: "calf" }],
  composition: {
    "arm-flexed": { triceps: 0.25, biceps: 0.3 },
    "arm-relaxed": { triceps: 0.3, biceps: 0.24 },
    calf: { soleus: 0.3 },
  },
} as unknown as Atlas;

const assessment = {
  reference: { sites: [{ site: "calf" }, { site: "arm-flexed" }] },
  asymmetries: [{ site: "arm-relaxed" }, { site: "wrist" }],
  regions: ["triceps", "biceps", "soleus", "neck"].map(region),
  observations: [
    { kind: "tape-size", source: "calf", y: -1, variance: 0.25, row: { "b:soleus": 0.3 } },
    { kind: "tape-sides", source: "calf", y: 2, variance: 1, row: { "a:soleus": 0.3 } },
  ],
} as unknown as Assessment;

describe("the plumb line", () => {
  const all = groups(atlas, assessment);

  test("has taped sites in taping order, each with the regions it says most about", () => {
    const laid = all.map(({ site, regions }) => [site, regions.map((r) => r.region)]);
    expect(laid).toEqual([
      ["arm-relaxed", []],
      ["arm-flexed", ["triceps", "biceps"]],
      ["calf", ["soleus"]],
      [undefined, ["neck"]],
    ]);
  });

  test("keys move along it and stop at its ends", () => {
    const list = rows(all, false);
    expect(list).toHaveLength(6);
    expect(moved(list, undefined, 1)).toEqual({ kind: "site", id: "arm-relaxed" });
    expect(moved(list, { kind: "region", id: "soleus" }, 1)).toEqual({ kind: "region", id: "soleus" });
    expect(moved(list, { kind: "site", id: "calf" }, -1)).toEqual({ kind: "region", id: "biceps" });
  });
});

test("a region's evidence is what has it in its row, about size or about sides", () => {
  expect(evidenceFor(assessment, "soleus").map(({ aboutSides }) => aboutSides)).toEqual([false, true]);
  expect(evidenceFor(assessment, "neck")).toEqual([]);
  expect([...sidesKnown(assessment)]).toEqual(["soleus"]);
});

describe("choosing", () => {
  const three = { bring_up: ["a", "b", "c"], hold_back: ["d"], overrides: [] };

  test("stops at three and lets go of one again", () => {
    expect(toggledBringUp(three, "e")).toBeUndefined();
    expect(toggledBringUp(three, "b")?.bring_up).toEqual(["a", "c"]);
  });

  test("a region is never both brought up and held back", () => {
    expect(toggledHoldBack(three, "a")).toMatchObject({ bring_up: ["b", "c"], hold_back: ["d", "a"] });
    expect(toggledBringUp({ ...three, bring_up: ["a"] }, "d")).toMatchObject({
      bring_up: ["a", "d"],
      hold_back: [],
    });
  });
});

test("a region has one verdict of the coach's: a second replaces the first, and it can be taken back", () => {
  const first = overruled(noChoices, "calf", "level", "scar");
  const second = overruled(first, "calf", "ahead", "looked again");
  expect(second.overrides).toEqual([{ region: "calf", verdict: "ahead", reason: "looked again" }]);
  expect(takenBack(second, "calf")).toEqual(noChoices);
});
