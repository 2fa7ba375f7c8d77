import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { atlas, show } from "../../../test/render";
import type { Plan } from "../model";
import { Blocked } from "./Blocked";
import { BlockStrip } from "./BlockStrip";
import { CoachLine } from "./CoachLine";
import { Gap } from "./Gap";
import { ItemCard } from "./ItemCard";
import { Ledger } from "./Ledger";
import { Loads } from "./Loads";

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
  const watched = ["Swinging", "Not with a sore biceps tendon."];
  for (const says of [
    item.why[0],
    item.progression.says,
    "Lie back on the incline.",
    item.cues?.[0],
    ...watched,
  ])
    expect(screen.getByText(says ?? "")).toBeTruthy();
});

test("a card says what is wrong with it, and that it is locked", () => {
  shownCard({ broken: ["Two of a family."], card: { ...card, locked: true } });
  expect(screen.getByText("Two of a family.")).toBeTruthy();
  expect(screen.getByText("locked")).toBeTruthy();
});

test("sets go up and down, and the card is locked, swapped and taken out by its tools", () => {
  const actions = {
    sets: vi.fn(),
    lock: vi.fn(),
    scheme: vi.fn(),
    swap: vi.fn(),
    remove: vi.fn(),
    write: vi.fn(),
    partners: vi.fn(),
    join: vi.fn(),
  };
  shownCard({ open: true, actions });
  fireEvent.click(screen.getByRole("button", { name: /one set more/ }));
  fireEvent.click(screen.getByRole("button", { name: /one set less/ }));
  expect(actions.sets.mock.calls).toEqual([[1], [-1]]);
  fireEvent.click(screen.getByRole("button", { name: "Lock" }));
  fireEvent.click(screen.getByRole("button", { name: "Swap…" }));
  fireEvent.click(screen.getByRole("button", { name: "Take out" }));
  fireEvent.click(screen.getByRole("button", { name: "Write…" }));
  fireEvent.click(screen.getByRole("button", { name: "In turns with the next" }));
  const once = [actions.lock, actions.swap, actions.remove, actions.write, actions.join];
  for (const one of once) expect(one).toHaveBeenCalledOnce();
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

const ledgerPlan = {
  ledger: [
    row("calves.gastrocnemius", {
      total: 0,
      direct: 0,
      indirect: 0,
      empty_because: "60 minutes a session are full",
    }),
    row("biceps.long", { class: "bring-up", total: 12, direct: 12 }),
    row("neck", {}),
  ],
  parts: [
    { part: "arms" as const, regions: ["biceps.long"], sets: 12, floor: 2 },
    {
      part: "calves" as const,
      regions: ["calves.gastrocnemius"],
      sets: 0,
      floor: 2,
      reason: "60 minutes a session are full",
      nearest: "5 more minutes on Monday would do.",
    },
  ],
};

test("the ledger shows big parts first, a chosen region inside its own, and why a part is empty", () => {
  show(<Ledger plan={ledgerPlan} />);
  const heads = () => screen.getAllByRole("rowheader").map((head) => head.textContent);
  expect(heads()).toEqual(["Arms", "Biceps, long headbring up", "Calves", "Other regions"]);
  expect(screen.getByText(/minutes a session are full\. 5 more minutes on Monday would do\./)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Calves" }));
  expect(heads()).toContain("Gastrocnemiuskeep");
  fireEvent.click(screen.getByRole("button", { name: "Arms" }));
  expect(heads()).not.toContain("Biceps, long headbring up");
});

test("loads are shown against their limits, the nearest first, and a joint that hurts in any case", () => {
  const load = (of: string, sum: number, limit: number, pain = 0) => ({ of, load: sum, limit, pain });
  const loads = [load("sets", 80, 80), load("axial", 12, 20), load("knee", 30, 40), load("hip", 20, 40)];
  show(<Loads loads={[...loads, load("elbow", 10, 48), load("wrist", 0, 14, 4)]} />);
  const heads = () => screen.getAllByRole("rowheader").map((head) => head.textContent);
  expect(heads()).toEqual(["Hard sets", "Knee", "Spine", "Hip", "Wristhurts 4/10"]);
  fireEvent.click(screen.getByRole("button", { name: "All joints" }));
  expect(heads()).toContain("Elbow");
});

test("a week reads as a coach reads it: what there is to object to, or nothing, and what it does not have", () => {
  const plan = { objections: [], movements: [{ movement: "row", sessions: 2 }] } as unknown as Plan;
  show(<CoachLine plan={plan} />);
  expect(screen.getByText(/nothing to object to/)).toBeTruthy();
  cleanup();
  const objection = { kind: "daily", says: "Pulldown stands on Monday and on Tuesday.", cards: [] };
  const missing = { movement: "hinge", sessions: 0, reason: "nothing that is there trains it" };
  show(<CoachLine plan={{ objections: [objection], movements: [missing] } as unknown as Plan} />);
  expect(screen.getByText("Read as a coach would: 1 thing to object to")).toBeTruthy();
  expect(screen.getByText(objection.says)).toBeTruthy();
  expect(screen.getByText("Not in this week: hip hinge")).toBeTruthy();
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
