// Taking pictures, the pure part: which pose comes next, how the phone is held, what can be said of a picture without the studio.
import type { Schemas } from "../../shared/api/client";

export type Pose = Schemas["PhotoPose"];
export type Asked = Schemas["PicturesAsked"];
export type PoseAsked = Schemas["PoseAsked"];
export type SetUp = Schemas["CameraSetUp"];
export type Fault = Schemas["PictureFault"];

export const COUNTS_S = [3, 5, 10] as const;
export type Count = (typeof COUNTS_S)[number];

/** Said of a picture: the studio's sentence, or what the page alone can tell. */
export interface Said {
  /** Nothing when it will do. */
  fault?: Fault | "glare" | "other" | null;
  says: string;
}

/** A pose that is asked for once more, or of which nothing was sent, is still to be taken. */
export const isOpen = (pose: PoseAsked, taken: ReadonlySet<Pose>): boolean =>
  !taken.has(pose.pose) && (pose.again != null || pose.sent === 0);

/** The place of the next pose to take after one, in their order and then from the first; nothing when all are there. */
export function nextOpen(
  poses: readonly PoseAsked[],
  taken: ReadonlySet<Pose>,
  after = -1,
): number | undefined {
  const order = poses.map((_, place) => (after + 1 + place) % poses.length);
  return order.find((place) => {
    const pose = poses[place];
    return pose !== undefined && isOpen(pose, taken);
  });
}

/** How a phone is held, degrees: turned in the picture's plane (positive: clockwise), tipped forward or back. */
export interface Held {
  roll: number;
  pitch: number;
}

const DEGREES = 180 / Math.PI;

/** From what the motion sensor feels. Some phones count the pull of the earth the other way round, so only what lies along it counts. */
export function heldBy({ x, y, z }: { x: number; y: number; z: number }): Held {
  const upright = y < 0 ? -1 : 1;
  return {
    roll: Math.atan2(upright * x, upright * y) * DEGREES,
    pitch: Math.atan2(upright * z, Math.hypot(x, y)) * DEGREES,
  };
}

/** Leaning or tipped less than this is level enough, degrees: the studio refuses a picture at 2 that leans. */
export const LEVEL_DEG = { roll: 1.5, pitch: 4 };
export const isLevel = ({ roll, pitch }: Held): boolean =>
  Math.abs(roll) <= LEVEL_DEG.roll && Math.abs(pitch) <= LEVEL_DEG.pitch;

/** Below this mean of 255 a picture is too dark, above this share of pure white it glares, below this it is blurred. */
const DARK = 40;
const GLARE_SHARE = 0.25;
const SOFT = 4;

/** Brightness by pixel (Rec. 601). */
function grey(pixels: Uint8ClampedArray): Float32Array {
  const values = new Float32Array(pixels.length / 4);
  for (let place = 0; place < values.length; place++) {
    const at = 4 * place;
    values[place] = 0.299 * (pixels[at] ?? 0) + 0.587 * (pixels[at + 1] ?? 0) + 0.114 * (pixels[at + 2] ?? 0);
  }
  return values;
}

/** Variance of the Laplacian: what is blurred has few edges. */
function sharpness(values: Float32Array, width: number): number {
  let [sum, squares, count] = [0, 0, 0];
  const height = values.length / width;
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      const [left = 0, right = 0, above = 0, below = 0, own = 0] = [
        values[at - 1],
        values[at + 1],
        values[at - width],
        values[at + width],
        values[at],
      ];
      const edge = left + right + above + below - 4 * own;
      sum += edge;
      squares += edge * edge;
      count += 1;
    }
  return count > 0 ? squares / count - (sum / count) ** 2 : 0;
}

/** What the page alone can tell of a small copy of a picture: its light and whether it is sharp. Who stands in it, the studio tells. */
export function faultOf(
  pixels: Uint8ClampedArray,
  width: number,
  height: number,
): Fault | "glare" | undefined {
  if (width > height) return "lying";
  const values = grey(pixels);
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  if (mean < DARK) return "light";
  if (values.filter((value) => value >= 252).length > GLARE_SHARE * values.length) return "glare";
  if (sharpness(values, width) < SOFT) return "blurred";
  return undefined;
}

/** Width and height of a copy whose longer side is at most so long. */
export function within(width: number, height: number, longest: number): [number, number] {
  const share = Math.min(1, longest / Math.max(width, height));
  return [Math.round(width * share), Math.round(height * share)];
}

/** Why no camera opens, by the name of the browser's error. */
export type Trouble = "refused" | "none" | "busy" | "insecure" | "other";
export function troubleOf(name: string): Trouble {
  if (name === "NotAllowedError" || name === "SecurityError") return "refused";
  if (name === "NotFoundError" || name === "OverconstrainedError") return "none";
  if (name === "NotReadableError" || name === "AbortError") return "busy";
  return "other";
}

/** A path of closed lines, for SVG. */
export const pathOf = (lines: readonly (readonly number[][])[]): string =>
  lines.map((line) => `M${line.map((point) => point.join(" ")).join("L")}Z`).join("");
