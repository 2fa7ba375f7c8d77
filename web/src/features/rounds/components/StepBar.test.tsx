import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { STEPS } from "../model";
import { StepBar } from "./StepBar";

afterEach(cleanup);

test("the eight steps stand in their order, each a link that says how far it has come", () => {
  const states = ["enough", "later", "look", "later", "enough", "empty", "later", "later"] as const;
  const steps = STEPS.map((step, i) => ({
    step,
    state: states[i],
    says: `says ${i}`,
  })) as Schemas["StepView"][];
  show(<StepBar steps={steps} base="/clients/c/rounds/r" />);
  const links = within(screen.getByRole("navigation")).getAllByRole("link");
  expect(links.map((link) => link.getAttribute("href"))).toEqual(
    STEPS.map((step) => `/clients/c/rounds/r/${step}`),
  );
  expect(links[2]?.textContent).toMatch(/^Tape.*: says 2$/);
  // A state is told by shape and by words, never by colour alone.
  const shapes = new Set(links.map((link) => link.querySelector("svg")?.innerHTML));
  expect(shapes.size).toBe(4);
});
