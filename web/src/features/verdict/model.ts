// How the verdict is laid out along the plumb line, and what a choice does. Pure.
import type { Atlas } from "../../shared/api/atlas";
import type { Schemas } from "../../shared/api/client";

export type Assessment = Schemas["AssessmentFile"];
export type RegionEntry = Schemas["RegionEntry"];
export type Choices = Schemas["ChoicesEntry"];

/** What a row is about. */
export type Pick = { kind: "site"; id: string } | { kind: "region"; id: string };

export interface Group {
  /** A taped site; none for the regions nothing speaks about. */
  site?: string;
  regions: RegionEntry[];
}

export const MOST_CHOSEN = 3;

export const noChoices: Choices = { bring_up: [], areas: [], hold_back: [], overrides: [], share: [] };

/** Sites with evidence in the order they are taped, each with the regions it says most about; then the rest. */
export function groups(atlas: Atlas, assessment: Assessment): Group[] {
  const evident = new Set([
    ...assessment.reference.sites.map(({ site }) => site),
    ...assessment.asymmetries.map(({ site }) => site).filter((site) => atlas.composition[site]),
    ...picturedParts(assessment),
  ]);
  const sites = atlas.sites.map(({ id }) => id).filter((id) => evident.has(id));
  const sized = new Set([
    ...assessment.reference.sites.map(({ site }) => site),
    ...picturedParts(assessment),
  ]);
  const share = (site: string, region: string) => atlas.composition[site]?.[region] ?? 0;
  // A girth with an expected size says more than one whose sides alone are known.
  const home = (region: string) =>
    sites
      .filter((site) => share(site, region) > 0)
      .sort((a, b) => Number(sized.has(b)) - Number(sized.has(a)) || share(b, region) - share(a, region))[0];
  const placed = assessment.regions.map((region) => ({ region, site: home(region.region) }));
  const of = (site: string | undefined) => placed.filter((p) => p.site === site).map(({ region }) => region);
  return [...sites.map((site) => ({ site, regions: of(site) })), { regions: of(undefined) }];
}

/** How the rows are laid: head to foot under their girths, or by need. */
export type Order = "body" | "need";

/** Regions by need, most first; what is not behind at all in the order of the body. */
export function byNeed(assessment: Assessment): RegionEntry[] {
  return [...assessment.regions].sort((a, b) => b.bulk.need - a.bulk.need);
}

/** Every row from top to bottom, for moving by key. Rows of folded groups and of the folded rest are left out. */
export function rows(all: Group[], restShown: boolean, folded: ReadonlySet<string> = new Set()): Pick[] {
  return all.flatMap(({ site, regions }): Pick[] => {
    if (!site && !restShown) return [];
    const own = regions.map(({ region }): Pick => ({ kind: "region", id: region }));
    if (!site) return own;
    return folded.has(site) ? [{ kind: "site", id: site }] : [{ kind: "site", id: site }, ...own];
  });
}

/** A size by one school. */
export interface SchoolSize {
  school: Schemas["SizingSchool"] | "rest-of-body";
  expected_cm: number;
  /** Measured less expected, cm; negative = short. */
  difference_cm: number;
  z?: number;
}

/** What each school makes of a girth: the rest of this body first. */
export function schoolSizes(assessment: Assessment, site: string): SchoolSize[] {
  const own = assessment.reference.sites.find((entry) => entry.site === site);
  const others = assessment.schools.filter((entry) => entry.site === site);
  const size = (
    school: SchoolSize["school"],
    { observed_cm, expected_cm, z }: { observed_cm: number; expected_cm: number; z?: number | null },
  ): SchoolSize => ({ school, expected_cm, difference_cm: observed_cm - expected_cm, z: z ?? undefined });
  return [...(own ? [size("rest-of-body", own)] : []), ...others.map((entry) => size(entry.school, entry))];
}

/** Choices at which two people differ. */
export function differing(mine: Choices, theirs: Choices): number {
  const keys = ["bring_up", "areas", "hold_back", "overrides", "share"] as const;
  return keys.filter((key) => JSON.stringify(mine[key]) !== JSON.stringify(theirs[key])).length;
}

/** Choices with something shown to the client, or not any more. */
export function toggledShare(choices: Choices, what: Schemas["Shared"]): Choices {
  const share = choices.share.includes(what)
    ? choices.share.filter((one) => one !== what)
    : [...choices.share, what];
  return { ...choices, share };
}

/** The row `by` places further, or the first when nothing is picked. */
export function moved(all: Pick[], picked: Pick | undefined, by: number): Pick | undefined {
  const at = all.findIndex((row) => row.kind === picked?.kind && row.id === picked?.id);
  return at < 0 ? all[0] : all[Math.max(0, Math.min(all.length - 1, at + by))];
}

/** The observations that speak about a region, with the share of each that is this region's. */
export function evidenceFor(assessment: Assessment, region: string) {
  return (assessment.observations ?? []).flatMap((observation) => {
    const bulk = observation.row[`b:${region}`];
    const sides = observation.row[`a:${region}`];
    const share = bulk ?? sides;
    return share === undefined ? [] : [{ observation, share, aboutSides: bulk === undefined }];
  });
}

/** A site as this round's pictures show it: the mean of both sides, with its standard error. */
export function picturedOf(assessment: Assessment, site: string) {
  const own = (assessment.pictured ?? []).filter((one) => one.site === site);
  const [first] = own;
  if (!first) return undefined;
  const cm = own.reduce((sum, one) => sum + one.cm, 0) / own.length;
  return { cm, se_cm: (cm * first.error_pct) / 100, pairs: first.pairs };
}

/** Parts of the body whose girth pictures show. */
const picturedParts = (assessment: Assessment) =>
  [...new Set((assessment.pictured ?? []).map(({ site }) => site))].filter((site) =>
    areaOf(assessment, site),
  );

/** The part of the body whose muscles a girth mixes; none for other sites. */
export function areaOf(assessment: Assessment, site: string) {
  return assessment.areas.find(({ area }) => area === site);
}

/** A change of a region's estimate smaller than this cannot be seen, SD. */
const SEEN = 0.05;

/** What the tape does to a region's size, most first: sites without which it would stand otherwise. */
export function tapeFor(entry: RegionEntry) {
  const moves = (piece: { mean_without: number }) => Math.abs(entry.bulk.mean - piece.mean_without);
  const pieces = (entry.evidence ?? []).flatMap((piece) =>
    piece.site ? [{ ...piece, site: piece.site }] : [],
  );
  const seen = pieces.filter((piece) => moves(piece) >= SEEN).sort((a, b) => moves(b) - moves(a));
  return { seen, rest: pieces.length - seen.length };
}

/** Poses in which heads that are not told apart can be looked at, each once. */
export function posesToTell(atlas: Atlas, assessment: Assessment, heads: string[]): string[] {
  const open = heads.filter((head) => {
    const entry = assessment.regions.find(({ region }) => region === head);
    return entry && !["behind", "ahead", "level"].includes(standing(entry));
  });
  const poses = open.flatMap((head) => atlas.regions.find(({ id }) => id === head)?.poses.slice(0, 1) ?? []);
  return [...new Set(poses)];
}

/** Whether anything at all speaks about this body. */
export function hasEvidence({ observations, tape_joint }: Assessment): boolean {
  return (observations ?? []).length + (tape_joint?.sites ?? []).length > 0;
}

/** Regions whose left-right difference something speaks about; for the others it is only assumed. */
export function sidesKnown(assessment: Assessment): Set<string> {
  const rows = (assessment.observations ?? []).flatMap(({ row }) => Object.keys(row));
  return new Set(rows.filter((key) => key.startsWith("a:")).map((key) => key.slice(2)));
}

/** The verdict that counts: the coach's, else the computed one. */
export function standing(region: RegionEntry): Schemas["Standing"] {
  return region.overruled ?? region.bulk.verdict;
}

/** Choices with a region brought up, or not any more. `undefined` when three are chosen already. */
export function toggledBringUp(choices: Choices, region: string): Choices | undefined {
  const chosen = choices.bring_up;
  if (chosen.includes(region)) return { ...choices, bring_up: chosen.filter((id) => id !== region) };
  if (priorities(choices) >= MOST_CHOSEN) return undefined;
  return {
    ...choices,
    bring_up: [...chosen, region],
    hold_back: choices.hold_back.filter((id) => id !== region),
  };
}

/** How many priorities are chosen: regions and whole parts. */
export const priorities = ({ bring_up, areas }: Choices): number => bring_up.length + areas.length;

/** Choices with a whole part brought up, or not any more. `undefined` when three are chosen already. */
export function toggledArea(choices: Choices, area: string): Choices | undefined {
  const { areas } = choices;
  if (areas.includes(area)) return { ...choices, areas: areas.filter((id) => id !== area) };
  if (priorities(choices) >= MOST_CHOSEN) return undefined;
  return { ...choices, areas: [...areas, area] };
}

/** Choices with a region held back, or not any more. */
export function toggledHoldBack(choices: Choices, region: string): Choices {
  const held = choices.hold_back;
  if (held.includes(region)) return { ...choices, hold_back: held.filter((id) => id !== region) };
  return {
    ...choices,
    hold_back: [...held, region],
    bring_up: choices.bring_up.filter((id) => id !== region),
  };
}

/** Choices with the coach's own verdict on a region in place of any earlier one. */
export function overruled(
  choices: Choices,
  region: string,
  verdict: Schemas["Standing"],
  reason: string,
): Choices {
  return {
    ...takenBack(choices, region),
    overrides: [...takenBack(choices, region).overrides, { region, verdict, reason }],
  };
}

/** Choices without the coach's own verdict on a region. */
export function takenBack(choices: Choices, region: string): Choices {
  return { ...choices, overrides: choices.overrides.filter((one) => one.region !== region) };
}

/** Where a girth stands, for its mark: a diamond has no whisker, so half an SD either way counts as level. */
export function siteStanding(z: number, half: number): Schemas["Standing"] {
  if (z < -half) return "behind";
  return z > half ? "ahead" : "level";
}

/** What one observation does to a region's verdict. */
export function pieceOf(
  entry: RegionEntry,
  assessment: Assessment,
  observation: NonNullable<Assessment["observations"]>[number],
) {
  const at = assessment.observations?.indexOf(observation) ?? -1;
  return entry.evidence?.find((piece) => piece.observation === at);
}
