import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../test/render";
import { Async, failed } from ".";

afterEach(cleanup);

const refused = { status: 404, title: "", detail: "there is no such round" };
const noLine = new TypeError("Failed to fetch");
const refetch = vi.fn();

test.each([
  ["nothing there yet", { refetch }, false],
  ["all there", { data: 1, refetch }, false],
  ["refused at once", { error: refused, refetch }, true],
  ["no line and nothing there", { error: noLine, refetch }, true],
  ["no line, but it was there", { data: 1, error: noLine, refetch }, false],
  ["gone since", { data: 1, error: refused, refetch }, true],
])("%s: failed is %s", (_, query, expected) => {
  expect(failed({ data: 1, refetch }, query)).toBe(expected);
});

test("what comes is said, and nothing is a heading before it is there", () => {
  show(<Async of={[{ refetch }]} />);
  expect(screen.getByRole("status", { name: "Coming" })).toBeTruthy();
  expect(screen.queryByRole("heading")).toBeNull();
});

test("why it does not come is said, and all that failed is tried again", () => {
  const [one, other, fine] = [vi.fn(), vi.fn(), vi.fn()];
  show(
    <Async
      of={[
        { data: 1, refetch: fine },
        { error: refused, refetch: one },
        { error: noLine, refetch: other },
      ]}
    />,
  );
  expect(screen.getByRole("alert").textContent).toContain("there is no such round");
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect([one, other, fine].map((called) => called.mock.calls.length)).toEqual([1, 1, 0]);
});
