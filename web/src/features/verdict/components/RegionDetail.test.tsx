import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../../test/render";
import { type Assessment, noChoices, type RegionEntry } from "../model";
import { RegionDetail } from "./RegionDetail";

afterEach(cleanup);

const region: RegionEntry = {
  region: "calves.gastrocnemius",
  look_weight: 1.4,
  class: "grow",
  bulk: { mean: -1.9, sd: 0.6, p_behind: 0.99, p_ahead: 0, verdict: "behind", need: 1.99 },
  asymmetry: { mean: -0.3, sd: 1.5, p_left_smaller: 0.03, p_right_smaller: 0.02, verdict: "equal" },
  conflict: [],
  causes: [],
  evidence: [
    {
      observation: 0,
      about: "size",
      weight: 0.8,
      mean_without: -0.4,
      sd_without: 0.9,
      verdict_without: "unclear",
    },
  ],
};
const assessment = {
  observations: [
    {
      kind: "tape-size",
      source: "calf",
      y: -2.3,
      variance: 0.25,
      row: { "b:calves.gastrocnemius": 0.6 },
    },
  ],
} as unknown as Assessment;

test("a taped site says how the verdict would read without it, and leaning is no verdict", () => {
  const leaning = { ...region.bulk, mean: -0.7, p_behind: 0.62, verdict: "leans-behind" as const };
  const site = { site: "calf", about: "size", weight: 9, mean_without: 0.2, sd_without: 0.9 };
  detail({ ...region, bulk: leaning, evidence: [{ ...site, verdict_without: "unclear" }] });
  expect(screen.getByText(/^Leans behind the rest of this build, 62 % sure: too little/)).toBeTruthy();
  expect(screen.getAllByRole("listitem")[0]?.textContent).toContain("without it +0.2 SD, unclear");
});

const detail = (entry: RegionEntry) => {
  const acts = { onBringUp: vi.fn(), onOverrule: vi.fn(), onTakeBack: vi.fn() };
  show(
    <RegionDetail
      entry={entry}
      assessment={assessment}
      threshold={3}
      half={0.5}
      choices={noChoices}
      onHoldBack={vi.fn()}
      {...acts}
    />,
  );
  return acts;
};

test("a region opens to its sentence, its numbers and each piece with the verdict without it", () => {
  detail(region);
  expect(screen.getByRole("heading", { name: /Gastrocnemius/ })).toBeTruthy();
  expect(screen.getByText(/Behind the rest of this build, 99 % sure\./)).toBeTruthy();
  const piece = screen.getByRole("listitem");
  expect(piece.textContent).toMatch(/^Calf tape, size: −2\.3 SD ± 1\.0 · 60 % of this girth/);
  expect(piece.textContent).toMatch(/without it −0\.4 SD, unclear$/);
});

test("choosing is one press", () => {
  const { onBringUp } = detail(region);
  fireEvent.click(screen.getByRole("button", { name: "Bring up" }));
  expect(onBringUp).toHaveBeenCalledOnce();
});

test("causes say what was seen and what to do; contradictions and sides that disagree are said", () => {
  detail({
    ...region,
    causes: [{ cause: "too-little-work", name: "Too little work", seen: "4.0 sets a week.", do: "Raise." }],
    conflict: [
      {
        about: "size",
        joint_sd: 2.4,
        kinds: [
          { kind: "rating", estimate: 0.9 },
          { kind: "tape", estimate: -1.8 },
        ],
      },
    ],
    sides_disagree: { smaller: "left", weaker: "right" },
  });
  expect(screen.getByText(/4\.0 sets a week\./).textContent).toContain("Too little work.");
  expect(screen.getByText(/rating says \+0\.9 SD and tape says −1\.8 SD/)).toBeTruthy();
  expect(screen.getByText("The left is smaller by tape, the right is weaker by test.")).toBeTruthy();
});

test("without causes or contradictions there is no such heading", () => {
  detail(region);
  expect(screen.queryByText("Why, and what to do")).toBeNull();
});

test("a verdict is overruled with a reason, and not without one", () => {
  const { onOverrule } = detail(region);
  fireEvent.click(screen.getByRole("button", { name: "Say otherwise…" }));
  expect(screen.queryByRole("button", { name: "behind" })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "level" }));
  const keep = screen.getByRole("button", { name: "Keep as the verdict" });
  expect((keep as HTMLButtonElement).disabled).toBe(true);
  fireEvent.change(screen.getByLabelText("Because"), { target: { value: " scar, not muscle " } });
  fireEvent.submit(keep);
  expect(onOverrule).toHaveBeenCalledWith("level", "scar, not muscle");
});

test("an overruled verdict shows the coach's word first, the computed one beside it, and can be taken back", () => {
  const { onTakeBack } = detail({ ...region, overruled: "level", overruled_because: "scar, not muscle" });
  expect(screen.getByText("You say: level.").parentElement?.textContent).toContain("scar, not muscle");
  expect(screen.getByText(/^Computed: Behind the rest of this build/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Take your verdict back" }));
  expect(onTakeBack).toHaveBeenCalledOnce();
});
