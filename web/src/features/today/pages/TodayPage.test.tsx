import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { TodayPage } from "./TodayPage";

type Today = Schemas["TodayView"];

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const item = (name: string, kind: string, says: string) => ({
  client_id: name,
  client_name: name,
  kind,
  what: `${kind}:${name}`,
  says,
  on: "2026-03-02",
  place: `/train/${name}`,
});

const full = {
  today: "2026-03-04",
  items: [
    item("Ada", "refer", "Numbness during Dumbbell curl: see a doctor first."),
    item("Ben", "pain", "Pain 5 in the elbow."),
    item("Cleo", "round-due", "Six weeks since the last round."),
  ],
  total: 5,
  sessions: [
    { client_id: "Dan", client_name: "Dan", exercises: 6, minutes: 61.4, state: "begun" },
    { client_id: "Eve", client_name: "Eve", exercises: 1, minutes: 20, state: "finished" },
  ],
} as unknown as Today;

/** A studio whose queue loses what was seen to and gets back what is put back. */
function studio(data: Today, clients = 3) {
  const seen = new Set<string>();
  vi.spyOn(fetchClient, "GET").mockImplementation((async (path: string) => {
    if (path === "/api/v1/clients")
      return { data: { items: [], unreadable: [], total: clients }, response: new Response() };
    const items = data.items.filter(({ what }) => !seen.has(what));
    return { data: { ...data, items, total: data.total - seen.size }, response: new Response() };
  }) as never);
  const post = vi.fn(async (_path: string, { body }: { body: Schemas["SeeTo"] }) => {
    if (body.undo) seen.delete(body.what);
    else seen.add(body.what);
    return { data: undefined, response: new Response() };
  });
  vi.spyOn(fetchClient, "POST").mockImplementation(post as never);
  show(<TodayPage />);
  return { post };
}

const lines = () =>
  within(screen.getByRole("region", { name: "What needs you" }))
    .queryAllByRole("listitem")
    .map((line) => line.textContent ?? "");

test("what is most pressing stands first, with its kind in words and the way to it", async () => {
  studio(full);
  await screen.findByText("4 Mar 2026");
  expect(lines()[0]).toMatch(/^ReferAda Numbness during Dumbbell curl: see a doctor first. 2 Mar/);
  const links = screen.getAllByRole("link").map((link) => [link.textContent, link.getAttribute("href")]);
  expect(links).toContainEqual(["Swap it", "/train/Ben"]);
  expect(links).toContainEqual(["Review", "/train/Cleo"]);
  expect(screen.getByText("2 more once these are seen to.")).toBeTruthy();
});

test("what was seen to goes, says whose it was, and is put back", async () => {
  const { post } = studio(full);
  fireEvent.click(await screen.findByRole("button", { name: "Seen to: Ben" }));
  await waitFor(() => expect(lines()).toHaveLength(2));
  expect(screen.getByText("Ben: seen to.")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Put back" }));
  await waitFor(() => expect(lines()).toHaveLength(3));
  expect(screen.queryByText("Ben: seen to.")).toBeNull();
  expect(post.mock.calls.map(([, { body }]) => [body.what, body.undo])).toEqual([
    ["pain:Ben", false],
    ["pain:Ben", true],
  ]);
});

test("a sign for a doctor is put away with a sentence on what was done, and not without", async () => {
  const { post } = studio(full);
  fireEvent.click(await screen.findByRole("button", { name: "Seen to: Ada" }));
  const put = await screen.findByRole<HTMLButtonElement>("button", { name: "Put away" });
  expect(put.disabled).toBe(true);
  const note = screen.getByRole("textbox", { name: "What was done about it:" });
  fireEvent.change(note, { target: { value: " Called; sees a doctor on Friday. " } });
  fireEvent.click(put);
  await waitFor(() => expect(lines()).toHaveLength(2));
  expect(post.mock.calls.map(([, { body }]) => [body.what, body.note])).toEqual([
    ["refer:Ada", "Called; sees a doctor on Friday."],
  ]);
});

test("keys go down the queue and see to what is picked, no further than its ends", async () => {
  const { post } = studio(full);
  await screen.findByText("4 Mar 2026");
  for (const key of ["k", "j", "j", "j", "j", "k", "x"]) fireEvent.keyDown(document.body, { key });
  await waitFor(() => expect(post).toHaveBeenCalledTimes(1));
  expect(post.mock.calls[0]?.[1].body.what).toBe("pain:Ben");
});

test("who trains today is listed with how far they are", async () => {
  studio(full);
  const [dan, eve] = within(await screen.findByRole("complementary")).getAllByRole("listitem");
  expect(dan?.textContent).toMatch(/^Dan6 exercises · 61 min.*training$/);
  expect(eve?.textContent).toMatch(/^Eve1 exercise · 20 min.*done$/);
});

test("where there is no client yet, the first look stands in place of the queue", async () => {
  studio({ ...full, items: [], sessions: [], total: 0 }, 0);
  const firstLook = await screen.findByRole("region", { name: "First look" });
  expect(within(firstLook).getAllByRole("listitem")).toHaveLength(3);
  expect(screen.queryByRole("region", { name: "What needs you" })).toBeNull();
});

test("an empty day says so and leads on", async () => {
  studio({ ...full, items: [], total: 0, sessions: [] });
  expect(await screen.findByText("Nothing needs you now.")).toBeTruthy();
  expect(screen.getByRole("link", { name: "To the clients" }).getAttribute("href")).toBe("/clients");
  expect(screen.getByText("Nobody trains today.")).toBeTruthy();
});

test("a studio that cannot be reached is said, and asked again", async () => {
  const get = vi.spyOn(fetchClient, "GET").mockImplementation((async () => ({
    error: { status: 500, title: "Internal", detail: "Something went wrong at the studio." },
    response: new Response(null, { status: 500 }),
  })) as never);
  show(<TodayPage />);
  expect(await screen.findByText("Something went wrong at the studio.")).toBeTruthy();
  const before = get.mock.calls.length;
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  await waitFor(() => expect(get.mock.calls.length).toBeGreaterThan(before));
});
