import { describe, expect, test } from "vitest";
import type { Atlas } from "../../shared/api/atlas";
import {
  type Assessment,
  byNeed,
  differing,
  evidenceFor,
  groups,
  hasEvidence,
  moved,
  noChoices,
  overruled,
  posesToTell,
  type RegionEntry,
  rows,
  schoolSizes,
  sidesKnown,
  takenBack,
  tapeFor,
  toggledArea,
  toggledBringUp,
  toggledHoldBack,
  toggledShare,
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

test("the tape's sites stand by what each does to a region, small ones counted", () => {
  const piece = (site: string, mean_without: number) => ({
    site,
    about: "size",
    weight: 1,
    mean_without,
    sd_without: 1,
  });
  const evidence = [piece("wrist", -0.02), piece("knee", 0.2), piece("calf", 0.9)];
  const { seen, rest } = tapeFor({ ...region("soleus"), evidence });
  expect(seen.map(({ site }) => site)).toEqual(["calf", "knee"]);
  expect(rest).toBe(1);
});

test("where to look is asked of heads without a verdict, each pose once", () => {
  const atlas = {
    regions: [
      { id: "gastrocnemius", poses: ["B", "SL"] },
      { id: "soleus", poses: ["B"] },
      { id: "tibialis", poses: ["F"] },
    ],
  } as unknown as Atlas;
  const clear = { ...region("tibialis"), overruled: "level" as const };
  const known = { regions: [region("gastrocnemius"), region("soleus"), clear] } as unknown as Assessment;
  expect(posesToTell(atlas, known, ["gastrocnemius", "soleus", "tibialis"])).toEqual(["B"]);
});

test.each([
  ["nothing", [], [], false],
  ["tape alone", [], ["calf"], true],
  ["a rating alone", [{}], [], true],
])("with %s there is evidence or not", (_, observations, sites, expected) => {
  expect(hasEvidence({ observations, tape_joint: { sites } } as unknown as Assessment)).toBe(expected);
});

test("whole parts count among the three, and come and go", () => {
  const two = { ...noChoices, bring_up: ["a", "b"] };
  const three = toggledArea(two, "calf");
  expect(three?.areas).toEqual(["calf"]);
  expect(three && toggledArea(three, "thigh")).toBeUndefined();
  expect(three && toggledBringUp(three, "c")).toBeUndefined();
  expect(three && toggledArea(three, "calf")?.areas).toEqual([]);
});

describe("choosing", () => {
  const three = { bring_up: ["a", "b", "c"], areas: [], hold_back: ["d"], overrides: [], share: [] };

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

test("folded girths keep their own row and lose their regions'", () => {
  const all = [{ site: "calf", regions: [{ region: "soleus" }] }, { regions: [] }] as never;
  expect(rows(all, false, new Set(["calf"]))).toEqual([{ kind: "site", id: "calf" }]);
});

test("by need the region with most expected shortfall comes first", () => {
  const of = (region: string, need: number) => ({ region, bulk: { need } });
  const list = { regions: [of("neck", 0.1), of("soleus", 1.5), of("biceps", 0.4)] } as never;
  expect(byNeed(list).map(({ region }) => region)).toEqual(["soleus", "biceps", "neck"]);
});

test("each school says how far a girth is from what it expects, the rest of this body first", () => {
  const judged = {
    reference: { sites: [{ site: "calf", observed_cm: 35, expected_cm: 36.2, z: -1 }] },
    schools: [
      { school: "frame-ratios", site: "calf", observed_cm: 35, expected_cm: 37.1, z: -1.7 },
      { school: "silhouette", site: "shoulder", observed_cm: 120, expected_cm: 129 },
    ],
  } as never;
  const said = schoolSizes(judged, "calf").map(({ school, difference_cm }) => [
    school,
    difference_cm.toFixed(1),
  ]);
  expect(said).toEqual([
    ["rest-of-body", "-1.2"],
    ["frame-ratios", "-2.1"],
  ]);
});

test("what the client sees is chosen part by part", () => {
  const shared = toggledShare(toggledShare(noChoices, "sides"), "girths");
  expect(shared.share).toEqual(["sides", "girths"]);
  expect(toggledShare(shared, "sides").share).toEqual(["girths"]);
  expect(differing(shared, noChoices)).toBe(1);
});
