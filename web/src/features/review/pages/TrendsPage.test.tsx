import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { TrendsPage } from "./TrendsPage";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const marks = (values: number[], bands?: number[]) => ({
  on: values.map((_, month) => `2026-0${month + 1}-05`),
  values,
  bands,
});
const none = marks([]);

const trends = {
  weights: marks([80, 81.26]),
  sites: [{ site: "calf", side: "left", marks: marks([36.2, 37.1], [0.4, 0.4]), moved: 0.9 }],
  regions: [
    { region: "calves.gastrocnemius", bulk: marks([-0.4, -0.2], [0.5, 0.5]), sides: none },
    { region: "biceps.long", bulk: marks([-1.6, -1.4], [0.4, 0.4]), sides: marks([-3.2, -2.1], [2, 2]) },
  ],
  lifts: [
    { exercise: "row", name: "Row", unit: "kg", side: null, marks: marks([60, 66.5]) },
    { exercise: "pushup", name: "Push-up", unit: "reps", side: null, marks: marks([12]) },
  ],
} as unknown as Schemas["TrendsView"];

async function page(data: unknown) {
  vi.spyOn(fetchClient, "GET").mockImplementation((async () => ({
    data,
    response: new Response(),
  })) as never);
  show(<TrendsPage />);
  await screen.findByRole("region", { name: "Trends" });
}

const part = (name: string) => fireEvent.click(screen.getByRole("radio", { name }));
/** Name and ends of each line, without what is written in its drawing. */
const lines = () =>
  screen.getAllByRole("listitem").map((line) =>
    [...line.children]
      .filter((child) => child.getAttribute("role") !== "slider")
      .map((child) => child.textContent)
      .join(""),
  );

test("sites run from first to last, weight first, and a move beyond noise is said", async () => {
  await page(trends);
  expect(lines()).toEqual(["Weight 80.0 → 81.3 kg", "Calf L moved +0.936.2 → 37.1 cm"]);
});

test("regions stand by how far they are from level, with their lean below where it was seen", async () => {
  await page(trends);
  part("Regions");
  expect(lines()).toEqual([
    "Biceps, long head  size−1.6 → −1.4 SD",
    "Biceps, long head  left and right−3.2 → −2.1 %",
    "Gastrocnemius  size−0.4 → −0.2 SD",
  ]);
});

test("lifts are counted in their own unit, and a first session has no arrow", async () => {
  await page(trends);
  part("Lifts");
  expect(lines()).toEqual(["Row 60.0 → 66.5 kg", "Push-up 12 reps"]);
});

test("the lines have a table twin with a column for every day", async () => {
  await page(trends);
  fireEvent.click(screen.getByRole("button", { name: "As a table" }));
  const [head, ...rows] = within(screen.getByRole("table")).getAllByRole("row");
  expect(head?.textContent).toBe("5 Jan 20265 Feb 2026");
  expect(rows.map((row) => row.textContent)).toEqual(["Weight 80.081.3", "Calf L moved +0.936.237.1"]);
  fireEvent.click(screen.getByRole("button", { name: "As lines" }));
  expect(screen.queryByRole("table")).toBeNull();
});

test("before the first round it says what fills it", async () => {
  await page({ weights: none, sites: [], regions: [], lifts: [] });
  expect(screen.getByText(/this fills with every round and every session/)).toBeTruthy();
});
