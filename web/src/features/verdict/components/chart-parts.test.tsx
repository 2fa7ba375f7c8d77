import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Atlas } from "../../../shared/api/atlas";
import { atlas as names, show } from "../../../test/render";
import { type Assessment, type Choices, groups, noChoices, type RegionEntry } from "../model";
import { ChoiceTray } from "./ChoiceTray";
import { PlumbChart } from "./PlumbChart";
import { TableTwin } from "./TableTwin";

afterEach(cleanup);

const region = (id: string, mean: number, verdict: RegionEntry["bulk"]["verdict"]): RegionEntry => ({
  region: id,
  look_weight: 1,
  class: "grow",
  conflict: [],
  causes: [],
  bulk: { mean, sd: 0.5, p_behind: 0.9, p_ahead: 0, verdict, need: 1 },
  asymmetry: { mean: 2.4, sd: 1, p_left_smaller: 0, p_right_smaller: 0.3, verdict: "unclear" },
});

const atlas = {
  ...names,
  composition: { calf: { "calves.gastrocnemius": 0.6 } },
  level_half_width_sd: 0.5,
} as Atlas;
const assessment = {
  reference: { sites: [{ site: "calf", observed_cm: 32.5, expected_cm: 35, z: -2.3 }] },
  asymmetries: [{ site: "calf", symmetry_index: 4.2, se_index: 1 }],
  regions: [region("calves.gastrocnemius", -1.9, "behind"), region("biceps.long", 0.1, "unclear")],
  areas: [
    {
      area: "calf",
      name: "Calf",
      mean: -1.6,
      sd: 0.4,
      p_behind: 0.99,
      p_ahead: 0,
      verdict: "behind",
      heads: ["calves.gastrocnemius"],
    },
  ],
  observations: [],
} as unknown as Assessment;

const chart = (
  choices: Choices = noChoices,
  restShown = false,
  of = assessment,
  folded = new Set<string>(),
) => {
  const onPick = vi.fn();
  const onFold = vi.fn();
  show(
    <PlumbChart
      atlas={atlas}
      assessment={of}
      groups={groups(atlas, of)}
      choices={choices}
      restShown={restShown}
      folded={folded}
      onFold={onFold}
      onPick={onPick}
      onRest={vi.fn()}
    />,
  );
  return onPick;
};

test("a taped site stands with its size over the regions it feeds, each opens, and says its verdict to a screen reader", () => {
  const onPick = chart();
  fireEvent.click(screen.getByRole("button", { name: "Calf behind 32.5 cm" }));
  fireEvent.click(screen.getByRole("button", { name: "Gastrocnemius behind" }));
  expect(onPick.mock.calls.map(([pick]) => pick)).toEqual([
    { kind: "site", id: "calf" },
    { kind: "region", id: "calves.gastrocnemius" },
  ]);
});

test("a part that nobody taped stands with what pictures show of it, by both sides together", () => {
  const shown = { cm: 33, error_pct: 2, change_error_pct: 1.7, from: "breadth-depth", pairs: 0 };
  const pictured = [
    { ...shown, site: "calf", side: "left" },
    { ...shown, site: "calf", side: "right", cm: 34 },
  ];
  const untaped = {
    ...assessment,
    asymmetries: [],
    reference: { sites: [] },
    pictured,
  } as unknown as Assessment;
  chart(noChoices, false, untaped);
  expect(screen.getByRole("button", { name: "Calf behind 33.5 cm from pictures" })).toBeTruthy();
  expect(screen.getByRole("button", { name: "Gastrocnemius behind" })).toBeTruthy();
});

test("regions no tape speaks for are folded away until they are asked for", () => {
  chart();
  expect(screen.queryByRole("button", { name: /Biceps, long head/ })).toBeNull();
  expect(screen.getByRole("button", { name: /Told by no girth \(1\)/ }).getAttribute("aria-expanded")).toBe(
    "false",
  );
  cleanup();
  chart(noChoices, true);
  expect(screen.getByRole("button", { name: "Biceps, long head unclear" })).toBeTruthy();
});

test("what is chosen and what is held back is marked on its row", () => {
  chart({ ...noChoices, bring_up: ["calves.gastrocnemius"], hold_back: ["biceps.long"] }, true);
  expect(screen.getByRole("img", { name: "To bring up" })).toBeTruthy();
  expect(screen.getByRole("button", { name: /Biceps, long head · held back/i })).toBeTruthy();
});

test("the table twin holds every region with verdict, estimate and sides", () => {
  show(<TableTwin assessment={assessment} />);
  const cellsOf = (table: string) =>
    within(screen.getByRole("table", { name: table, hidden: true }))
      .getAllByRole("row", { hidden: true })
      .slice(1)
      .map(cells);
  const cells = (row: HTMLElement) =>
    ["rowheader", "cell"].flatMap((role) =>
      within(row)
        .getAllByRole(role, { hidden: true })
        .map((c) => c.textContent),
    );
  expect(cellsOf("Region")).toEqual([
    ["Gastrocnemius", "behind", "−1.9 ± 1.0", "+2.4 ± 2.0", "1.00"],
    ["Biceps, long head", "unclear", "+0.1 ± 1.0", "+2.4 ± 2.0", "1.00"],
  ]);
  expect(cellsOf("Girth")).toEqual([["Calf", "32.5", "35.0", "−2.3", "+4.2 ± 2.0"]]);
});

test("the tray leads to the week only once something is chosen, and lets go again", () => {
  const [onRelease, onPlan] = [vi.fn(), vi.fn()];
  const tray = (choices: Choices) => (
    <ChoiceTray
      choices={choices}
      onRelease={onRelease}
      onPick={vi.fn()}
      onReleaseArea={onRelease}
      onPickArea={vi.fn()}
      onPlan={onPlan}
      onShare={vi.fn()}
    />
  );
  show(tray(noChoices));
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Make the week" }).disabled).toBe(true);
  cleanup();
  show(
    tray({ ...noChoices, bring_up: ["biceps.long"], areas: ["calf"], hold_back: ["calves.gastrocnemius"] }),
  );
  fireEvent.click(screen.getByRole("button", { name: "Do not bring up: Calf" }));
  expect(onRelease).toHaveBeenCalledWith("calf");
  fireEvent.click(screen.getByRole("button", { name: "Make the week" }));
  fireEvent.click(screen.getByRole("button", { name: /: Biceps, long head/ }));
  expect(onPlan).toHaveBeenCalledOnce();
  expect(onRelease).toHaveBeenCalledWith("biceps.long");
  expect(screen.getByText(/Gastrocnemius/)).toBeTruthy();
});

test("a girth folds its regions away and says how many", () => {
  chart(noChoices, false, assessment, new Set(["calf"]));
  const fold = screen.getByRole("button", { name: "Calf: 1 regions" });
  expect(fold.getAttribute("aria-expanded")).toBe("false");
  expect(screen.queryByText(/^Gastrocnemius/)).toBeNull();
});
