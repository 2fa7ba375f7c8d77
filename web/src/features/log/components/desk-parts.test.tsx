import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { METRIC, quantitiesIn, today } from "../../../shared/format";
import { show } from "../../../test/render";
import type { EntryView, Item, Week } from "../model";
import { DoneSessions } from "./DoneSessions";
import { Links } from "./Links";
import { Targets, targetText } from "./Targets";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const { mass: kg } = quantitiesIn(METRIC);
const answer = (data: unknown) => ({ data, response: new Response() });
const refusal = (detail: string) => ({
  error: { status: 422, title: "Invalid", detail },
  response: new Response(null, { status: 422 }),
});

const item = (exercise: string, target: object, more: object = {}) =>
  ({
    item: { exercise, name: exercise, ...more },
    target: { kind: "hold", why: "Again.", ...target },
  }) as Item;

test.each([
  ["the same count in every set", { load_kg: 12, counts: [10, 10, 10] }, {}, "12 kg · 3 × 10"],
  ["each set its own", { load_kg: 12.5, counts: [10, 9] }, {}, "12.5 kg · 10, 9"],
  ["nothing held", { counts: [12, 12] }, {}, "2 × 12"],
  ["time instead of repetitions", { counts: [30, 30] }, { seconds: [20, 40] }, "2 × 30 s"],
] as const)("a target says %s", (_, target, more, says) => {
  expect(targetText(kg, item("curl", target, more))).toBe(says);
});

const week = {
  sessions: [
    { items: [item("Curl", { load_kg: 12, counts: [10, 9], step: "2 kg" }), item("Row", { counts: [8] })] },
    { items: [item("Curl", { load_kg: 12, counts: [10, 9], step: "2 kg" })] },
    { items: [item("Press", { kind: "overruled", load_kg: 20, counts: [6], why: "Shoulder." })] },
  ],
} as unknown as Week;

function targets(put: () => Promise<unknown>) {
  const sent = vi.spyOn(fetchClient, "PUT").mockImplementation(put as never);
  show(<Targets clientId="c" week={week} />);
  return sent;
}

test("each exercise of the week stands once, with what is done next and why", () => {
  targets(async () => answer({}));
  const rows = screen.getAllByRole("row").map((row) => row.textContent);
  expect(rows).toHaveLength(3);
  expect(rows[0]).toBe("Curl12 kg · 10, 9Go up by 2 kg. Again.  Say otherwise");
});

test("the coach's own word needs a number and a reason, and goes with both", async () => {
  const put = targets(async () => answer({}));
  fireEvent.click(screen.getAllByRole("button", { name: "Say otherwise" })[0] as HTMLElement);
  const dialog = within(await screen.findByRole("dialog"));
  const save = () => dialog.getByRole<HTMLButtonElement>("button", { name: "Save" });
  expect(save().disabled, "no reason yet").toBe(true);
  fireEvent.change(dialog.getByLabelText("Why (the client reads it)"), { target: { value: " Slower. " } });
  fireEvent.change(dialog.getByLabelText("Load, kg"), { target: { value: "ten" } });
  expect(save().disabled, "no number").toBe(true);
  fireEvent.change(dialog.getByLabelText("Load, kg"), { target: { value: "10,5" } });
  fireEvent.click(save());
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  expect(put.mock.calls[0]?.[1]).toMatchObject({
    params: { path: { client_id: "c", exercise: "Curl" } },
    body: { overrule: { load_kg: 10.5, count: 10, note: "Slower." } },
  });
});

test("what is not taken is told where it was typed, and what was typed stays", async () => {
  targets(async () => refusal("a load of 900 kg is out of range"));
  fireEvent.click(screen.getAllByRole("button", { name: "Say otherwise" })[0] as HTMLElement);
  const dialog = within(await screen.findByRole("dialog"));
  fireEvent.change(dialog.getByLabelText("Load, kg"), { target: { value: "900" } });
  fireEvent.change(dialog.getByLabelText("Why (the client reads it)"), { target: { value: "Strong." } });
  fireEvent.click(dialog.getByRole("button", { name: "Save" }));
  expect(await dialog.findByText("a load of 900 kg is out of range")).toBeTruthy();
  expect(dialog.getByLabelText<HTMLInputElement>("Load, kg").value).toBe("900");
});

test("what the coach said is taken back to the rules", async () => {
  const put = targets(async () => answer({}));
  fireEvent.click(screen.getByRole("button", { name: "Back to the rules" }));
  await waitFor(() => expect(put).toHaveBeenCalledTimes(1));
  expect(put.mock.calls[0]?.[1]).toMatchObject({ params: { path: { exercise: "Press" } }, body: {} });
});

const entry = (exercise: string, more: object = {}, by = "Ada") =>
  ({
    entry: { id: `${exercise} ${by}`, part: { kind: "exercise", exercise, sets: [], ...more } },
    written_by: by,
  }) as unknown as EntryView;

const session = (change: object = {}) =>
  ({
    version: 1,
    week: 2,
    day: 4,
    on: "2026-03-12",
    finished: true,
    conflicts: 0,
    exercises: [],
    ...change,
  }) as unknown as Schemas["DoneSession"];

const rows = () => screen.getAllByRole("row").map((row) => row.textContent);

test.each([
  ["nothing more", {}, "12 Mar 2026Week 2, Thursday"],
  ["how the client was", { sleep: 4, soreness: 2 }, "12 Mar 2026Week 2, Thursdayslept 4 of 5 · sore 2 of 5"],
  ["that it is open", { finished: false }, "12 Mar 2026Week 2, Thursdaynot finished"],
  ["what stands twice", { conflicts: 1 }, "12 Mar 2026Week 2, Thursday1 exercise logged twice"],
] as const)("a session's head says %s", (_, change, says) => {
  show(<DoneSessions clientId="c" sessions={[session(change)]} count={1} />);
  expect(screen.getByRole("banner", { hidden: true }).textContent).toBe(`${says}Put right`);
});

test("what was done stands by side, with what was swapped, hurt and felt", () => {
  const sets = [
    { number: 1, side: "left", load_kg: 12, reps: 10 },
    { number: 1, side: "right", load_kg: 12, reps: 9 },
  ];
  const pain = { area: "low-back", level: 3 };
  const swapped = entry("incline-curl", {
    instead: "db-curl",
    sets,
    pain,
    felt: "biceps.long",
    note: "Fine.",
  });
  show(<DoneSessions clientId="c" sessions={[session({ exercises: [swapped] })]} count={1} />);
  const [row] = rows();
  expect(row).toMatch(/^db-curl instead of Incline dumbbell curl/);
  expect(row).toContain("pain 3, low back");
  expect(row).toContain("felt in Biceps, long head");
  expect(row).toContain("“Fine.”");
});

test("two versions of an exercise say whose they are, one does not", () => {
  const both = [entry("incline-curl", {}, "Ada"), entry("incline-curl", {}, "Mara"), entry("row", {}, "Ada")];
  show(<DoneSessions clientId="c" sessions={[session({ exercises: both })]} count={1} />);
  expect(rows().map((row) => / (Ada|Mara)$/.exec(row ?? "")?.[1])).toEqual(["Ada", "Mara", undefined]);
});

test("older sessions are shown when they are asked for", () => {
  const onAll = vi.fn();
  show(<DoneSessions clientId="c" sessions={[session()]} count={12} onAll={onAll} />);
  fireEvent.click(screen.getByRole("button", { name: "Show all 12 sessions" }));
  expect(onAll).toHaveBeenCalledTimes(1);
  cleanup();
  show(<DoneSessions clientId="c" sessions={[]} count={0} />);
  expect(screen.getByText("Nothing was logged under this client's plans yet.")).toBeTruthy();
});

async function puttingRight(outcome: object) {
  const sent = vi
    .spyOn(fetchClient, "POST")
    .mockImplementation((async () => answer({ outcomes: [outcome], clock_ahead_s: 0 })) as never);
  const done = entry("row", { sets: [{ number: 1, load_kg: 12.5, reps: 10 }] });
  show(<DoneSessions clientId="c" sessions={[session({ exercises: [done], whole: [] })]} count={1} />);
  fireEvent.click(screen.getByRole("button", { name: "Put right" }));
  const dialog = within(await screen.findByRole("dialog"));
  const save = dialog.getByRole<HTMLButtonElement>("button", { name: "Save" });
  expect(save.disabled, "nothing is changed yet").toBe(true);
  fireEvent.change(dialog.getByLabelText(/set 1: Load, kg$/), { target: { value: "21,5" } });
  fireEvent.click(save);
  return { sent, dialog };
}

test("a number of an older day is put right by a version that follows it", async () => {
  const { sent } = await puttingRight({ id: "new", fate: "kept" });
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  expect(sent.mock.calls[0]?.[1]).toMatchObject({
    params: { path: { client_id: "c" } },
    body: { entries: [{ part: { exercise: "row", sets: [{ number: 1, load_kg: 21.5, reps: 10 }] } }] },
  });
});

test("what the studio does not take of it is told, and what was typed stays", async () => {
  const { dialog } = await puttingRight({
    id: "new",
    fate: "refused",
    says: "a load of 900 kg is out of range",
  });
  expect(await dialog.findByText("row: a load of 900 kg is out of range.")).toBeTruthy();
  expect(dialog.getByLabelText<HTMLInputElement>(/set 1: Load, kg$/).value).toBe("21,5");
});

const link = (id: string, change: object = {}) =>
  ({ id, made_on: "2026-01-05", expires_on: "2999-01-05", ...change }) as unknown as Schemas["LinkView"];

function links(all: Schemas["LinkView"][]) {
  const session = { standing: "signed-in", acts: ["link"] };
  const get = async (path: string) => answer(path.endsWith("/session") ? session : all);
  vi.spyOn(fetchClient, "GET").mockImplementation(get as never);
  show(<Links clientId="c" />);
}

test("a link says how it stands, and only one that opens can be taken back", async () => {
  const remove = vi.spyOn(fetchClient, "DELETE").mockImplementation((async () => answer(undefined)) as never);
  links([
    link("open", { used_on: "2026-02-01" }),
    link("over", { expires_on: "2026-01-20" }),
    link("back", { revoked_on: "2026-01-10" }),
  ]);
  const lines = (await screen.findAllByRole("listitem")).map((line) => line.textContent);
  expect(lines).toEqual([
    "opens until 5 Jan 2999 used 1 Feb 2026Take back",
    "over since 20 Jan 2026 never used",
    "taken back 10 Jan 2026 never used",
  ]);
  fireEvent.click(screen.getByRole("button", { name: "Take back" }));
  await waitFor(() => expect(remove).toHaveBeenCalledTimes(1));
  expect(remove.mock.calls[0]?.[1]).toMatchObject({ params: { path: { client_id: "c", link_id: "open" } } });
});

test("a link that ends today still opens today", async () => {
  links([link("last", { expires_on: today() })]);
  expect(await screen.findByRole("button", { name: "Take back" })).toBeTruthy();
});

test("a new link is shown once, as the address the client opens", async () => {
  const token = "a".repeat(64);
  vi.spyOn(fetchClient, "POST").mockImplementation((async () =>
    answer({ token, link: link("new") })) as never);
  links([]);
  expect(await screen.findByText(/This client has no link/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Make a link for 90 days" }));
  const address = await screen.findByRole<HTMLInputElement>("textbox", { name: "Private link" });
  expect(address.value).toBe(`${window.location.origin}/my#${token}`);
});
