import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { App } from "antd";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { atlas, show } from "../../../test/render";
import type { PracticeView, Settings } from "../model";
import { Deeds } from "./Deeds";
import { People } from "./People";
import { SettingsForm } from "./SettingsForm";

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const people = [
  { id: "m", name: "Mara", login: "mara", role: "owner" },
  { id: "j", name: "Jo", login: "jo", role: "assistant" },
] as Schemas["PersonView"][];

const acts = [
  { act: "measure", says: "open rounds, tape and test", roles: ["owner", "coach", "assistant"] },
  { act: "erase", says: "erase a client", roles: ["owner"] },
] as Schemas["ActView"][];

const answers = (data: unknown) => (async () => ({ data, response: new Response() })) as never;
const refuses = (error: object) =>
  (async () => ({ error, response: new Response(null, { status: 422 }) })) as never;

const list = (mayChange = true) =>
  show(
    <App>
      <People people={people} acts={acts} mayChange={mayChange} />
    </App>,
  );

test("who may not change people sees them with their role and nothing to press", () => {
  list(false);
  expect(screen.getByText("Jo").closest("div")?.textContent).toBe("Jo joAssistant");
  expect(screen.queryByRole("button")).toBeNull();
});

test("everyone changes their own password, by the one they have", async () => {
  const put = vi.spyOn(fetchClient, "PUT").mockImplementation(answers(people[1]));
  show(
    <App>
      <People
        people={people.map((person) => ({ ...person, you: person.id === "j" }))}
        acts={acts}
        mayChange={false}
      />
    </App>,
  );
  const names = screen.getAllByRole("button").map((button) => button.textContent);
  expect(names).toEqual(["New password", "Second factor…"]);
  fireEvent.click(screen.getByRole("button", { name: "New password" }));
  fireEvent.change(screen.getByLabelText("Old password"), { target: { value: "the one of before" } });
  fireEvent.change(screen.getByLabelText("New password: Jo"), { target: { value: "a long enough one" } });
  fireEvent.click(screen.getByRole("button", { name: "Set" }));
  await waitFor(() => expect(screen.queryByLabelText("Old password")).toBeNull());
  const body = { password: "a long enough one", old_password: "the one of before" };
  expect(put.mock.calls[0]?.[1]).toMatchObject({ body });
});

test("a person is removed only when that is pressed twice", async () => {
  const remove = vi.spyOn(fetchClient, "DELETE").mockImplementation(answers(undefined));
  list();
  fireEvent.click(screen.getByRole("button", { name: "Remove Jo…" }));
  expect(remove).not.toHaveBeenCalled();
  fireEvent.click(screen.getByRole("button", { name: "Leave it" }));
  expect(screen.queryByRole("button", { name: "Remove Jo" })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Remove Jo…" }));
  fireEvent.click(screen.getByRole("button", { name: "Remove Jo" }));
  await waitFor(() => expect(remove).toHaveBeenCalledTimes(1));
  expect(remove.mock.calls[0]?.[1]).toMatchObject({ params: { path: { account_id: "j" } } });
});

test("why somebody cannot be removed is said", async () => {
  const detail = "the practice needs an owner: make somebody else one first";
  vi.spyOn(fetchClient, "DELETE").mockImplementation(refuses({ status: 409, title: "Conflict", detail }));
  list();
  fireEvent.click(screen.getByRole("button", { name: "Remove Mara…" }));
  fireEvent.click(screen.getByRole("button", { name: "Remove Mara" }));
  expect(await screen.findByText(detail)).toBeTruthy();
});

test("a new password is typed for one person and leaves the page once it is set", async () => {
  const put = vi.spyOn(fetchClient, "PUT").mockImplementation(answers(people[1]));
  list();
  const jo = within(screen.getByText("Jo").closest("div") as HTMLElement);
  fireEvent.click(jo.getByRole("button", { name: "New password" }));
  fireEvent.change(jo.getByLabelText("New password: Jo"), { target: { value: "a long enough one" } });
  fireEvent.click(jo.getByRole("button", { name: "Set" }));
  await waitFor(() => expect(jo.queryByLabelText("New password: Jo")).toBeNull());
  expect(put.mock.calls[0]?.[1]).toMatchObject({ body: { password: "a long enough one" } });
});

test("what is wrong with a new person stands at its field", async () => {
  const errors = [{ pointer: "/password", says: "a password needs at least 10 characters" }];
  const post = vi
    .spyOn(fetchClient, "POST")
    .mockImplementation(refuses({ status: 422, title: "Invalid", detail: "1 problem", errors }));
  list();
  fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Ned" } });
  fireEvent.change(screen.getByLabelText("Password"), { target: { value: "short" } });
  fireEvent.click(screen.getByRole("button", { name: "Add a person" }));
  const says = await screen.findByText("a password needs at least 10 characters");
  expect(says.closest(".ant-form-item")?.textContent).toMatch(/^Password/);
  expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { name: "Ned", password: "short", role: "coach" } });
});

const view = (settings: Partial<Settings> = {}, revision = 1) =>
  ({
    revision,
    may_change: true,
    settings: { schools: {}, numbers: {}, composition: {}, exercises: [], ...settings },
    numbers: [
      {
        setting: {
          id: "verdict_probability",
          name: "Sure enough for a verdict",
          about: "verdict",
          unit: "of 1",
        },
        shipped: 0.7,
      },
      {
        setting: { id: "error.girth_pct", name: "Error of a girth", about: "error", unit: "%" },
        shipped: 0.8,
      },
    ],
    shipped_composition: { calf: { "calves.gastrocnemius": 0.7, "biceps.long": 0.3 } },
    shipped_schools: {},
  }) as unknown as PracticeView;

function settings(stored = view()) {
  const put = vi.fn(async (_: string, { body }: { body: { revision: number; settings: Settings } }) => ({
    data: view(body.settings, body.revision + 1),
    response: new Response(),
  }));
  vi.spyOn(fetchClient, "PUT").mockImplementation(put as never);
  const withSchools = { ...atlas, schools: [] } as unknown as typeof atlas;
  show(<SettingsForm atlas={withSchools} practice={stored} refetch={async () => stored} />);
  return put;
}

const sent = (put: ReturnType<typeof settings>) => put.mock.calls.at(-1)?.[1].body.settings;

test("a changed number is saved beside what ships, and an emptied field is what ships again", async () => {
  const put = settings();
  const field = screen.getByLabelText(/Sure enough for a verdict/);
  fireEvent.change(field, { target: { value: "0,8" } });
  expect(screen.getByText("of 1 · shipped 0.7")).toBeTruthy();
  fireEvent.blur(field);
  await waitFor(() => expect(sent(put)?.numbers).toEqual({ verdict_probability: 0.8 }));
  fireEvent.change(field, { target: { value: "" } });
  fireEvent.blur(field);
  await waitFor(() => expect(sent(put)?.numbers).toEqual({}));
});

test("what is no number stands at its field, and the rest is saved", async () => {
  const put = settings();
  fireEvent.change(screen.getByLabelText(/Error of a girth/), { target: { value: "little" } });
  fireEvent.change(screen.getByLabelText(/Sure enough/), { target: { value: "0.75" } });
  fireEvent.blur(screen.getByLabelText(/Sure enough/));
  await waitFor(() => expect(sent(put)?.numbers).toEqual({ verdict_probability: 0.75 }));
  expect(screen.getByRole("alert").textContent).toContain("little");
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("1 field not saved: see below"));
});

test("shares say what they add to while they are typed, and go as a whole row", async () => {
  const put = settings();
  const row = within(screen.getByRole("group", { name: "Calf", hidden: true }));
  expect(row.getByText("adds to 1.00")).toBeTruthy();
  const field = row.getByLabelText("Calf: Gastrocnemius");
  fireEvent.change(field, { target: { value: "0.9" } });
  expect(row.getByText("adds to 1.20")).toBeTruthy();
  fireEvent.blur(field);
  await waitFor(() =>
    expect(sent(put)?.composition).toEqual({ calf: { "calves.gastrocnemius": 0.9, "biceps.long": 0.3 } }),
  );
});

test("who may not change settings reads them", () => {
  settings({ ...view(), may_change: false });
  expect(screen.getByText("Only the owner changes settings and people.")).toBeTruthy();
  expect(screen.queryByRole("status")).toBeNull();
  expect(screen.getAllByRole("group")[0]?.hasAttribute("disabled")).toBe(true);
});

test("who may do what stands in one table", () => {
  list();
  const row = screen.getByRole("rowheader", { name: "erase a client" }).closest("tr") as HTMLElement;
  const cells = within(row).getAllByRole("cell");
  expect(cells.map((cell) => cell.textContent)).toEqual(["yes", "–", "–"]);
});

test("who did what is told by person, kind and client, the newest first", async () => {
  const deeds = [
    { at: "2026-03-02T14:05:00Z", name: "", act: "log", client_name: "Ada" },
    { at: "2026-03-02T13:00:00Z", name: "Jo", act: "measure" },
  ];
  const get = vi.spyOn(fetchClient, "GET").mockImplementation(answers(deeds));
  show(<Deeds />);
  const rows = await screen.findAllByRole("row", { hidden: true });
  expect(rows.map((row) => row.textContent)).toEqual([
    expect.stringMatching(/2 Mar 2026, \d\d:05client, by linkwrote in the logAda/),
    expect.stringMatching(/Jomeasured$/),
  ]);
  expect(screen.getByRole("button", { name: "Newer", hidden: true })).toHaveProperty("disabled", true);
  expect(get.mock.calls[0]?.[1]).toMatchObject({ params: { query: { skip: 0 } } });
});
