import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { namesOf } from "../../../shared/api/atlas";
import { fetchClient } from "../../../shared/api/client";
import { atlas, show } from "../../../test/render";
import { MovementBench } from "./MovementBench";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const answer = (data: unknown) => ({ data, response: new Response() });

const work = (region: string, share: number, fraction: number | undefined, agrees: boolean | null) => ({
  region,
  share,
  bites: "L",
  long_load: share / 2,
  dead_range: 0.25,
  activation: [share, share],
  length: [1.2, 0.8],
  catalogue: fraction === undefined ? null : { fraction, hardest: ["L"], stretch: 2 },
  agrees,
});

const levers = (change: object = {}) => ({
  exercise: "cable-curl",
  modelled: true,
  says: [],
  set_up: [
    { name: "bench_deg", says: "Bench, 0 flat, 90 upright", value: 45, low: -20, high: 90, default: true },
  ],
  regions: [work("biceps.long", 0.8, 1, true), work("delts.lateral", 0.6, 0.25, false)],
  torque_nm: {},
  figure: "<svg role='img'><title>Cable curl</title></svg>",
  ...change,
});

function bench(answers: (path: string, query: Record<string, unknown>) => unknown) {
  const get = vi.spyOn(fetchClient, "GET");
  get.mockImplementation((async (path: string, init: { params: { query: Record<string, unknown> } }) =>
    answers(path, init.params.query)) as never);
  show(<MovementBench exercise={{ id: "cable-curl", name: "Cable curl" }} names={namesOf(atlas)} />);
  return get;
}

test("the figure is drawn, each head has its line, and where the voices differ both are told", async () => {
  bench(() => answer(levers()));
  const part = within(await screen.findByRole("region", { name: "Movement" }));
  expect(part.getByTitle("Cable curl")).toBeTruthy();
  const [first, second] = part.getAllByRole("listitem");
  expect(first?.textContent).toContain("0.80");
  expect(first?.textContent).not.toContain("coaches");
  expect(second?.textContent).toContain("coaches: a little; mechanics: main");
});

test("what is not modelled says so and shows the figure alone", async () => {
  bench(() =>
    answer(levers({ modelled: false, says: ["Not modelled: no muscles of the neck."], regions: [] })),
  );
  const part = within(await screen.findByRole("region", { name: "Movement" }));
  expect(part.getByText("Not modelled: no muscles of the neck.")).toBeTruthy();
  expect(part.queryByText("Who works")).toBeNull();
});

test("the set-up found for a head is put, and the usual one comes back", async () => {
  const found = levers({
    set_up: [
      { name: "bench_deg", says: "Bench, 0 flat, 90 upright", value: 30, low: -20, high: 90, default: false },
    ],
  });
  const get = bench((path) => answer(path.endsWith("best-set-up") ? found : levers()));
  const part = within(await screen.findByRole("region", { name: "Movement" }));
  fireEvent.click(part.getByRole("button", { name: "loads it longest" }));
  await waitFor(() => expect(part.getByText("30°")).toBeTruthy());
  const asked = (get.mock.calls as unknown as [string, { params: { query: { region?: string } } }][]).map(
    ([, { params }]) => params.query.region,
  );
  expect(asked).toContain("biceps.long");
  await waitFor(() => expect(get.mock.calls.length).toBeGreaterThan(2));
  fireEvent.click(part.getByRole("button", { name: "Back to the usual set-up" }));
  await waitFor(() => expect(part.getByText("45°")).toBeTruthy());
});
