import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { today } from "../../../shared/format";
import { show } from "../../../test/render";
import { ClientsPage } from "./ClientsPage";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const client = (name: string) =>
  ({
    id: name,
    name,
    age_years: 30,
    look: "taper",
    days_per_week: 3,
    tags: [],
    due: false,
  }) as unknown as Schemas["ClientSummary"];

interface Query {
  find?: string;
  page: number;
  per_page: number;
}

/** A practice of so many, found by part of the name. */
function practice(names: string[], total = names.length, unreadable: object[] = []) {
  const get = vi.fn(async (_: string, { params }: { params: { query: Query } }) => {
    const find = params.query.find?.toLowerCase() ?? "";
    const items = names.filter((name) => name.toLowerCase().includes(find)).map(client);
    const { page, per_page } = params.query;
    const data = {
      items,
      tags: ["online"],
      parts: [{ area: "calf", name: "Calves" }],
      unreadable,
      total: find ? items.length : total,
      page,
      per_page,
    };
    return { data, response: new Response() };
  });
  vi.spyOn(fetchClient, "GET").mockImplementation(get as never);
  show(<ClientsPage />);
  return (place = -1) => get.mock.calls.at(place)?.[1].params.query;
}

const listed = () => screen.queryAllByRole("rowheader").map((cell) => cell.querySelector("a")?.textContent);
const picked = () =>
  [...document.querySelectorAll("tr[data-picked]")].map((row) => row.querySelector("a")?.textContent);
const find = (text: string) =>
  fireEvent.change(screen.getByLabelText("Find a client or a note"), { target: { value: text } });

test("everyone is listed with how many there are", async () => {
  practice(["Ada", "Ben", "Cleo"]);
  await waitFor(() => expect(listed()).toEqual(["Ada", "Ben", "Cleo"]));
  expect(screen.getByText("3 clients")).toBeTruthy();
});

test("whoever cannot be read is named below those who can", async () => {
  practice(["Ada"], 2, [{ id: "b", name: "Ben", says: "What is stored here cannot be read." }]);
  await waitFor(() => expect(listed()).toEqual(["Ada"]));
  expect(screen.getByRole("alert").textContent).toBe("Ben What is stored here cannot be read.");
});

test("part of a name finds its clients, without the spaces typed around it", async () => {
  const asked = practice(["Ada", "Ben", "Adele"]);
  await waitFor(() => expect(listed()).toHaveLength(3));
  find(" ad ");
  await waitFor(() => expect(listed()).toEqual(["Ada", "Adele"]));
  expect(asked()).toEqual({ find: "ad", page: 1, per_page: 25 });
});

test("the list is narrowed by what stands in its address", async () => {
  const asked = practice(["Ada", "Ben"]);
  await waitFor(() => expect(listed()).toHaveLength(2));
  fireEvent.click(screen.getByRole("checkbox", { name: "Round due" }));
  await waitFor(() => expect(asked()).toEqual({ due: true, page: 1, per_page: 25 }));
});

test("a day is agreed on with those who are chosen", async () => {
  practice(["Ada", "Ben", "Cleo"]);
  await waitFor(() => expect(listed()).toHaveLength(3));
  const post = vi.spyOn(fetchClient, "POST").mockResolvedValue({ response: new Response() } as never);
  for (const name of ["Ada", "Cleo", "Ben"])
    fireEvent.click(screen.getByRole("checkbox", { name: `Choose ${name}` }));
  fireEvent.click(screen.getByRole("checkbox", { name: "Choose Ben" }));
  expect(await screen.findByText("2 chosen")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Put them there" }));
  await waitFor(() => expect(screen.queryByText("2 chosen")).toBeNull());
  expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { client_ids: ["Ada", "Cleo"], on: today() } });
});

test("a name nobody has and a practice nobody came to are told apart", async () => {
  practice([]);
  expect(await screen.findByText(/^No clients yet/)).toBeTruthy();
  find("xyz");
  expect(await screen.findByText("No client's name contains “xyz”.")).toBeTruthy();
});

test("keys go down the list and stop at its ends; what is found begins anew", async () => {
  practice(["Ada", "Ben", "Cleo"]);
  await waitFor(() => expect(listed()).toHaveLength(3));
  for (const key of ["j", "j", "j", "j"]) fireEvent.keyDown(document.body, { key });
  expect(picked()).toEqual(["Cleo"]);
  fireEvent.keyDown(document.body, { key: "k" });
  expect(picked()).toEqual(["Ben"]);
  find("a");
  await waitFor(() => expect(listed()).toEqual(["Ada"]));
  expect(picked()).toEqual([]);
});

test("a large practice comes page by page, and a search begins at the first", async () => {
  const asked = practice(["Ada", "Ben"], 60);
  await waitFor(() => expect(listed()).toHaveLength(2));
  fireEvent.click(screen.getByTitle("2"));
  await waitFor(() => expect(asked()).toMatchObject({ page: 2 }));
  find("b");
  await waitFor(() => expect(asked()).toMatchObject({ find: "b", page: 1 }));
});
