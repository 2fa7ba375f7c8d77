import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { Route, Routes } from "react-router";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { EyePage } from "./EyePage";
import { SittingPage } from "./SittingPage";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

type Sitting = Schemas["EyeSittingView"];
type Told = Schemas["EyeToldView"];

const look = (place: number, kind: "standing" | "left-right" = "left-right") => ({
  place,
  kind,
  site: "calf",
  pose: "F",
  frames: [{ side: "left" as const, x: 0.5, y: 0.7, width: 0.1, height: 0.2 }],
});

const told = (place: number, change: Partial<Told> = {}): Told => ({
  place,
  kind: "left-right",
  site: "calf",
  answer: 1,
  truth: 3.4,
  truth_steps: 1.7,
  ...change,
});

const sitting = (next: number | undefined, ...all: Told[]): Sitting => ({
  id: "s",
  pictures: 3,
  told: all,
  next: next === undefined ? undefined : look(next),
});

/** A sitting as it stands, and how it stands after each answer. */
async function seated(now: Sitting, after: { data?: Sitting; error?: object }) {
  const get = vi.spyOn(fetchClient, "GET");
  get.mockImplementation((async () => ({ data: now, response: new Response() })) as never);
  const post = vi.spyOn(fetchClient, "POST");
  post.mockImplementation((async () => ({ ...after, response: new Response() })) as never);
  show(<SittingPage />);
  await screen.findByRole("heading");
  return {
    sent: () => post.mock.calls.map((call) => (call as unknown as [string, { body: object }])[1].body),
  };
}

const key = (name: string) => fireEvent.keyDown(document.body, { key: name });

test("an answer is given by key, its truth is told beside the same picture, and Enter goes on", async () => {
  const { sent } = await seated(sitting(0), { data: sitting(1, told(0)) });
  key("7");
  expect(await screen.findByText("The left is 3.4 % larger.")).toBeTruthy();
  expect(screen.getByText("You said: left larger.")).toBeTruthy();
  expect(screen.getByText("Picture 1 of 3")).toBeTruthy();
  key("Enter");
  expect(await screen.findByText("Picture 2 of 3")).toBeTruthy();
  expect(sent()).toEqual([{ place: 0, value: 1 }]);
});

test("a second key before the truth is told answers nothing", async () => {
  const { sent } = await seated(sitting(0), { data: sitting(1, told(0)) });
  key("7");
  key("8");
  await screen.findByText("You said: left larger.");
  key("9");
  expect(sent()).toEqual([{ place: 0, value: 1 }]);
});

test.each([
  ["what is true of a figure that comes again", { truth: undefined, truth_steps: undefined }, /told later/],
  [
    "a mirrored figure as it was shown",
    { seen_at: 0, answer: -1 },
    /The right is 3\.4.*You said: left larger.*picture 1, mirrored.*right larger/,
  ],
  ["what could not be told", { answer: undefined }, /You could not tell/],
  ["a size behind", { kind: "standing", truth: -1.24 }, /1\.2 SD behind what the rest/],
  ["a size ahead", { kind: "standing", truth: 0.5 }, /0\.5 SD ahead of what the rest/],
] as const)("after an answer the coach reads %s", async (_, change, says) => {
  await seated(sitting(1, told(0)), { data: sitting(2, told(0), told(1, change as Partial<Told>)) });
  key("x");
  await screen.findByRole("button", { name: /Next picture/ });
  expect(document.querySelector("section")?.textContent).toMatch(says);
});

test("an answer that was not kept is said and can be given again", async () => {
  await seated(sitting(0), { error: { status: 507, title: "", detail: "The disk is full." } });
  key("7");
  expect((await screen.findByRole("alert")).textContent).toContain("The disk is full.");
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(screen.queryByRole("alert")).toBeNull();
  expect(screen.getByRole("button", { name: "left larger" })).toBeTruthy();
});

test("a sitting that is over shows each figure once with everything said of it", async () => {
  const over = sitting(
    undefined,
    told(0),
    told(1, { kind: "standing", truth: -1 }),
    told(2, { seen_at: 0, answer: 0 }),
  );
  await seated({ ...over, skill: { ...skill, right: 2, of: 3 } }, {});
  expect(screen.getByText("The direction was right in 2 of 3 differences of a step or more.")).toBeTruthy();
  const rows = screen.getAllByRole("row").map((row) => row.textContent);
  expect(rows).toEqual([
    "CalfThe left is 3.4\u00a0% larger. left larger, same",
    "Calf1.0 SD behind what the rest of this body predicts. ahead",
  ]);
});

const skill = {
  answers: 12,
  not_told: 0,
  bias_steps: 0.4,
  sd_steps: 0.6,
  right: 5,
  of: 6,
  sure_from_steps: 1.1,
};
const fresh: Schemas["EyePage"] = {
  pictures: 12,
  kinds: [
    { kind: "left-right", step: 2, parts: [] },
    { kind: "standing", step: 0.8, parts: [] },
  ],
  past: [],
  agreement: {
    against_truth: 0,
    repeats: 0,
    pooled_sd_steps: 0.88,
    narrows: 0.42,
    truths_needed: 30,
    beside_girths: 0,
  },
};

async function page(data: Schemas["EyePage"]) {
  vi.spyOn(fetchClient, "GET").mockImplementation((async () => ({
    data,
    response: new Response(),
  })) as never);
  vi.spyOn(fetchClient, "POST").mockImplementation((async () => ({
    data: sitting(0),
    response: new Response(),
  })) as never);
  show(
    <Routes>
      <Route path="/" element={<EyePage />} />
      <Route path="/eye/:id" element={<p>a sitting</p>} />
    </Routes>,
  );
  await screen.findByRole("heading", { name: "Eye" });
}

test("nothing known says so, and a sitting begins by key", async () => {
  await page(fresh);
  expect(screen.getByText("Nothing is known of your eye yet.")).toBeTruthy();
  expect(screen.getByRole("button", { name: /Begin a sitting/ })).toBeTruthy();
  key("n");
  expect(await screen.findByText("a sitting")).toBeTruthy();
});

test("an open sitting is gone on with where it was left", async () => {
  await page({ ...fresh, open: { id: "s", place: 1 } });
  fireEvent.click(screen.getByRole("button", { name: /Go on with picture 2 of 12/ }));
  await waitFor(() => expect(screen.getByText("a sitting")).toBeTruthy());
});

test("what is known of an eye stands in its units by part, in a sentence, and by sitting", async () => {
  const known = { kind: "left-right" as const, step: 2, skill, parts: [{ site: "calf", skill }] };
  const past = [{ id: "s", date: "2026-11-23", right: 5, of: 6 }];
  await page({ ...fresh, kinds: [known], past });
  expect(screen.getByRole("row", { name: /Calf/ }).textContent).toBe("Calf+0.8\u00a0%±1.2\u00a0%12");
  expect(document.body.textContent).toContain("Right in 5 of 6 differences of 2.0\u00a0% or more.");
  expect(document.body.textContent).toContain("you name a difference of 2.2\u00a0% rightly");
  expect(screen.getByRole("listitem").textContent).toContain("right in 5 of 6");
});
