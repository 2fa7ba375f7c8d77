import "fake-indexeddb/auto";
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../../test/render";
import { keepPicture, waitingCount } from "../../capture/waiting";
import { addEntry, keepWeek, keptWeek, localEntries } from "../../log/db";
import { ForgetLink } from "./ForgetLink";

const TOKEN = "f".repeat(64);
afterEach(cleanup);

test.each([
  ["with everything sent", "link a", 0, /your coach keeps what was sent/],
  ["with entries not sent yet", "link b", 2, /2 entries were not sent yet/],
] as const)(
  "%s the phone says what goes, and forgets link, week and log",
  async (_, source, unsent, says) => {
    localStorage.setItem("orthomer-link", TOKEN);
    await keepWeek(source, {} as never);
    for (let entry = 0; entry < unsent; entry++) await addEntry(source, { id: String(entry) } as never);
    const forgotten = vi.fn();
    show(<ForgetLink token={TOKEN} source={source} onForgotten={forgotten} />);
    fireEvent.click(screen.getByRole("button", { name: "Forget this link on this phone" }));
    expect(await screen.findByText(says)).toBeTruthy();
    expect(forgotten).not.toHaveBeenCalled();
    fireEvent.click(screen.getByText("Forget it"));
    await waitFor(() => expect(forgotten).toHaveBeenCalled());
    expect(localStorage.getItem("orthomer-link")).toBeNull();
    expect([await keptWeek(source), (await localEntries(source)).length]).toEqual([undefined, 0]);
  },
);

test("pictures that were not sent yet are told, and go with the link", async () => {
  await keepPicture(TOKEN, new File(["x"], "front.jpg"), { pose: "F", mirrored: false });
  show(<ForgetLink token={TOKEN} source="link c" onForgotten={() => {}} />);
  fireEvent.click(screen.getByRole("button", { name: "Forget this link on this phone" }));
  expect(await screen.findByText(/One picture was not sent yet/)).toBeTruthy();
  fireEvent.click(screen.getByText("Forget it"));
  await waitFor(async () => expect(await waitingCount(TOKEN)).toBe(0));
});
