import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { fetchClient } from "../../../shared/api/client";
import type { FeedMessage } from "../../../shared/devices";
import { show } from "../../../test/render";
import { StandInPage } from "./StandInPage";

/** The server's line of events, spoken by the test. */
class Feed {
  static line?: Feed;
  onopen?: () => void;
  onerror?: () => void;
  onmessage?: (event: { data: string }) => void;
  closed = false;
  constructor(public path: string) {
    Feed.line = this;
  }
  close() {
    this.closed = true;
  }
  says(message: object) {
    act(() => this.onmessage?.({ data: JSON.stringify(message) }));
  }
}

beforeEach(() => {
  vi.stubGlobal("EventSource", Feed);
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const asked = (change: object) =>
  ({ kind: "asked", device: "tape", label: "Calf, left", expected: 37.26, ...change }) as FeedMessage;

function devices(answer: object = { data: { value: 37.4 }, response: new Response() }) {
  const post = vi.spyOn(fetchClient, "POST").mockImplementation((async () => answer) as never);
  show(<StandInPage />);
  act(() => Feed.line?.onopen?.());
  return post;
}

const device = (name: string) => within(screen.getByRole("region", { name }));

test("whether a sheet waits is said, and for which place", () => {
  devices();
  const says = () => screen.getAllByRole("status").map((one) => one.textContent);
  expect(says()[0]).toMatch(/^No sheet waits/);
  Feed.line?.says(asked({}));
  expect(says()[0]).toBe("The sheet waits for: Calf, left.");
});

test("a lost line is said", () => {
  devices();
  act(() => Feed.line?.onerror?.());
  expect(screen.getAllByRole("status")[0]?.textContent).toBe("no line to the server");
});

test("a device that is held to nothing reads nothing", () => {
  devices();
  expect(device("Tape").getByRole<HTMLButtonElement>("button", { name: "Read" }).disabled).toBe(true);
});

test("the device that is asked is held to what the sheet expects, and reads it with its own bias and noise", async () => {
  const post = devices();
  Feed.line?.says(asked({}));
  fireEvent.change(device("Tape").getByLabelText("Tape: Bias"), { target: { value: "0.5" } });
  fireEvent.click(device("Tape").getByRole("button", { name: "Read" }));
  await waitFor(() => expect(device("Tape").getByText(/^37\.4/)).toBeTruthy());
  expect(post.mock.calls[0]?.[1]).toEqual({
    body: { device: "tape", truth: 37.3, bias: 0.5, noise_sd: 0.2 },
  });
  expect(device("Calipers").getByText(/^–/), "the others show nothing").toBeTruthy();
});

test("what cannot be read is said at its device", async () => {
  devices({
    error: { status: 422, title: "", detail: "a girth of 900 cm is out of range" },
    response: new Response(null, { status: 422 }),
  });
  fireEvent.change(device("Tape").getByLabelText("Tape: True size"), { target: { value: "900" } });
  fireEvent.click(device("Tape").getByRole("button", { name: "Read" }));
  expect((await device("Tape").findByRole("alert")).textContent).toBe("a girth of 900 cm is out of range");
});

test("the line is closed with the page", () => {
  devices();
  cleanup();
  expect(Feed.line?.closed).toBe(true);
});
