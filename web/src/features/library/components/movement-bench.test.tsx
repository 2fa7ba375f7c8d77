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

test("another set-up stands beside it: its figure, each head's other number, what the joints hold, and the two change places", async () => {
  const usual = levers({ torque_nm: { elbow_flexion_r: [10, 25] } });
  const flat = levers({
    set_up: [
      { name: "bench_deg", says: "Bench, 0 flat, 90 upright", value: 0, low: -20, high: 90, default: false },
    ],
    regions: [work("biceps.long", 0.5, 1, true)],
    torque_nm: { elbow_flexion_r: [5, 12] },
  });
  bench((_, query) => answer(query.set === "bench_deg:0" ? flat : usual));
  const part = within(await screen.findByRole("region", { name: "Movement" }));
  fireEvent.click(part.getByRole("button", { name: "Compare with this one" }));
  const slider = part.getByRole("slider", { name: "Bench, 0 flat, 90 upright" });
  for (let step = 0; step < 9; step++)
    fireEvent.keyDown(slider, { key: "ArrowLeft", keyCode: 37, which: 37 });
  await waitFor(() => expect(part.getAllByText("12 Nm at most", { exact: false }).length).toBeGreaterThan(0));
  expect(part.getByText("on the right 25 Nm")).toBeTruthy();
  expect(part.getByText(/On the right, in green: Bench 45°/)).toBeTruthy();
  expect(part.getAllByRole("listitem")[0]?.textContent).toContain("0.50 0.80");
  fireEvent.click(part.getByRole("button", { name: "Change the two" }));
  await waitFor(() => expect(part.getAllByText("25 Nm at most", { exact: false }).length).toBeGreaterThan(0));
  fireEvent.click(part.getByRole("button", { name: "No comparing" }));
  expect(part.queryByText(/On the right, in green/)).toBeNull();
});

test("opened from a client's card, the set-up is kept for them", async () => {
  const kept = {
    exercise: "cable-curl",
    fields: [{ name: "bench_deg" }],
    variants: [],
    kept: { numbers: {} },
  };
  const get = vi.spyOn(fetchClient, "GET");
  get.mockImplementation((async (path: string) => {
    if (path.endsWith("/levers")) return answer(levers());
    if (path.endsWith("/session")) return answer({ acts: ["log"] });
    return answer(path.endsWith("{exercise}") ? kept : { brief: { name: "Oda Fenwick" } });
  }) as never);
  const patch = vi.spyOn(fetchClient, "PATCH");
  patch.mockImplementation((async () => answer({ ...kept, kept: { numbers: { bench_deg: 45 } } })) as never);
  show(
    <MovementBench exercise={{ id: "cable-curl", name: "Cable curl" }} names={namesOf(atlas)} />,
    "/library?exercise=cable-curl&client=c1",
  );
  fireEvent.click(await screen.findByRole("button", { name: "Keep it for Oda Fenwick" }));
  await screen.findByText("Kept: their cards and their phone have it.");
  expect(patch.mock.calls[0]?.[1]).toMatchObject({
    params: { path: { client_id: "c1", exercise: "cable-curl" } },
    body: { numbers: { bench_deg: 45 } },
  });
});

test("a link to a client who is gone says so instead of showing nothing", async () => {
  const says = "There is no such client.";
  bench(() => ({ error: { status: 404, detail: says }, response: new Response(null, { status: 404 }) }));
  expect(screen.queryByText(says)).toBeNull();
  cleanup();
  show(
    <MovementBench exercise={{ id: "cable-curl", name: "Cable curl" }} names={namesOf(atlas)} />,
    "/?client=gone",
  );
  expect(await screen.findByText(says)).toBeTruthy();
});
