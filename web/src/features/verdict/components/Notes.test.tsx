import { cleanup, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { show } from "../../../test/render";
import type { Assessment } from "../model";
import { Notes } from "./Notes";

afterEach(cleanup);

const calm = {
  flags: [],
  warnings: [],
  reference: { missing: [], outside: false, mahalanobis2: 12, df: 18, n: 247 },
} as unknown as Assessment;

test("nothing stands before the chart when nothing must be known first", () => {
  const { container } = show(<Notes assessment={calm} />);
  expect(container.textContent).toBe("");
});

test("what is referred comes first and is an alert; pain is said without alarm", () => {
  const flags = [
    { kind: "large-side-difference", says: "The sides of the calf differ by 9.0 %.", refer: true },
    { kind: "pain", says: "The shoulder hurts 4/10.", refer: false },
  ];
  const { container } = show(<Notes assessment={{ ...calm, flags } as Assessment} />);
  expect(screen.getAllByRole("alert")).toHaveLength(1);
  expect(screen.getByRole("alert").textContent).toBe("Refer. The sides of the calf differ by 9.0 %.");
  expect(container.lastElementChild?.textContent).toBe("The shoulder hurts 4/10.");
});

test.each([
  [{ missing: ["two more girths"] }, /No size can be judged yet\. Missing: two more girths/],
  [{ outside: true, mahalanobis2: 61.26 }, /Outside the reference: this body is unlike the 247 people/],
])("%o is said in words", (change, says) => {
  const reference = { ...calm.reference, ...change };
  show(<Notes assessment={{ ...calm, reference } as Assessment} />);
  expect(screen.getByText(says)).toBeTruthy();
});

test("a warning names its place", () => {
  const warnings = [{ place: "2026-03-02 calf", site: "calf", says: "the sides differ by 9.0 %" }];
  show(<Notes assessment={{ ...calm, warnings } as Assessment} />);
  expect(screen.getByText("2026-03-02 calf: the sides differ by 9.0 %.")).toBeTruthy();
});
