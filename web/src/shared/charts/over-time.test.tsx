import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { OverTime } from ".";

const MARKS = [
  { on: "2026-01-01", value: 36, band: 0.4 },
  { on: "2026-02-10", value: 37.5, band: 0 },
];

afterEach(cleanup);

const chart = () => {
  render(<OverTime label="Calf left" marks={MARKS} format={(value) => value.toFixed(1)} unit="cm" />);
  return screen.getByRole("slider", { name: "Calf left" });
};

test("the newest value is read first, the one before by an arrow key, with what it may be off by", () => {
  const element = chart();
  expect(element.getAttribute("aria-valuetext")).toBe("10 Feb 2026: 37.5 cm");
  fireEvent.focus(element);
  screen.getByText("10 Feb 2026: 37.5 cm");
  fireEvent.keyDown(element, { key: "ArrowLeft" });
  screen.getByText("1 Jan 2026: 36.0 cm ± 0.4");
  expect(element.getAttribute("aria-valuenow")).toBe("1");
});

test("what was read goes when the chart is left, and other keys are left alone", () => {
  const element = chart();
  fireEvent.focus(element);
  expect(fireEvent.keyDown(element, { key: "j" })).toBe(true);
  fireEvent.blur(element);
  expect(screen.queryByText(/37.5 cm/)).toBeNull();
});

test("first and last day and the least and largest value are written beside it", () => {
  chart();
  const written = [...screen.getByRole("slider").querySelectorAll("svg text")].map(
    ({ textContent }) => textContent,
  );
  expect(written.sort()).toEqual(["1 Jan 2026", "10 Feb 2026", "36.0", "37.5"]);
});

test("a value that comes from somewhere else is hollow and says so", () => {
  const marks = [
    { on: "2026-01-01", value: 36, band: 0.4 },
    { on: "2026-02-10", value: 37.5, band: 1, otherwise: "from pictures" },
  ];
  const { container } = render(
    <OverTime label="Calf left" marks={marks} format={(value) => value.toFixed(1)} unit="cm" />,
  );
  expect(screen.getByRole("slider").getAttribute("aria-valuetext")).toBe(
    "10 Feb 2026: 37.5 cm ± 1.0, from pictures",
  );
  const fills = [...container.querySelectorAll("g > circle")].map((mark) => mark.getAttribute("fill"));
  expect(fills).toEqual(["var(--ink)", "var(--ground)"]);
});
