import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { atlas, show } from "../../../test/render";
import type { Plan } from "../model";
import { Blocked } from "./Blocked";
import { BlockStrip } from "./BlockStrip";
import { Gap } from "./Gap";
import { ItemCard } from "./ItemCard";
import { Ledger } from "./Ledger";

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
  minutes: 6.2,
  progression: {
    kind: "double",
    bottom: 8,
    top: 12,
    step: "the next pair of dumbbells",
    back_off_pct: 10,
    says: "When every set reaches 12: the next pair of dumbbells, and back to 8.",
  },
};

const card = { exercise: "incline-curl", sets: 3 };
const shownCard = (change: Partial<React.ComponentProps<typeof ItemCard>>) =>
  show(
    <ItemCard
      card={card}
      item={item}
      atlas={atlas}
      setsShown={3}
      broken={[]}
      open={false}
      picked={false}
      onToggle={() => {}}
      {...change}
    />,
  );

test("a card says sets, side order and minutes, and opens to reasons, progress, set-up and the school's sentence", () => {
  const onToggle = vi.fn();
  shownCard({ onToggle });
  expect(screen.getByText("left first")).toBeTruthy();
  expect(screen.getByText("6 min")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: /Incline dumbbell curl/ }));
  expect(onToggle).toHaveBeenCalledOnce();
  cleanup();
  shownCard({ open: true });
  for (const says of [item.why[0], item.progression.says, "Lie back on the incline.", item.cues?.[0]])
    expect(screen.getByText(says ?? "")).toBeTruthy();
});

test("a card says what is wrong with it, and that it is locked", () => {
  shownCard({ broken: ["Two of a family."], card: { ...card, locked: true } });
  expect(screen.getByText("Two of a family.")).toBeTruthy();
  expect(screen.getByText("locked")).toBeTruthy();
});

test("sets go up and down, and the card is locked, swapped and taken out by its tools", () => {
  const actions = { sets: vi.fn(), lock: vi.fn(), scheme: vi.fn(), swap: vi.fn(), remove: vi.fn() };
  shownCard({ open: true, actions });
  fireEvent.click(screen.getByRole("button", { name: /one set more/ }));
  fireEvent.click(screen.getByRole("button", { name: /one set less/ }));
  expect(actions.sets.mock.calls).toEqual([[1], [-1]]);
  fireEvent.click(screen.getByRole("button", { name: "Lock" }));
  fireEvent.click(screen.getByRole("button", { name: "Swap…" }));
  fireEvent.click(screen.getByRole("button", { name: "Take out" }));
  for (const one of [actions.lock, actions.swap, actions.remove]) expect(one).toHaveBeenCalledOnce();
});

test.each([
  [0, "Proven: no week is better."],
  [0.0421, "Within 4.3 % of the best possible week."],
  [0.231, "Within 24 % of the best possible week."],
  [undefined, "Not yet compared with the best possible week."],
])("a gap of %s is rounded to the side that is proven", (gap, says) => {
  const proving = { running: false, start: () => {}, stop: () => {} };
  show(<Gap plan={{ gap } as Plan} proving={proving} />);
  expect(screen.getByRole("status").textContent).toBe(says);
});

test.each([
  ["whose order alone is at fault is compared", true, "Within 3.0 % of the best possible week."],
  ["that breaks another rule is not compared", false, undefined],
])("a week %s with the best possible one", (_, order_only, says) => {
  const proving = { running: false, start: () => {}, stop: () => {} };
  const broken = [{ says: "Row before curl.", cards: [], days: [1], forbids: false, order_only }];
  show(<Gap plan={{ gap: 0.03, broken } as unknown as Plan} proving={proving} />);
  expect(screen.queryByRole("status")?.textContent).toBe(says);
});

test("the block shows each week's sets of what is chosen and can be looked at week by week", () => {
  const onShow = vi.fn();
  const week = (number: number, dose: number, lighter = false) => ({
    number,
    lighter,
    sets: [],
    doses: { "biceps.long": dose },
    says: number === 2 ? ["Biceps, long head gains one set."] : [],
  });
  const plan = { weeks: [week(1, 10), week(2, 11), week(3, 6, true)] } as unknown as Plan;
  show(<BlockStrip plan={plan} number={2} onShow={onShow} />);
  expect(screen.getByText(/gains one set/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Week 3" }));
  expect(onShow).toHaveBeenCalledWith(3);
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
