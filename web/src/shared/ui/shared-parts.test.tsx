import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../test/render";
import { LeanBar } from "../charts";
import { Dialog, ErrorNote, NumberInput, SideMark, StandingMark, Title } from ".";
import { singleKeys, useKeys } from "./keys";

afterEach(cleanup);

test.each(["behind", "leans-behind", "level", "leans-ahead", "ahead", "unclear"] as const)(
  "%s is said in words beside its mark",
  (standing) => {
    const { container } = show(<StandingMark standing={standing} />);
    expect(container.textContent).toBe(standing.replace("-", " "));
    expect(container.querySelector("svg")?.getAttribute("aria-hidden")).toBe("true");
  },
);

test.each([
  ["left", "L"],
  ["right", "R"],
] as const)("the %s side has its letter, not colour alone", (side, letter) => {
  expect(show(<SideMark side={side} />).container.textContent).toBe(letter);
});

test.each([
  ["leans left", 5, 0.7, "var(--left)"],
  ["leans right", -5, 0.7, "var(--right)"],
  ["within error has no side's colour", 1, 1.0, "var(--level)"],
])("a bar that %s", (_, percent, se, colour) => {
  const { container } = show(<LeanBar percent={percent} se={se} width={96} height={26} />);
  const bar = container.querySelectorAll("rect")[1];
  expect(bar?.getAttribute("fill")).toBe(colour);
  const leansLeft = Number(bar?.getAttribute("x")) < 48;
  expect(leansLeft).toBe(percent > 0);
});

test("a dialog holds its content only while open, and closes by its button", () => {
  const onClose = vi.fn();
  const dialog = (open: boolean) => (
    <Dialog open={open} title="Keys" onClose={onClose}>
      <p>inside</p>
    </Dialog>
  );
  const view = show(dialog(false));
  expect(screen.queryByText("inside")).toBeNull();
  view.rerender(dialog(true));
  expect(screen.getByText("inside")).toBeTruthy();
  fireEvent.click(screen.getByLabelText("Close"));
  expect(onClose).toHaveBeenCalled();
});

test("Escape closes a dialog at once, and a late word of it does not close what was opened again", () => {
  const onClose = vi.fn();
  const { container } = show(
    <Dialog open title="Keys" onClose={onClose}>
      <p>inside</p>
    </Dialog>,
  );
  const element = container.querySelector("dialog") as HTMLDialogElement;
  const cancel = new Event("cancel", { cancelable: true });
  fireEvent(element, cancel);
  expect(cancel.defaultPrevented).toBe(true);
  expect(onClose).toHaveBeenCalledTimes(1);
  element.setAttribute("open", "");
  fireEvent(element, new Event("close"));
  expect(onClose).toHaveBeenCalledTimes(1);
  element.removeAttribute("open");
  fireEvent(element, new Event("close"));
  expect(onClose).toHaveBeenCalledTimes(2);
});

test("an error is the server's own sentence and can be tried again", () => {
  const onRetry = vi.fn();
  show(
    <ErrorNote error={{ status: 404, title: "Not found", detail: "there is no round" }} onRetry={onRetry} />,
  );
  expect(screen.getByRole("alert").textContent).toContain("there is no round");
  fireEvent.click(screen.getByRole("button"));
  expect(onRetry).toHaveBeenCalledOnce();
});

function Keys({ onKey }: { onKey: (key: string) => void }) {
  useKeys({ next: () => onKey("j"), goTape: () => onKey("g t"), sides: (which) => onKey(`side ${which}`) });
  return <input aria-label="field" />;
}

test("keys act on the page and are left alone in fields", async () => {
  const onKey = vi.fn();
  show(<Keys onKey={onKey} />);
  fireEvent.keyDown(document.body, { key: "j" });
  fireEvent.keyDown(screen.getByLabelText("field"), { key: "j" });
  fireEvent.keyDown(document.body, { key: "j", ctrlKey: true });
  expect(onKey.mock.calls).toEqual([["j"]]);
});

function press(key: string, at = performance.now()) {
  const event = new KeyboardEvent("keydown", { key, bubbles: true });
  Object.defineProperty(event, "timeStamp", { value: at });
  fireEvent(document.body, event);
}

test("two keys in a row are one binding, however fast they come, for all who listen", () => {
  const [first, second] = [vi.fn(), vi.fn()];
  show(
    <>
      <Keys onKey={first} />
      <Keys onKey={second} />
    </>,
  );
  press("g");
  press("t");
  press("7");
  expect(first.mock.calls).toEqual([["g t"], ["side 1"]]);
  expect(second.mock.calls).toEqual(first.mock.calls);
});

test("the second key is waited for from when the page has seen the first", () => {
  const onKey = vi.fn();
  show(<Keys onKey={onKey} />);
  press("g", performance.now() - 60_000);
  press("t");
  press("g");
  press("j", performance.now() + 60_000);
  expect(onKey.mock.calls).toEqual([["g t"], ["j"]]);
});

test("a part that has gone hears no keys", () => {
  const onKey = vi.fn();
  const { unmount } = show(<Keys onKey={onKey} />);
  unmount();
  press("j");
  expect(onKey).not.toHaveBeenCalled();
});

function Pressed({ onKey }: { onKey: (key: string) => void }) {
  useKeys({ hang: () => onKey(" "), goOn: () => onKey("Enter"), next: () => onKey("j") });
  return (
    <>
      <button type="button">Remove</button>
      <label>
        <input type="checkbox" /> ticked
      </label>
      <input aria-label="field" />
    </>
  );
}

test.each([
  ["Space", " ", "the page", [" "]],
  ["Space", " ", "a button", []],
  ["Enter", "Enter", "a button", []],
  ["a letter", "j", "a button", ["j"]],
  ["Space", " ", "a box to tick", []],
  ["a letter", "j", "a box to tick", ["j"]],
] as const)("%s pressed on %s: what has the focus comes first", (_, key, on, heard) => {
  const onKey = vi.fn();
  show(<Pressed onKey={onKey} />);
  const places = {
    "the page": document.body,
    "a button": screen.getByRole("button"),
    "a box to tick": screen.getByRole("checkbox"),
  };
  fireEvent.keyDown(places[on], { key });
  expect(onKey.mock.calls.flat()).toEqual(heard);
});

test("Escape leaves a field, and the keys are the page's again", () => {
  show(<Pressed onKey={() => {}} />);
  const field = screen.getByLabelText("field");
  field.focus();
  fireEvent.keyDown(field, { key: "Escape" });
  expect(document.activeElement).not.toBe(field);
});

test("single keys do nothing once they are switched off", () => {
  const onKey = vi.fn();
  show(<Pressed onKey={onKey} />);
  singleKeys.turn(false);
  press("j");
  expect(onKey).not.toHaveBeenCalled();
  singleKeys.turn(true);
  press("j");
  expect(onKey).toHaveBeenCalledOnce();
});

test.each([
  ["82.4", 82.4],
  ["82,4", 82.4],
])("a number is typed with a point or a comma: %s", (typed, value) => {
  const onChange = vi.fn();
  show(<NumberInput aria-label="weight" onChange={onChange} />);
  fireEvent.change(screen.getByLabelText("weight"), { target: { value: typed } });
  expect(onChange).toHaveBeenLastCalledWith(value);
});

test("the title says the page first", () => {
  show(<Title of="Today" />);
  expect(document.title).toBe("Today · Orthomer");
});
