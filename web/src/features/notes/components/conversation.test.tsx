import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../../test/render";
import type { Talk } from "../api";
import { Conversation } from "./Conversation";

afterEach(cleanup);

const message = (id: string, from_client: boolean, read_at?: string) => ({
  id,
  from_client,
  written_by: from_client ? "Ada" : "Mara",
  written_at: `2026-03-02T18:0${id}:00Z`,
  words: `words ${id}`,
  read_at,
});

function talk(messages: ReturnType<typeof message>[]) {
  const data = { messages, unread: 0 };
  return { data, error: undefined, write: vi.fn(), read: vi.fn() } satisfies Talk;
}

test("opening it marks what the other side wrote as seen, up to the newest", () => {
  const shown = talk([message("1", true), message("2", false), message("3", true)]);
  show(<Conversation talk={shown} own="coach" />);
  expect(shown.read.mock.calls).toEqual([["2026-03-02T18:03:00Z"]]);
});

test("what everybody has seen marks nothing, and one's own says that it was seen", () => {
  const shown = talk([
    message("1", true, "2026-03-02T19:00:00Z"),
    message("2", false, "2026-03-02T19:00:00Z"),
  ]);
  show(<Conversation talk={shown} own="coach" />);
  expect(shown.read).not.toHaveBeenCalled();
  expect(screen.getAllByText(/seen/)).toHaveLength(1);
});

test("words are sent without the space around them, and nothing is not", () => {
  const shown = talk([]);
  show(<Conversation talk={shown} own="client" />);
  const send = screen.getByRole<HTMLButtonElement>("button", { name: "Send" });
  expect(send.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText("To your coach"), { target: { value: "  Knee is fine.  " } });
  fireEvent.click(send);
  expect(shown.write.mock.calls[0]?.[0]).toBe("Knee is fine.");
});
