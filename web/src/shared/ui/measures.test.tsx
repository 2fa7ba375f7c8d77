import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, test, vi } from "vitest";
import "../../i18n";
import { quantitiesIn } from "../format";
import { DateInput, NumberInput, TypedInput } from ".";

afterEach(cleanup);

const inches = quantitiesIn({ length: "in-eighths" }).length;

/** A field of a sheet that keeps metric texts. */
function Sheet({ kept }: { kept: (text: string) => void }) {
  const [text, setText] = useState("");
  return (
    <TypedInput
      aria-label="Waist"
      quantity={inches}
      text={text}
      onText={(next) => {
        kept(next);
        setText(next);
      }}
    />
  );
}

test("a sheet is given metric texts while what is typed stays under the fingers", () => {
  const kept = vi.fn();
  render(<Sheet kept={kept} />);
  const field = screen.getByLabelText<HTMLInputElement>("Waist");
  for (const typed of ["3", "31", "31 ", "31 3", "31 3/", "31 3/8"]) {
    fireEvent.change(field, { target: { value: typed } });
    expect(field.value).toBe(typed);
  }
  expect(kept.mock.calls.map(([text]) => text)).toEqual([
    "7.62",
    "78.74",
    "78.74",
    "31 3",
    "31 3/",
    "79.6925",
  ]);
});

test("a number of a form is typed in pounds and kept in kilograms", () => {
  const kept = vi.fn();
  render(
    <NumberInput
      aria-label="Weight"
      quantity={quantitiesIn({ mass: "lb" }).mass}
      defaultValue={81}
      onChange={kept}
    />,
  );
  const field = screen.getByLabelText<HTMLInputElement>("Weight");
  expect(field.value).toBe("178.6");
  fireEvent.change(field, { target: { value: "180" } });
  expect(kept.mock.calls.at(-1)?.[0]).toBeCloseTo(81.6466266, 6);
});

test.each([
  ["2026-03-11", "2026-03-11"],
  ["11 Mar 2026", "2026-03-11"],
  ["11.3.2026", "2026-03-11"],
])("a day typed as %s is taken at once: the button pressed next finds it", (typed, day) => {
  const chosen = vi.fn();
  render(<DateInput aria-label="Day" value="2026-03-02" onChange={chosen} />);
  fireEvent.change(screen.getByLabelText("Day"), { target: { value: typed } });
  expect(chosen).toHaveBeenCalledWith(day);
});

test.each(["2026-13-40", "soon", "2026-04-02"])("%s is no day to take, and that is said", (typed) => {
  const chosen = vi.fn();
  render(<DateInput aria-label="Day" value="2026-03-02" max="2026-03-31" onChange={chosen} />);
  const field = screen.getByLabelText("Day");
  fireEvent.change(field, { target: { value: typed } });
  expect(screen.queryByRole("alert"), "not while it is typed").toBeNull();
  fireEvent.blur(field);
  expect(chosen).not.toHaveBeenCalled();
  expect(screen.getByRole("alert").textContent).toBe(
    `“${typed}” is no day that can be taken here: type one such as 31 Mar 2026.`,
  );
  fireEvent.change(field, { target: { value: "2026-03-04" } });
  expect(screen.queryByRole("alert")).toBeNull();
});
