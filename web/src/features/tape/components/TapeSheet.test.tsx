import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import type { Site } from "../model";
import { TapeSheet } from "./TapeSheet";

type Sheet = Schemas["TapeSheet"];

const sites = [
  { id: "waist", name: "Waist", kind: "girth", paired: false, level: "The narrowest place." },
  {
    id: "calf",
    name: "Calf",
    kind: "girth",
    paired: true,
    level: "The largest place.",
    level_from: "above the outer ankle bone",
  },
  { id: "elbow-breadth", name: "Elbows", kind: "breadth", paired: false, level: "Both sides added." },
] as unknown as Site[];

const folds = [
  { id: "triceps", name: "Triceps fold", level: "Back of the arm.", limb: true, bounds_mm: [2, 80] },
] as never;

const sheet = (change: Partial<Sheet> = {}): Sheet =>
  ({
    revision: 1,
    measured_by: "MT",
    entries: [{ site: "waist", readings_cm: [80, 82] }],
    folds: [],
    levels_cm: {},
    fold_values: [],
    earlier_folds: [],
    earlier_levels_cm: {},
    sites: [],
    asymmetries: [],
    warnings: [],
    problems: [],
    earlier: [],
    changes: [],
    ...change,
  }) as Sheet;

const open = (change?: Partial<Sheet>) =>
  show(
    <TapeSheet
      roundId="r"
      sites={sites}
      folds={folds}
      sheet={sheet(change)}
      refetch={async () => undefined}
    />,
  );
const field = (label: string) =>
  screen.getByLabelText<HTMLInputElement>(label.startsWith("Triceps") ? `${label}, mm` : `${label}, cm`);

beforeEach(() => {
  localStorage.clear();
  vi.spyOn(fetchClient, "PUT").mockImplementation((() => new Promise(() => {})) as never);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test("Enter goes through readings and sides in taping order and back with Shift", () => {
  open();
  const order = [
    "Waist, reading 1",
    "Waist, reading 2",
    "Calf left, reading 1",
    "Calf left, reading 2",
    "Calf right, reading 1",
    "Calf right, reading 2",
    "Triceps fold left, reading 1",
    "Triceps fold left, reading 2",
    "Triceps fold right, reading 1",
    "Triceps fold right, reading 2",
    "Elbows, reading 1",
  ];
  field(order[0] as string).focus();
  for (const label of order) {
    expect(document.activeElement).toBe(field(label));
    fireEvent.keyDown(field(label), { key: "Enter" });
  }
  fireEvent.keyDown(field("Calf left, reading 1"), { key: "Enter", shiftKey: true });
  expect(document.activeElement).toBe(field("Waist, reading 2"));
});

test("arrows move between rows", () => {
  open();
  field("Waist, reading 2").focus();
  fireEvent.keyDown(field("Waist, reading 2"), { key: "ArrowDown" });
  expect(document.activeElement).toBe(field("Calf left, reading 1"));
  fireEvent.keyDown(field("Calf left, reading 1"), { key: "ArrowUp" });
  expect(document.activeElement).toBe(field("Waist, reading 1"));
});

test("two readings too far apart open a third field and say so", () => {
  const value = { site: "waist", value_cm: 81, se_cm: 0.5, tem_pct: 1, readings: 2, carried_over: false };
  open({
    sites: [{ ...value, difference_pct: 2.5, needs_third: true }],
    warnings: [{ place: "", site: "waist", says: "the two readings differ by 2.5 %: take a third" }],
  });
  const row = within(screen.getByRole("group", { name: "Waist" }));
  expect(row.getByText("2.5 %")).toBeTruthy();
  expect(row.getByText("the two readings differ by 2.5 %: take a third.")).toBeTruthy();
  expect(field("Waist, reading 3")).toBeTruthy();
});

test("the change since last time stands beside its site and side, against what two measurements differ by", () => {
  const change = { site: "calf", side: "left", since: "2026-01-05", before_cm: 37.1, mdc95_cm: 0.8 } as const;
  open({
    changes: [
      { ...change, change_cm: 0.3, real: false },
      { ...change, side: "right", change_cm: 1.2, real: true },
    ],
    earlier_date: "2026-01-05",
  });
  const row = within(screen.getByRole("group", { name: "Calf" }));
  expect(row.getByTitle("Within what two measurements differ by (±0.8 cm)").textContent).toBe("L +0.3 ±0.8");
  expect(row.getByTitle(/^Changed by more than/).textContent).toBe("R +1.2 ±0.8");
});

test("before this round's reading is there, the one before stands beside the site", () => {
  open({ earlier: [{ site: "calf", side: "left", value_cm: 37.1 }], earlier_date: "2026-01-05" });
  expect(within(screen.getByRole("group", { name: "Calf" })).getByText("L 37.1")).toBeTruthy();
});

test("a text that is no number is named at its field, as typed", () => {
  open();
  fireEvent.change(field("Calf left, reading 1"), { target: { value: "3x" } });
  const row = within(screen.getByRole("group", { name: "Calf" }));
  expect(row.getByRole("alert").textContent).toContain("“3x” is not a number");
  expect(field("Calf left, reading 1").getAttribute("aria-invalid")).toBe("true");
});

test("the level of the tape is noted from its bony point and goes back to the readings", () => {
  open();
  fireEvent.focus(field("Calf left, reading 1"));
  fireEvent.keyDown(field("Calf left, reading 1"), { key: "F2" });
  const level = screen.getByLabelText<HTMLInputElement>(/^Calf: level of the tape/);
  expect(document.activeElement).toBe(level);
  fireEvent.change(level, { target: { value: "24.5" } });
  fireEvent.keyDown(level, { key: "Enter" });
  expect(document.activeElement).toBe(field("Calf left, reading 1"));
  const row = within(screen.getByRole("group", { name: "Calf" }));
  expect(row.getByTitle("24.5 cm above the outer ankle bone").textContent).toBe("level 24.5 cm");
});

test("a warning about a fold does not stand at the girth of the same name", () => {
  open({
    warnings: [{ place: "", site: "calf", fold: true, says: "the two readings differ by 9 %: take a third" }],
  });
  expect(within(screen.getByRole("group", { name: "Calf" })).queryByText(/take a third/)).toBeNull();
});
