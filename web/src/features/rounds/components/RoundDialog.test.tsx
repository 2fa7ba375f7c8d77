import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { typeDay } from "../../../test/typeDay";
import { RoundDialog } from "./RoundDialog";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const answer = (error?: object) =>
  (async () => ({
    data: error ? undefined : {},
    error,
    response: new Response(null, { status: error ? 409 : 200 }),
  })) as never;

function dialog() {
  HTMLDialogElement.prototype.showModal ??= () => {};
  HTMLDialogElement.prototype.close ??= () => {};
  const closed = vi.fn();
  show(<RoundDialog clientId="c" roundId="r" date="2026-03-02" open onClose={closed} />);
  return closed;
}

const button = (name: string) => screen.getByText(name).closest("button") as HTMLButtonElement;

test("another day is saved, the same one is not", async () => {
  const put = vi.spyOn(fetchClient, "PUT").mockImplementation(answer());
  const closed = dialog();
  expect(button("Save the day").disabled).toBe(true);
  typeDay(screen.getByLabelText("Day"), "2026-02-20");
  fireEvent.click(button("Save the day"));
  await waitFor(() => expect(closed).toHaveBeenCalled());
  expect(put.mock.calls[0]?.[1]).toMatchObject({ body: { date: "2026-02-20" } });
});

test("a round is removed when that is pressed twice, and why it stays is said", async () => {
  const detail = "a week was given from this round, and what was trained hangs on it: the round stays";
  const remove = vi
    .spyOn(fetchClient, "DELETE")
    .mockImplementation(answer({ status: 409, title: "Conflict", detail }));
  dialog();
  fireEvent.click(button("Remove this round"));
  expect(remove).not.toHaveBeenCalled();
  fireEvent.click(button("Remove it with its sheets and pictures"));
  expect(await screen.findByText(detail)).toBeTruthy();
  expect(button("Remove this round")).toBeTruthy();
});
