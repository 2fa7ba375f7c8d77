// Pure parts of review and trends.
import type { Schemas } from "../../shared/api/client";
import type { Mark } from "../../shared/charts";

export type Review = Schemas["ReviewView"];
export type RegionReview = Schemas["RegionReviewView"];
export type Decision = Schemas["Decision"];
export type Choices = Schemas["ChoicesEntry"];

/** Whether anything stands in a choice that a review could take away. */
export const hasChoices = (choices: Choices | null | undefined) =>
  (choices?.bring_up ?? []).length + (choices?.areas ?? []).length + (choices?.hold_back ?? []).length > 0;

/** Marks one by one, from the columns in which they are sent. */
export const marksOf = (
  { on, values, bands, pictured }: Schemas["TrendMarks"],
  fromPictures?: string,
): Mark[] =>
  on.map((day, place) => ({
    on: day,
    value: values[place] ?? 0,
    band: bands?.[place] ?? 0,
    ...(pictured?.includes(place) && { otherwise: fromPictures }),
  }));

/** What may be decided for a region that was to be brought up. */
export const DECISIONS: Decision[] = ["keep", "adhere", "release", "raise", "rest-then-change", "swap"];

/** What stands decided: saved, changed here, else proposed. */
export function decided(
  review: Review,
  changed: Partial<Record<string, Decision>>,
): Record<string, Decision> {
  const all: Record<string, Decision> = {};
  for (const { region, proposed } of review.regions) {
    const decision = changed[region] ?? review.decisions[region] ?? proposed;
    if (decision) all[region] = decision;
  }
  return all;
}

/** How many regions go on being brought up, those that join included. */
export function goingOn(review: Review, decisions: Record<string, Decision>, also: string[]): number {
  const chosen = review.regions.filter(({ chosen, region }) => chosen && decisions[region] !== "release");
  return chosen.length + also.length;
}
