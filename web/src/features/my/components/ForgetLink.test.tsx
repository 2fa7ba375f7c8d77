import "fake-indexeddb/auto";
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../../test/render";
import { addEntry, keepWeek, keptWeek, localEntries } from "../../log/db";
import { ForgetLink } from "./ForgetLink";

afterEach(cleanup);

test.each([
  ["with everything sent", "link a", 0, /your coach keeps what was sent/],
  ["with entries not sent yet", "link b", 2, /2 entries were not sent yet/],
] as const)(
  "%s the phone says what goes, and forgets link, week and log",
  async (_, source, unsent, says) => {
    localStorage.setItem("orthomer-link", "f".repeat(64));
    await keepWeek(source, {} as never);
    for (let entry = 0; entry < unsent; entry++) await addEntry(source, { id: String(entry) } as never);
    const forgotten = vi.fn();
    show(<ForgetLink source={source} onForgotten={forgotten} />);
    fireEvent.click(screen.getByRole("button", { name: "Forget this link on this phone" }));
    expect(await screen.findByText(says)).toBeTruthy();
    expect(forgotten).not.toHaveBeenCalled();
    fireEvent.click(screen.getByText("Forget it"));
    await waitFor(() => expect(forgotten).toHaveBeenCalled());
    expect(localStorage.getItem("orthomer-link")).toBeNull();
    expect([await keptWeek(source), (await localEntries(source)).length]).toEqual([undefined, 0]);
  },
);
