import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { App } from "antd";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { RepeatsPage } from "./RepeatsPage";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const due = (region: string, kind: "standing" | "left-right" = "standing") => ({
  round_id: "r",
  region,
  pose: "F",
  kind,
  mirrored: kind === "left-right",
  photo: { id: "p", state: "seen", measured: null, moved: { landmarks: {}, strokes: [] } },
});

const view = (all: object[], change: object = {}) =>
  ({
    rest_days: 3,
    agreement: {
      repeats: 0,
      against_truth: 0,
      truths_needed: 30,
      beside_girths: 0,
      pooled_sd_steps: 0.62,
      narrows: 0.55,
      within_sd_steps: null,
      kappa: null,
      ...change,
    },
    due: all,
  }) as unknown as Schemas["RepeatsView"];

async function page(
  data: Schemas["RepeatsView"],
  answer: object = { data: undefined, response: new Response() },
) {
  vi.spyOn(fetchClient, "GET").mockImplementation((async () => ({
    data,
    response: new Response(),
  })) as never);
  const posted = vi.fn(async () => answer);
  for (const method of ["POST", "PUT"] as const)
    vi.spyOn(fetchClient, method).mockImplementation(posted as never);
  show(
    <App>
      <RepeatsPage />
    </App>,
  );
  await screen.findByRole("link");
  const sent = () => posted.mock.calls.map((call) => (call as unknown as [string, { body: object }])[1].body);
  return { posted, sent };
}

const key = (name: string) => fireEvent.keyDown(document.body, { key: name });

test("a rating is asked again without its answer, and the next one follows", async () => {
  const { sent } = await page(view([due("biceps.long"), due("calves.gastrocnemius")]));
  expect(screen.getByRole("heading", { name: "Biceps, long head" })).toBeTruthy();
  expect(screen.queryByRole("radio", { checked: true })).toBeNull();
  key("1");
  await screen.findByRole("heading", { name: "Gastrocnemius" });
  expect(sent()).toEqual([
    { round_id: "r", region: "biceps.long", pose: "F", kind: "standing", mirrored: false, value: -2 },
  ]);
});

test("sides have keys of their own, and what cannot be told is an answer too", async () => {
  const { sent } = await page(view([due("biceps.long", "left-right"), due("calves.gastrocnemius")]));
  key("1");
  expect(sent(), "that key judges size").toEqual([]);
  key("6");
  await screen.findByRole("heading", { name: "Gastrocnemius" });
  key("x");
  await waitFor(() => expect(sent()).toHaveLength(2));
  expect(sent()).toMatchObject([
    { kind: "left-right", mirrored: true, value: 2 },
    { kind: "standing", value: null },
  ]);
});

test("an answer that was not kept is said, and asked again", async () => {
  await page(view([due("biceps.long"), due("calves.gastrocnemius")]), {
    error: { status: 500, title: "", detail: "The disk is full." },
    response: new Response(null, { status: 500 }),
  });
  key("3");
  expect(await screen.findByText("The disk is full.")).toBeTruthy();
  expect(screen.getByRole("heading", { name: "Biceps, long head" })).toBeTruthy();
});

test.each([
  ["nothing was repeated yet", {}, /0\.62 steps off the truth: alone it takes 55.%.*until 30 answers.*0 now/],
  ["the truth of enough answers is known", { against_truth: 41 }, /Learned from 41 answers/],
  ["girths stood beside", { beside_girths: 7 }, /7 girths beside your ratings count as well/],
  ["enough was", { repeats: 12, within_sd_steps: 0.41, kappa: 0.73 }, /0\.41.*0\.73/],
] as const)("when %s, what the eye is worth is told with its number", async (_, change, says) => {
  await page(view([], change));
  expect(document.body.textContent).toMatch(says);
});
