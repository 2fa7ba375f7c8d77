import { cleanup, fireEvent, screen } from "@testing-library/react";
import { useLocation } from "react-router";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../test/render";
import { Palette } from "./Palette";

afterEach(cleanup);

const Where = () => <output>{useLocation().pathname + useLocation().search}</output>;

async function opened(act = vi.fn()) {
  const onClose = vi.fn();
  show(
    <>
      <Palette open onClose={onClose} acts={[{ name: "Night", act }]} />
      <Where />
    </>,
  );
  return { onClose, act, find: await screen.findByRole("combobox", { hidden: true }) };
}

const where = () => screen.getByRole("status", { hidden: true }).textContent;

test("a page is gone to by the beginning of its name and Enter", async () => {
  const { find, onClose } = await opened();
  fireEvent.change(find, { target: { value: "libr" } });
  fireEvent.keyDown(find, { key: "Enter" });
  expect([where(), onClose.mock.calls.length]).toEqual(["/library", 1]);
});

test("an exercise opens where it stands in the library", async () => {
  const { find } = await opened();
  fireEvent.change(find, { target: { value: "curl" } });
  fireEvent.keyDown(find, { key: "Enter" });
  expect(where()).toBe("/library?exercise=incline-curl");
});

test("arrows pick another, and an act is done in place", async () => {
  const { find, act } = await opened();
  fireEvent.keyDown(find, { key: "ArrowUp" });
  fireEvent.keyDown(find, { key: "Enter" });
  expect(act).toHaveBeenCalledOnce();
  expect(where()).toBe("/");
});

test("what nothing answers is said", async () => {
  const { find } = await opened();
  fireEvent.change(find, { target: { value: "qqq" } });
  expect(screen.getByText("Nothing of that name.")).toBeTruthy();
});
