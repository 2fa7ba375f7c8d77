import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { Blocked } from "./Blocked";
import { Ledger } from "./Ledger";
import { SessionColumn } from "./SessionColumn";

afterEach(cleanup);

const item: Schemas["ItemEntry"] = {
  exercise: "incline-curl",
  name: "Incline dumbbell curl",
  region: "biceps.long",
  sets: 3,
  reps: [8, 12],
  reserve: 1,
  rest_s: 75,
  scheme: "straight",
  order: 1,
  sides: "left-first",
  extra_sets_weaker: 1,
  cues: ["Take a grip narrower than the shoulders."],
  why: ["Biceps, long head is being brought up and is the main target here."],
};

test("a day says how full it is, which side goes first, and opens to reasons, set-up and the school's sentence", () => {
  const session = { day: 1, minutes: 58.4, items: [item] };
  const onOpen = vi.fn();
  const column = (opened?: string) => (
    <SessionColumn session={session} number={1} minutes={60} opened={opened} onOpen={onOpen} />
  );
  show(column());
  expect(screen.getByRole("region", { name: /Monday/ }).textContent).toContain("58 of 60 min");
  expect(screen.getByText("left first")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: /Incline dumbbell curl/ }));
  expect(onOpen).toHaveBeenCalledOnce();
  cleanup();
  show(column(onOpen.mock.calls[0]?.[0]));
  for (const says of [item.why[0], "Lie back on the incline.", item.cues?.[0]])
    expect(screen.getByText(says ?? "")).toBeTruthy();
});

const row = (region: string, change: Partial<Schemas["LedgerEntry"]>): Schemas["LedgerEntry"] => ({
  region,
  class: "keep",
  low: 3,
  aim: 5,
  high: 8,
  direct: 2,
  indirect: 1.5,
  total: 3.5,
  ...change,
});

test("the ledger shows chosen regions first and everything on request, each with its band in words", () => {
  show(
    <Ledger
      ledger={[
        row("calves.gastrocnemius", {}),
        row("biceps.long", { class: "bring-up", total: 12, direct: 12 }),
      ]}
    />,
  );
  const rows = () => screen.getAllByRole("row").slice(1);
  expect(rows()).toHaveLength(1);
  expect(within(rows()[0] as HTMLElement).getByRole("rowheader").textContent).toBe(
    "bring upBiceps, long head",
  );
  fireEvent.click(screen.getByRole("button"));
  expect(rows()).toHaveLength(2);
  expect(rows()[1]?.textContent).toContain("Gastrocnemius");
});

test("what could not be met names the rule and the nearest thing; nothing blocked shows nothing", () => {
  const entry = {
    demand: "10 weekly sets for rear delt",
    rule: "a session is full",
    nearest: "8.0 sets fit.",
  };
  show(<Blocked blocked={[entry]} />);
  expect(screen.getByRole("listitem").textContent).toMatch(
    /^10 weekly sets.*a session is full.*8\.0 sets fit\.$/,
  );
  cleanup();
  expect(show(<Blocked blocked={[]} />).container.textContent).toBe("");
});
