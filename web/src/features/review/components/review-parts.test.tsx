import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../../test/render";
import type { RegionReview } from "../model";
import { Areas } from "./Areas";
import { MoveBar } from "./MoveBar";
import { PicturePairs } from "./PicturePairs";
import { RegionPart } from "./RegionPart";

afterEach(cleanup);

const plumb = { mean: -1.1, sd: 0.3, standing: "behind" };

/** A calf that grew by more than noise after half of the sets. */
const calf = {
  region: "calves.gastrocnemius",
  chosen: true,
  before: plumb,
  now: { ...plumb, mean: -0.6, standing: "unclear" },
  girths: [
    { site: "calf", side: "left", before_cm: 36.2, now_cm: 37.1, change_cm: 0.9, mdc95_cm: 0.6, real: true },
    {
      site: "calf",
      side: "right",
      before_cm: 36.9,
      now_cm: 37.2,
      change_cm: 0.3,
      mdc95_cm: 0.6,
      real: false,
    },
  ],
  widths: [{ segment: "calf", change_pct: -1.2, mdc95_pct: 2.5, real: false }],
  planned_sets: 64,
  done_sets: 32,
  weekly_sets: 8,
  band: [10, 16],
  proposed: "adhere",
  why: "Half of the planned sets were done.",
} as unknown as RegionReview;

const part = (change: Partial<RegionReview> = {}, onDecide?: (decision: string) => void) =>
  show(<RegionPart review={{ ...calf, ...change }} decision="adhere" onDecide={onDecide} />);

test("each girth says what it was and is, and whether the change is more than noise", () => {
  part();
  const rows = screen.getAllByRole("row").map((row) => row.textContent);
  expect(rows[0]).toContain("36.2 → 37.1 cm");
  expect(rows[0]).toContain("+0.9 cm, real (noise up to 0.6)");
  expect(rows[1]).toContain("+0.3 cm, within noise (up to 0.6)");
  expect(rows[2]).toContain("−1.2 %, within noise (up to 2.5 %)");
});

test("over three rounds or more a girth says how it went, and whether that is more than noise", () => {
  const slope = { rounds: 4, a_week_cm: 0.05, se_cm: 0.01, real: true };
  const girths = [
    { ...calf.girths[0], slope },
    { ...calf.girths[1], slope: { ...slope, a_week_cm: 0.01, real: false } },
  ];
  part({ girths: girths as never });
  const rows = screen.getAllByRole("row").map((row) => row.textContent);
  expect(rows[0]).toMatch(/over 4 rounds \+0\.2 ± 0\.1 cm in 4 weeks$/);
  expect(rows[1]).toMatch(/over 4 rounds [+±]?0\.0 ± 0\.1 cm in 4 weeks, within noise$/);
});

test("what was not taped again is said, and nothing is made up for it", () => {
  part({ girths: [{ ...calf.girths[0], now_cm: null, change_cm: null } as never], widths: [] });
  const [row] = screen.getAllByRole("row");
  expect(row?.textContent).toContain("36.2 cm");
  expect(row?.textContent).toContain("not taped again");
  expect(row?.querySelector("rect"), "no bar").toBeNull();
});

test("the work stands against the plan and against the band", () => {
  part();
  expect(screen.getByText("32 of 64 done, 50 %")).toBeTruthy();
  expect(screen.getByText("band 10 to 16")).toBeTruthy();
});

test.each([
  ["nothing was planned", { planned_sets: 0, done_sets: 0, weekly_sets: 0 }, "none planned"],
  ["it is too early to tell", { now: null, weeks_to_show: 5 }, "after 5 weeks"],
  ["it hurt", { pain: "Pain in the ankle in 2 sessions." }, "Pain in the ankle in 2 sessions."],
  ["sides are even again", { two_sided_again: true }, /two-sided work is allowed again/],
] as const)("when %s it is said", (_, change, says) => {
  part(change as Partial<RegionReview>);
  expect(screen.getByText(says)).toBeTruthy();
});

test("what is proposed is marked and anything else can be decided", () => {
  const onDecide = vi.fn();
  part({}, onDecide);
  const group = screen.getByRole("group", { name: "Decision for Gastrocnemius" });
  const picked = within(group).getByRole<HTMLInputElement>("radio", { name: /^Keep, and do it/ });
  expect([picked.checked, picked.closest("label")?.textContent]).toEqual([true, "Keep, and do itproposed"]);
  expect(within(group).getAllByRole("radio")).toHaveLength(6);
  fireEvent.click(within(group).getByRole("radio", { name: "Swap now" }));
  expect(onDecide).toHaveBeenCalledWith("swap");
});

test("a region that was only kept goes on so or grows", () => {
  part({ chosen: false, proposed: "grow" }, vi.fn());
  const names = screen.getAllByRole("radio").map((radio) => radio.closest("label")?.textContent);
  expect(names).toEqual(["Keep", "Train for growthproposed"]);
});

test("on the sheet there is the decision and nothing to decide", () => {
  part();
  expect(screen.queryByRole("radio")).toBeNull();
  expect(screen.getByText("Keep, and do it").tagName).toBe("STRONG");
});

/** Left end and width of the bar, and of the noise behind it. */
function bars(change: number, mdc: number, real: boolean) {
  const { container } = show(<MoveBar change={change} mdc={mdc} real={real} width={100} />);
  const number = (rect: Element, name: string) => Number(rect.getAttribute(name));
  const rects = [...container.querySelectorAll("rect")];
  return rects.map((rect) => ({
    from: number(rect, "x"),
    to: number(rect, "x") + number(rect, "width"),
    fill: rect.getAttribute("fill"),
  }));
}

test.each([
  ["grew", 2, true, "var(--ahead)"],
  ["shrank", -2, true, "var(--behind)"],
  ["may have grown", 0.5, false, "var(--level)"],
  ["may have shrunk", -0.5, false, "var(--level)"],
] as const)(
  "what %s leans to its side and leaves the noise only when it is real",
  (_, change, real, colour) => {
    const [noise, bar] = bars(change, 1, real);
    expect(bar?.fill).toBe(colour);
    expect((change > 0 ? bar?.from : bar?.to) ?? 0).toBeCloseTo(50);
    const within = (bar?.to ?? 0) <= (noise?.to ?? 0) && (bar?.from ?? 0) >= (noise?.from ?? 0);
    expect(within).toBe(!real);
    expect((bar?.from ?? -1) >= 0 && (bar?.to ?? 101) <= 100).toBe(true);
  },
);

test("pictures of the same pose stand in pairs, and none leave no room", () => {
  show(<PicturePairs pairs={[{ pose: "F", before: "a", now: "b" }] as never} />);
  expect(screen.getAllByRole("img").map((image) => image.getAttribute("alt"))).toEqual([
    "Front relaxed, then",
    "Front relaxed, now",
  ]);
  cleanup();
  const { container } = show(<PicturePairs pairs={[]} />);
  expect(container.childElementCount).toBe(0);
});

test.each([
  ["gained", 0.93, "grew, 93 % sure"],
  ["lost", 0.91, "shrank, 91 % sure"],
  ["with-the-body", 0.8, "moved with the body (+1.2 %)"],
  ["not-moved", undefined, "no change beyond noise"],
] as const)("a part of the body says in one line how it moved: %s", (movement, sure, says) => {
  show(<Areas areas={[{ area: "calf", name: "Calf", movement, sure, with_the_body_pct: 1.2 }]} />);
  expect(screen.getByRole("listitem").textContent).toBe(`Calf${says}`);
});
