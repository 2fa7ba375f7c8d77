import { cleanup, screen } from "@testing-library/react";
import { Form } from "antd";
import { afterEach, expect, test } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { SchoolFields } from "./SchoolFields";

afterEach(cleanup);

const school: Schemas["School"] = {
  id: "rear_delt_blades",
  about: "form",
  question: "Where are the shoulder blades in rear-delt work?",
  default: "forward",
  reason: "Rolled forward takes traps and rhomboids out.",
  option: [
    { id: "forward", name: "Rolled forward", effect: "Cued with the shoulders rolled forward." },
    { id: "back", name: "Set back and down", effect: "Cued with the shoulder blades set." },
  ],
};

const fields = (schools: Record<string, string>) =>
  show(
    <Form initialValues={{ schools }}>
      <SchoolFields schools={[school]} />
    </Form>,
  );

test("a question shows its default and what that changes", () => {
  fields({});
  expect(screen.getByText("1 question, 0 answered for this client")).toBeTruthy();
  expect(screen.getByText("Cued with the shoulders rolled forward.")).toBeTruthy();
  expect(screen.getByText("Rolled forward")).toBeTruthy();
});

test("questions stand under what they are about, the week first", () => {
  const split: Schemas["School"] = {
    ...school,
    id: "split",
    about: "week",
    question: "How is the body shared out?",
  };
  show(
    <Form>
      <SchoolFields schools={[school, split]} />
    </Form>,
  );
  const headings = screen
    .getAllByRole("heading", { level: 3, hidden: true })
    .map(({ textContent }) => textContent);
  expect(headings).toEqual(["The week and its days", "How they are done"]);
});

test("another answer shows what it changes instead", () => {
  fields({ rear_delt_blades: "back" });
  expect(screen.getByText("1 question, 1 answered for this client")).toBeTruthy();
  expect(screen.getByText("Cued with the shoulder blades set.")).toBeTruthy();
});
