import "fake-indexeddb/auto";
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { App } from "antd";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { addEntry, localEntries } from "../features/log/db";
import { fetchClient } from "../shared/api/client";
import { keepDraft } from "../shared/save/draft";
import { show } from "../test/render";
import { SignOut } from "./SignOut";

beforeEach(() => {
  localStorage.clear();
  HTMLDialogElement.prototype.showModal ??= () => {};
  HTMLDialogElement.prototype.close ??= () => {};
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function page() {
  vi.spyOn(window.location, "assign").mockImplementation(() => {});
  const answer = async () => ({ data: undefined, response: new Response(null, { status: 204 }) });
  const out = vi.spyOn(fetchClient, "DELETE").mockImplementation(answer as never);
  show(
    <App>
      <SignOut />
    </App>,
  );
  fireEvent.click(screen.getByRole("button", { name: "Sign out" }));
  return out;
}

test("with everything saved one press signs out", async () => {
  localStorage.setItem("orthomer-theme", "night");
  const out = page();
  await waitFor(() => expect(out).toHaveBeenCalledTimes(1));
  expect(localStorage.getItem("orthomer-theme")).toBe("night");
});

test("what is not saved is asked about, and goes with whoever leaves; a client's own log stays", async () => {
  keepDraft("tape r", { value: { typed: 1 } });
  await addEntry("client c", { id: "a" } as never);
  await addEntry("link 123", { id: "b" } as never);
  const out = page();
  expect(await screen.findByText(/2 things typed on this device are not saved yet/)).toBeTruthy();
  expect(out).not.toHaveBeenCalled();
  fireEvent.click(screen.getByText("Forget and sign out"));
  await waitFor(() => expect(out).toHaveBeenCalledTimes(1));
  expect(Object.keys(localStorage)).toEqual([]);
  expect([await localEntries("client c"), await localEntries("link 123")].map((all) => all.length)).toEqual([
    0, 1,
  ]);
});
