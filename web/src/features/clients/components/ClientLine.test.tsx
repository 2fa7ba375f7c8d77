import { cleanup, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { ClientLine } from "./ClientLine";

afterEach(cleanup);

type Summary = Schemas["ClientSummary"];

const verdict = (change: Partial<Schemas["VerdictSummary"]>): Schemas["VerdictSummary"] => ({
  areas: [],
  regions: [],
  leans: [],
  behind: [],
  bring_up: [],
  missing: [],
  outside: false,
  ...change,
});

const client = (change: Partial<Summary>): Summary =>
  ({
    id: "c1",
    name: "Oda Fenwick",
    age_years: 31,
    look: "taper",
    days_per_week: 4,
    tags: [],
    due: false,
    newest: { id: "r3", date: "2026-03-02", measured_by: "MT" },
    ...change,
  }) as Summary;

const line = (change: Partial<Summary>) =>
  show(
    <table>
      <tbody>
        <ClientLine client={client(change)} picked={false} chosen={false} />
      </tbody>
    </table>,
  );

test.each([
  ["without a round", { newest: undefined }, "/clients/c1", "Open a round"],
  [
    "too little measured",
    { verdict: verdict({ missing: ["a wrist"] }) },
    "/clients/c1/rounds/r3/tape",
    "Tape",
  ],
  ["a verdict to look at", { verdict: verdict({}) }, "/clients/c1/rounds/r3/verdict", "Choose"],
  [
    "something chosen",
    { verdict: verdict({ bring_up: ["biceps.long"] }) },
    "/clients/c1/rounds/r3/plan",
    "Plan",
  ],
])("%s: the line offers the one next thing", (_, change, to, label) => {
  line(change as Partial<Summary>);
  const links = screen.getAllByRole("link");
  expect(links.at(-1)?.getAttribute("href")).toBe(to);
  expect(links.at(-1)?.textContent).toBe(label);
});

test("a line says who, what stands out and what leans, in words", () => {
  line({
    verdict: verdict({
      regions: [{ region: "calves.gastrocnemius", mean: -1.9, sd: 0.6, standing: "behind" }],
      leans: [{ site: "arm-flexed", larger: "right", index_pct: 5.2, verdict: "real-act" }],
      outside: true,
    }),
  } as Partial<Summary>);
  const text = screen.getByRole("row").textContent;
  for (const says of [
    "Oda Fenwick",
    "31",
    "Taper",
    "Gastrocnemius behind",
    "Upper arm, flexed R +5.2 %",
    "outside",
  ])
    expect(text).toContain(says);
});

test("everything level is said, not left empty", () => {
  line({ verdict: verdict({}) });
  expect(screen.getByText("nothing stands out")).toBeTruthy();
});

test.each([
  ["nothing was agreed on", {}, undefined],
  ["a day ahead", { next_round_on: "2026-05-04" }, "next 4 May"],
  ["a day that has come", { next_round_on: "2026-03-30", due: true }, "next 30 Mar"],
  ["long after the last", { due: true }, "due"],
])("the next round: %s", (_, change: Partial<Summary>, text) => {
  line(change);
  const agreed = document.querySelector("[data-due]");
  expect(agreed?.textContent).toBe(text);
  expect(agreed?.getAttribute("data-due") === "true").toBe(change.due === true);
});

test("tags stand with the name", () => {
  line({ tags: ["online", "Tuesday"] });
  expect(screen.getByText("online · Tuesday")).toBeTruthy();
});
