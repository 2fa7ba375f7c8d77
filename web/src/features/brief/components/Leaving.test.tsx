import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { App } from "antd";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { Leaving } from "./Leaving";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const belongings = { name: "Ada", rounds: 3, pictures: 8, plans: 2, log_entries: 140, links: 1 };

/** A server on which whoever is signed in may do `acts`. */
function page(acts: string[], change: Partial<Schemas["ClientView"]> = {}) {
  const get = (async (path: string) => ({
    data: path.endsWith("/session") ? { standing: "signed-in", acts } : belongings,
    response: new Response(),
  })) as never;
  vi.spyOn(fetchClient, "GET").mockImplementation(get);
  const done = (async () => ({ data: {}, response: new Response() })) as never;
  const put = vi.spyOn(fetchClient, "PUT").mockImplementation(done);
  const erase = vi.spyOn(fetchClient, "DELETE").mockImplementation(done);
  const client = { id: "c", revision: 1, brief: { name: "Ada" }, rounds: [], ...change };
  show(
    <App>
      <Leaving client={client as unknown as Schemas["ClientView"]} />
    </App>,
  );
  return { put, erase };
}

test.each([
  ["nothing", ["measure"], []],
  ["putting away", ["put-away"], ["Put away"]],
  ["both", ["put-away", "erase"], ["Put away", "Erase…"]],
])("by their role somebody is offered %s", async (_, acts, offered) => {
  page(acts);
  await waitFor(() => {
    const names = screen.queryAllByRole("button").map((button) => button.textContent);
    expect(names).toEqual(offered);
  });
});

test.each([
  ["Put away", {}, true],
  ["Back into the lists", { put_away_on: "2026-03-02" }, false],
])("“%s” says so to the server", async (name, change, away) => {
  const { put } = page(["put-away"], change);
  fireEvent.click(screen.getByRole("button", { name }));
  await waitFor(() => expect(put.mock.calls[0]?.[1]).toMatchObject({ body: { away } }));
});

test("a client is erased once what goes was shown and the name was typed", async () => {
  HTMLDialogElement.prototype.showModal ??= () => {};
  HTMLDialogElement.prototype.close ??= () => {};
  const { erase } = page(["put-away", "erase"]);
  fireEvent.click(await screen.findByRole("button", { name: "Erase…" }));
  expect(
    await screen.findByText(/the brief, 3 rounds, 8 pictures, 2 weeks given, 140 log entries, 1 link\./),
  ).toBeTruthy();
  expect(screen.getByText(/Keep a copy first/)).toHaveProperty(
    "href",
    expect.stringContaining("/clients/c/archive"),
  );
  const now = () => screen.getByText("Erase for good").closest("button") as HTMLButtonElement;
  expect(now().disabled).toBe(true);
  fireEvent.change(screen.getByLabelText(/Type “Ada”/), { target: { value: "Ada" } });
  fireEvent.click(now());
  await waitFor(() =>
    expect(erase.mock.calls[0]?.[1]).toMatchObject({ params: { path: { client_id: "c" } } }),
  );
});
