import "fake-indexeddb/auto";
import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { fetchClient } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { MyPage } from "./MyPage";

const [ONE, OTHER] = ["a".repeat(64), "b".repeat(64)];

beforeEach(() => {
  localStorage.clear();
  window.location.hash = "";
});
afterEach(async () => {
  cleanup();
  await new Promise((settled) => setTimeout(settled, 50));
  vi.restoreAllMocks();
});

const shared = { date: null, priorities: [], areas: [], standings: [], sides: [], girths: [], photos: [] };

/** A studio that knows one link, and says of others that they were taken back. */
function studio(known: string[]) {
  const get = vi.fn(async (path: string, init: { headers: { Authorization: string } }) => {
    const token = init.headers.Authorization.replace("Bearer ", "");
    if (!known.includes(token))
      return {
        error: {
          status: 401,
          title: "",
          detail: "This link was taken back on 2 March: ask your coach for another.",
        },
        response: new Response(null, { status: 401 }),
      };
    const answers: Record<string, object> = {
      page: { client_name: "Ada", shared },
      photos: { poses: [], refusal: "No consent yet." },
      week: { client_name: "Ada", sessions: [], areas: [], today: "2026-03-02" },
    };
    return { data: answers[path.split("/").at(-1) ?? ""], response: new Response() };
  });
  vi.spyOn(fetchClient, "GET").mockImplementation(get as never);
  return get;
}

const tab = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

test("without a link the page says where one comes from", () => {
  const get = studio([]);
  show(<MyPage />);
  expect(screen.getByText("Open this page from the link your coach sent you.")).toBeTruthy();
  expect(get).not.toHaveBeenCalled();
});

test("a link put in by hand opens the page and is kept for the next time", async () => {
  const get = studio([ONE]);
  show(<MyPage />);
  const field = screen.getByLabelText("Or put the link in here, once");
  const open = () => screen.getByRole<HTMLButtonElement>("button", { name: "Open" });
  fireEvent.change(field, { target: { value: `https://studio.example/my#${ONE.slice(1)}` } });
  expect(open().disabled).toBe(true);
  expect(screen.getByRole("alert").textContent).toBe("That is not a whole link: copy all of it.");
  fireEvent.change(field, { target: { value: ` https://studio.example/my#${ONE} ` } });
  fireEvent.click(open());
  await waitFor(() => expect(get).toHaveBeenCalled());
  expect(localStorage.getItem("orthomer-link")).toBe(ONE);
});

test("a link opens week, pictures and what is shared", async () => {
  studio([ONE]);
  window.location.hash = ONE;
  show(<MyPage />);
  tab("Pictures");
  expect(await screen.findByText("No consent yet.")).toBeTruthy();
  tab("Shared");
  expect(await screen.findByText("Your coach shares nothing here yet.")).toBeTruthy();
});

test("a link that was taken back says so in the studio's words", async () => {
  studio([]);
  window.location.hash = ONE;
  show(<MyPage />);
  tab("Shared");
  expect(await screen.findByText(/^This link was taken back on 2 March/)).toBeTruthy();
});

test("another link that is opened meanwhile takes the place of the first", async () => {
  const get = studio([ONE, OTHER]);
  window.location.hash = ONE;
  show(<MyPage />);
  await waitFor(() => expect(get).toHaveBeenCalled());
  await act(async () => {
    window.location.hash = OTHER;
    window.dispatchEvent(new Event("hashchange"));
  });
  await waitFor(() =>
    expect(get.mock.calls.at(-1)?.[1]).toMatchObject({ headers: { Authorization: `Bearer ${OTHER}` } }),
  );
});
