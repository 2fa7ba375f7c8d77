import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import type { Week } from "../model";
import { KeepWeek } from "./KeepWeek";
import { Replaced } from "./Replaced";
import { TakeWeek } from "./TakeWeek";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const answer = (data: unknown, error?: unknown) =>
  (async () => ({ data, error, response: new Response() })) as never;

const week: Week = {
  minutes: 45,
  weeks: 6,
  bring_up: [],
  sessions: [{ day: 1, items: [{ exercise: "incline-curl", sets: 3 }] }],
};

const other = (client_id: string, client_name: string) => ({
  client_id,
  client_name,
  plan: `plan of ${client_id}`,
  starts_on: "2026-03-09",
  days: 2,
  minutes: 60,
});

const kept = { id: "k", name: "Two days", days: 2, minutes: 45, saved_by: "Mara", saved_on: "2026-03-02" };

async function opened(others: ReturnType<typeof other>[]) {
  vi.spyOn(fetchClient, "GET").mockImplementation(answer({ kept: [kept], others }));
  const taken = vi.fn();
  show(<TakeWeek roundId="r" clientId="me" onTaken={taken} />);
  fireEvent.click(screen.getByRole("button", { name: "Take a week…" }));
  const dialog = within(screen.getByRole("dialog"));
  await dialog.findByText("2 days, 45 min, Mara, 2 Mar 2026");
  return { dialog, taken };
}

test("a week comes from the practice or from another client, never from the client who is planned", async () => {
  const { dialog, taken } = await opened([other("me", "Ada"), other("you", "Bo")]);
  expect(dialog.queryByRole("button", { name: "Ada" })).toBeNull();
  const copied = { week, replaced: [] };
  const post = vi.spyOn(fetchClient, "POST").mockImplementation(answer(copied));
  fireEvent.click(dialog.getByRole("button", { name: "Bo" }));
  await waitFor(() => expect(taken).toHaveBeenCalledWith(copied));
  expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { from: { plan: "plan of you" } } });
  expect(screen.queryByRole("dialog")).toBeNull();
});

test("of many weeks one is found by its name", async () => {
  const many = Array.from({ length: 9 }, (_, index) => other(`c${index}`, `Client ${index}`));
  const { dialog } = await opened(many);
  fireEvent.change(dialog.getByLabelText("Find by name"), { target: { value: "client 7" } });
  expect(dialog.getAllByRole("listitem")).toHaveLength(1);
  expect(dialog.getByRole("button", { name: "Client 7" })).toBeTruthy();
});

test("a refused copy says why and leaves the board alone", async () => {
  const { dialog, taken } = await opened([]);
  const refused = { detail: "There is no saved week k.", status: 404 };
  vi.spyOn(fetchClient, "POST").mockImplementation(answer(undefined, refused));
  fireEvent.click(dialog.getByRole("button", { name: "Two days" }));
  expect(await dialog.findByText("There is no saved week k.")).toBeTruthy();
  expect(taken).not.toHaveBeenCalled();
});

test("a name that is taken is replaced only when asked for", async () => {
  const taken = { detail: "There is a week called Two days already.", status: 409 };
  const post = vi.spyOn(fetchClient, "POST").mockImplementation(answer(undefined, taken));
  show(<KeepWeek week={week} />);
  fireEvent.click(screen.getByRole("button", { name: "Keep this week…" }));
  const dialog = within(screen.getByRole("dialog"));
  expect(dialog.getByRole<HTMLButtonElement>("button", { name: "Keep" }).disabled).toBe(true);
  fireEvent.change(dialog.getByLabelText("Its name"), { target: { value: "Two days" } });
  fireEvent.click(dialog.getByRole("button", { name: "Keep" }));
  expect(await dialog.findByText(taken.detail)).toBeTruthy();
  post.mockImplementation(answer({}));
  fireEvent.click(dialog.getByRole("button", { name: "Replace it" }));
  expect(await screen.findByText("Kept as Two days.")).toBeTruthy();
  expect(
    post.mock.calls.map((call) => (call[1] as unknown as { body: Schemas["KeepWeek"] }).body.replace),
  ).toEqual([false, true]);
});

test("what could not stay is told with its reason, until it is seen", () => {
  const seen = vi.fn();
  show(
    <Replaced
      replaced={[
        {
          day: 1,
          name: "Lying extension",
          because: "loads the elbow, which hurts 3/10",
          instead: "Rope push-down",
        },
        { day: 4, name: "Leg press", because: "needs leg-press, which is not there" },
      ]}
      onSeen={seen}
    />,
  );
  const lines = screen.getAllByRole("listitem").map((line) => line.textContent);
  expect(lines[0]).toBe(
    "Monday: Lying extension loads the elbow, which hurts 3/10; Rope push-down stands in its place.",
  );
  expect(lines[1]).toContain("nothing sound can stand in its place, so it was left out.");
  fireEvent.click(screen.getByRole("button", { name: "Seen" }));
  expect(seen).toHaveBeenCalledOnce();
});
