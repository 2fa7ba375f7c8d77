// The light table's geometry, questions and words, without React. Every place is in px of a picture's view.
import type { Schemas } from "../../shared/api/client";
import type { Frame, Kind } from "../../shared/judging";

export type LightTable = Schemas["LightTable"];
export type Photo = Schemas["PhotoView"];
export type PhotoPose = Schemas["PhotoPose"];
export type Question = Schemas["Question"];
export type Rating = Schemas["RatingView"];
export type Laid = Schemas["Laid"];
export type Moved = Schemas["MovedBody"];

export const MODES = ["beside", "alternate", "wipe", "halves", "outlines"] as const;
export type Mode = (typeof MODES)[number];
export const TOOLS = ["judge", "marks", "brush"] as const;
export type Tool = (typeof TOOLS)[number];

export interface Point {
  x: number;
  y: number;
}

/** From table to screen: scale, then shift, screen px. */
export interface Sight {
  scale: number;
  x: number;
  y: number;
}

/** Share of a pane's height the figure takes when it is shown whole. */
const FILL = 0.9;
const LEAST_SCALE = 0.05;
const MOST_SCALE = 12;

/** The view that shows the whole figure, its plumb line in the pane's middle. */
export function fitted(photo: Photo, width: number, height: number): Sight {
  const size = photo.measured;
  const [top, bottom] = [mark(photo, "vertex"), mark(photo, "floor")];
  if (!size || !top || !bottom) {
    const [w, h] = [size?.width_px ?? 1200, size?.height_px ?? 1600];
    const scale = Math.min(width / w, height / h);
    return { scale, x: (width - w * scale) / 2, y: (height - h * scale) / 2 };
  }
  const scale = Math.min((FILL * height) / Math.max(bottom.y - top.y, 1), (width * 1.6) / size.width_px);
  return {
    scale,
    x: width / 2 - ((top.x + bottom.x) / 2) * scale,
    y: height / 2 - ((top.y + bottom.y) / 2) * scale,
  };
}

/** Zooms so that what lies under a screen point stays there. */
export function zoomed(sight: Sight, factor: number, at: Point): Sight {
  const scale = Math.min(Math.max(sight.scale * factor, LEAST_SCALE), MOST_SCALE);
  const k = scale / sight.scale;
  return { scale, x: at.x - (at.x - sight.x) * k, y: at.y - (at.y - sight.y) * k };
}

/** Where a screen point lies on the table. */
export function onTable(sight: Sight, at: Point): Point {
  return { x: (at.x - sight.x) / sight.scale, y: (at.y - sight.y) / sight.scale };
}

export function mark(photo: Photo, name: string): Point | undefined {
  return photo.measured?.landmarks[name];
}

/** CSS for an earlier picture laid over this round's. */
export function matrix({ a, b, dx, dy }: Pick<Laid, "a" | "b" | "dx" | "dy">): string {
  return `matrix(${a}, ${b}, ${-b}, ${a}, ${dx}, ${dy})`;
}

/** The plumb line: from the floor up through the head, and how far it leans in the picture, degrees clockwise. */
export function plumb(photo: Photo): { foot: Point; head: Point; lean: number } | undefined {
  const [head, foot] = [mark(photo, "vertex"), mark(photo, "floor")];
  if (!head || !foot) return undefined;
  return { foot, head, lean: (Math.atan2(head.x - foot.x, foot.y - head.y) * 180) / Math.PI };
}

/** CSS that mirrors a picture about its own plumb line. */
export function mirroredAbout(line: { foot: Point; head: Point }): string {
  const [ux, uy] = [line.head.x - line.foot.x, line.head.y - line.foot.y];
  const l = ux * ux + uy * uy;
  const [c, s] = [(ux * ux - uy * uy) / l, (2 * ux * uy) / l];
  const { x, y } = line.foot;
  return `matrix(${c}, ${s}, ${s}, ${-c}, ${x - c * x - s * y}, ${y - s * x + c * y})`;
}

const LEVELS = ["acromion", "waist", "hip", "knee"];

/** Heights at which level lines are drawn. */
export function levels(photo: Photo): number[] {
  const each = LEVELS.map((name) => {
    const [left, right] = [mark(photo, `${name}-left`), mark(photo, `${name}-right`)];
    return left && right ? (left.y + right.y) / 2 : undefined;
  });
  return each.filter((y): y is number => y !== undefined);
}

/** Poses there are pictures of, in the order they are usually taken. */
const POSE_ORDER = ["F", "B", "SL", "SR", "SLA", "SRA", "FDB", "BDB", "FLS", "BLS", "SC", "ST", "AT"];
export function posesOf(photos: Photo[]): string[] {
  const poses = new Set(photos.map((photo) => photo.pose).filter((pose) => pose !== undefined));
  return POSE_ORDER.filter((pose) => poses.has(pose as never));
}

/** All pictures of a pose, newest first. */
export const takesOf = (photos: Photo[], pose: string | undefined): Photo[] =>
  photos.filter((photo) => photo.pose === pose).reverse();

/** The picture of a pose that counts in its round. */
export const inPose = (photos: Photo[], pose: string | undefined): Photo | undefined =>
  photos.find((photo) => photo.pose === pose && photo.counts);

/** Earlier rounds that have a pose, newest first. */
export function earlierWith(table: LightTable, roundId: string, pose: string | undefined) {
  const at = table.rounds.findIndex((round) => round.round_id === roundId);
  return table.rounds
    .slice(0, Math.max(at, 0))
    .filter((round) => inPose(round.photos, pose))
    .reverse();
}

export function ratingAt(
  ratings: Rating[],
  place: { round_id: string; region: string; pose: string; kind: Kind },
): Rating | undefined {
  return ratings.find(
    (rating) =>
      rating.round_id === place.round_id &&
      rating.region === place.region &&
      rating.pose === place.pose &&
      rating.kind === place.kind,
  );
}

const FLANKS = ["SL", "SR", "SLA", "SRA", "SC", "ST"];

/** What is asked of a region in a pose: its standing, and left against right where a pose shows both. */
export function kindsFor(question: Question, pose: string, sidesKnown: boolean): Kind[] {
  return question.sides && sidesKnown && !FLANKS.includes(pose) ? ["standing", "left-right"] : ["standing"];
}

/** The next region after one that is not judged yet, in the order of the list and then from its start. */
export function nextOpen(questions: Question[], current: string, judged: (region: string) => boolean) {
  const at = questions.findIndex((question) => question.region === current);
  const order = [...questions.slice(at + 1), ...questions.slice(0, at + 1)];
  return order.find((question) => !judged(question.region))?.region;
}

export function framesOf(photo: Photo | undefined, region: string | undefined): Frame[] {
  return (photo?.frames ?? [])
    .filter((frame) => frame.region === region)
    .map(({ x, y, width, height, side }) => ({ x, y, width, height, side: side ?? undefined }));
}

/** Left first as it lies in the picture, so that a strip reads like the picture. */
export function acrossPicture(frames: Frame[]): Frame[] {
  return [...frames].sort((a, b) => a.x - b.x);
}

/** A landmark's name in two parts: what it is and whose side. */
export function landmarkName(name: string): { what: string; side?: "left" | "right" } {
  const found = /^(.*)-(left|right)$/.exec(name);
  return found ? { what: found[1] ?? name, side: found[2] as "left" | "right" } : { what: name };
}

/** Landmarks with one placed anew. */
export function placed(moved: Moved, name: string, at: Point): Moved {
  const spot = { x: Math.round(at.x * 10) / 10, y: Math.round(at.y * 10) / 10 };
  return { ...moved, landmarks: { ...moved.landmarks, [name]: spot } };
}

/** Outline lines as an SVG path. */
export function pathOf(lines: number[][][]): string {
  return lines.map((line) => `M${line.map(([x, y]) => `${x} ${y}`).join("L")}Z`).join("");
}

export type SeenGirth = Schemas["PicturedEntry"];

/** Girths from pictures, a line for each site: the whole of it, or both sides. */
export function girthRows(sites: SeenGirth[]) {
  const ids = [...new Set(sites.map(({ site }) => site))];
  return ids.map((site) => {
    const own = sites.filter((one) => one.site === site);
    const of = (side?: string) => own.find((one) => (one.side ?? undefined) === side);
    const from = own.every((one) => one.from === "breadth-depth") ? "breadth-depth" : "breadth";
    return { site, whole: of(), left: of("left"), right: of("right"), from } as const;
  });
}

/** What is not seen, by its reason: several sites often share one. */
export function unseenByWhy(missing: Schemas["UnseenGirth"][]) {
  const reasons = [...new Set(missing.map(({ why }) => why))];
  return reasons.map((why) => ({
    why,
    sites: missing.filter((one) => one.why === why).map(({ site }) => site),
  }));
}
