import { expect, test } from "vitest";
import {
  acrossPicture,
  earlierWith,
  fitted,
  framesOf,
  inPose,
  kindsFor,
  type LightTable,
  landmarkName,
  levels,
  matrix,
  mirroredAbout,
  nextOpen,
  onTable,
  type Photo,
  type Point,
  pathOf,
  placed,
  plumb,
  posesOf,
  type Question,
  ratingAt,
  takesOf,
  zoomed,
} from "./model";

const photo = (over: object = {}): Photo =>
  ({
    id: "p1",
    pose: "F",
    counts: true,
    frames: [
      { region: "biceps.long", side: "left", x: 300, y: 10, width: 40, height: 80 },
      { region: "biceps.long", side: "right", x: 100, y: 10, width: 40, height: 80 },
    ],
    measured: {
      person: true,
      width_px: 800,
      height_px: 1200,
      landmarks: {
        vertex: { x: 400, y: 100 },
        floor: { x: 400, y: 1100 },
        "acromion-left": { x: 500, y: 290 },
        "acromion-right": { x: 300, y: 310 },
      },
    },
    ...over,
  }) as unknown as Photo;

/** Where a CSS matrix puts a point. */
function applied(css: string, { x, y }: Point): Point {
  const [a, b, c, d, e, f] = css.slice(7, -1).split(",").map(Number) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return { x: a * x + c * y + e, y: b * x + d * y + f };
}

test("the whole figure is shown, its plumb line in the middle of the pane", () => {
  const sight = fitted(photo(), 400, 500);
  const at = (p: Point) => ({ x: p.x * sight.scale + sight.x, y: p.y * sight.scale + sight.y });
  expect(at({ x: 400, y: 100 })).toEqual({ x: 200, y: expect.closeTo(25, 6) });
  expect(at({ x: 400, y: 1100 })).toEqual({ x: 200, y: expect.closeTo(475, 6) });
});

test("a picture nobody was found in is shown whole", () => {
  const bare = photo({ measured: { person: false, width_px: 800, height_px: 1200, landmarks: {} } });
  expect(fitted(bare, 400, 300)).toEqual({ scale: 0.25, x: 100, y: 0 });
});

test("zooming keeps what lies under the pointer where it is", () => {
  const sight = { scale: 0.5, x: 30, y: -20 };
  const pointer = { x: 120, y: 80 };
  const before = onTable(sight, pointer);
  const after = onTable(zoomed(sight, 1.7, pointer), pointer);
  expect(after).toEqual({ x: expect.closeTo(before.x, 9), y: expect.closeTo(before.y, 9) });
  expect(zoomed(sight, 1000, pointer).scale).toBe(12);
});

test("an earlier picture is turned and shifted as the core says", () => {
  expect(applied(matrix({ a: 0, b: 2, dx: 10, dy: 5 }), { x: 1, y: 0 })).toEqual({ x: 10, y: 7 });
});

test("mirroring keeps the plumb line and changes sides, whatever its lean", () => {
  const line = { foot: { x: 380, y: 1100 }, head: { x: 420, y: 100 } };
  const css = mirroredAbout(line);
  expect(applied(css, line.head)).toEqual({ x: expect.closeTo(420, 6), y: expect.closeTo(100, 6) });
  const once = applied(css, { x: 500, y: 600 });
  expect(once.x).toBeLessThan(400);
  expect(applied(css, once)).toEqual({ x: expect.closeTo(500, 6), y: expect.closeTo(600, 6) });
});

test("the plumb line leans to the right when the head is right of the feet", () => {
  const leaning = photo();
  if (leaning.measured)
    leaning.measured.landmarks.vertex = { x: 400 + Math.tan(Math.PI / 60) * 1000, y: 100, confidence: 1 };
  expect(plumb(leaning)?.lean).toBeCloseTo(3, 6);
  expect(plumb(photo())?.lean).toBe(0);
});

test("a level line lies between both sides, and where a landmark is missing there is none", () => {
  expect(levels(photo())).toEqual([300]);
});

test("poses stand in the order they are taken, and of one pose the one that counts is shown first", () => {
  const photos = [
    photo({ pose: "SL" }),
    photo({ id: "old" }),
    photo({ pose: undefined }),
    photo({ id: "new", counts: false }),
  ];
  expect(posesOf(photos)).toEqual(["F", "SL"]);
  expect(takesOf(photos, "F").map(({ id }) => id)).toEqual(["new", "old"]);
  expect(inPose(photos, "F")?.id).toBe("old");
});

test("only earlier rounds with the pose can be compared, the last one first", () => {
  const round = (round_id: string, pose?: string) => ({
    round_id,
    date: "",
    photos: pose ? [photo({ pose })] : [],
  });
  const table = { rounds: [round("a", "F"), round("b", "F"), round("c"), round("d", "F"), round("e", "F")] };
  const earlier = earlierWith(table as unknown as LightTable, "d", "F");
  expect(earlier.map(({ round_id }) => round_id)).toEqual(["b", "a"]);
});

const question = (region: string, sides = true) => ({ region, poses: ["F"], sides }) as unknown as Question;

test.each([
  ["B", true, true, ["standing", "left-right"]],
  ["SL", true, true, ["standing"]],
  ["B", true, false, ["standing"]],
  ["B", false, true, ["standing"]],
] as const)("in %s, with sides %s and known %s, %s is asked", (pose, sides, known, kinds) => {
  expect(kindsFor(question("x", sides), pose, known)).toEqual(kinds);
});

test("the walk goes to the next region not judged, round the end of the list, and stops when all are", () => {
  const list = [question("a"), question("b"), question("c")];
  expect(nextOpen(list, "b", (id) => id === "c")).toBe("a");
  expect(nextOpen(list, "c", (id) => id !== "b")).toBe("b");
  expect(nextOpen(list, "a", () => true)).toBeUndefined();
});

test("a rating is found by its round, region, pose and kind", () => {
  const place = { round_id: "r", region: "a", pose: "F", kind: "standing" as const };
  const ratings = [{ ...place, value: -1 }] as never;
  expect(ratingAt(ratings, place)?.value).toBe(-1);
  expect(ratingAt(ratings, { ...place, kind: "left-right" })).toBeUndefined();
});

test("a region's boxes read like the picture, from its left", () => {
  const boxes = acrossPicture(framesOf(photo(), "biceps.long"));
  expect(boxes.map(({ side }) => side)).toEqual(["right", "left"]);
  expect(framesOf(photo(), "neck")).toEqual([]);
});

test.each([
  ["hip-joint-left", { what: "hip-joint", side: "left" }],
  ["navel", { what: "navel" }],
])("landmark %s has a name and a side", (name, parts) => {
  expect(landmarkName(name)).toEqual(parts);
});

test("placing a landmark leaves the others, and what was there before, alone", () => {
  const before = { landmarks: { navel: { x: 1, y: 2 } }, strokes: [] };
  expect(placed(before, "chin", { x: 3.0644, y: 4 }).landmarks).toEqual({
    navel: { x: 1, y: 2 },
    chin: { x: 3.1, y: 4 },
  });
  expect(before.landmarks).toEqual({ navel: { x: 1, y: 2 } });
});

test("outline lines are closed paths", () => {
  expect(
    pathOf([
      [
        [0, 0],
        [1, 0],
      ],
      [[5, 5]],
    ]),
  ).toBe("M0 0L1 0ZM5 5Z");
});
