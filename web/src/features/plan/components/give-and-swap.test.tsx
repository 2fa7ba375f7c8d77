import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";
import { show } from "../../../test/render";
import { typeDay } from "../../../test/typeDay";
import { nextMonday, type Plan, thisMonday, type Week } from "../model";
import { Compare } from "./Compare";
import { IssueBar } from "./IssueBar";
import { SwapPanel } from "./SwapPanel";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const answer = (data: unknown) => (async () => ({ data, response: new Response() })) as never;

const week: Week = {
  minutes: 60,
  weeks: 5,
  bring_up: [],
  sessions: [{ day: 1, items: [{ exercise: "incline-curl", sets: 3 }] }],
};
const ledger = (total: number) => [{ region: "biceps.long", total }];
const plan = { broken: [], ledger: ledger(3), sessions: [], weeks: [] } as unknown as Plan;

const version = (number: number) => ({ id: `v${number}`, version: number, starts_on: "2026-03-09" });

interface Standing {
  issued?: ReturnType<typeof version>[];
  is_issued?: boolean;
  draft_because?: string;
  broken?: { says: string }[];
  revision?: number;
}

function bar({ issued = [], is_issued = false, draft_because, broken = [], revision = 4 }: Standing) {
  const view = { client_name: "Ada", issued, is_issued, draft_because } as unknown as Schemas["PlanView"];
  const shown = { ...plan, broken } as Plan;
  show(
    <IssueBar roundId="r" base="/c" view={view} week={week} plan={shown} revision={revision || undefined} />,
  );
}

const give = () => screen.queryByRole<HTMLButtonElement>("button", { name: "Give to the client…" });

test("a week that the client has is given again, and the first week is this one, the next, or any date", async () => {
  const post = vi.spyOn(fetchClient, "POST").mockImplementation(answer({}));
  bar({ issued: [version(2)], is_issued: true });
  fireEvent.click(screen.getByRole("button", { name: "Give it again…" }));
  const dialog = within(screen.getByRole("dialog"));
  fireEvent.click(dialog.getByRole("radio", { name: "this week" }));
  const date = dialog.getByLabelText<HTMLInputElement>("First week from");
  expect(date.value).toBe(day(thisMonday(new Date())));
  fireEvent.click(dialog.getByRole("radio", { name: "next week" }));
  expect(date.value).toBe(day(nextMonday(new Date())));
  typeDay(date, "2031-05-05");
  expect(dialog.queryByRole("radio", { checked: true })).toBeNull();
  fireEvent.click(dialog.getByRole("button", { name: "Give it" }));
  await waitFor(() => expect(post).toHaveBeenCalledOnce());
  expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { revision: 4, starts_on: "2031-05-05" } });
});

test.each([
  ["nothing was given", {}, "The client has no plan yet.", true],
  [
    "they have this week",
    { issued: [version(2)], is_issued: true },
    "The client has this week: version 2, from 9 Mar 2026.",
    false,
  ],
  [
    "they have another one",
    { issued: [version(2), version(1)] },
    "The client has version 2, from 9 Mar 2026; this week is not given yet.",
    true,
  ],
] as const)("when %s it is said, and the week can be given if it is another", (_, standing, says, open) => {
  bar(standing as Standing);
  expect(screen.getByText(says)).toBeTruthy();
  expect(give() !== null).toBe(open);
});

test("what was given is had as a file and compared with the week on the board", () => {
  bar({ issued: [version(2)] });
  const files = screen.getAllByRole("link").map((link) => link.getAttribute("href"));
  expect(files).toEqual([
    "/c/plan/print?plan=v2",
    "/api/v1/plans/v2/files/pdf",
    "/api/v1/plans/v2/files/ics",
    "/api/v1/plans/v2/files/csv",
  ]);
  expect(screen.getByRole("button", { name: "Compare" })).toBeTruthy();
});

test("who may not train yet is given nothing, and there is nothing to print", () => {
  bar({ draft_because: "nobody asked whether they are ready" });
  expect(give()?.disabled).toBe(true);
  expect(screen.queryByRole("link")).toBeNull();
});

test("a plan is given from a day, as the next version, at the revision that is kept", async () => {
  const post = vi.spyOn(fetchClient, "POST").mockImplementation(answer({}));
  bar({ issued: [version(2)], broken: [{ says: "Monday takes 75 of 60 minutes." }] });
  fireEvent.click(give() as HTMLElement);
  const dialog = within(await screen.findByRole("dialog", { name: "Give the plan to Ada" }));
  expect(dialog.getByText("Monday takes 75 of 60 minutes."), "what it breaks is said once more").toBeTruthy();
  expect(dialog.getByText(/^It becomes version 3, for 5 weeks/)).toBeTruthy();
  typeDay(dialog.getByLabelText(/First week from/), "2026-03-16");
  fireEvent.click(dialog.getByRole("button", { name: "Give it" }));
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  expect(post.mock.calls[0]?.[1]).toEqual({
    params: { path: { round_id: "r" } },
    body: { revision: 4, starts_on: "2026-03-16" },
  });
});

test("nothing is given while a change is on its way", async () => {
  bar({ revision: 0 });
  fireEvent.click(give() as HTMLElement);
  expect((await screen.findByRole<HTMLButtonElement>("button", { name: "Give it" })).disabled).toBe(true);
});

test("two plans are set side by side where they differ", () => {
  const then = {
    version: 2,
    week: { ...week, sessions: [{ day: 1, items: [{ exercise: "row", sets: 4 }] }] },
    plan: { ...plan, ledger: ledger(1.5) },
  } as unknown as Schemas["IssuedView"];
  show(<Compare then={then} week={week} plan={plan} />);
  const [cards, regions] = screen.getAllByRole("table");
  const rows = (table: HTMLElement | undefined) =>
    within(table as HTMLElement)
      .getAllByRole("row")
      .slice(1)
      .map((row) => row.textContent);
  expect(rows(cards).sort()).toEqual(["MondayIncline dumbbell curl–3", "row4–"].sort());
  expect(rows(regions)).toEqual(["Biceps, long head1.53"]);
});

test("the same exercises and sets are said to be the same", () => {
  show(
    <Compare then={{ version: 2, week, plan } as unknown as Schemas["IssuedView"]} week={week} plan={plan} />,
  );
  expect(screen.getByText("Version 2 has the same exercises and sets.")).toBeTruthy();
});

const alternative = (exercise: string, change: object = {}) => ({
  exercise,
  name: exercise,
  breaks: [],
  ledger: [],
  minutes: 0,
  stretched: true,
  was_stretched: true,
  kit: [],
  merits: [],
  ...change,
});

async function swaps(alternatives: object[], refused: object[] = []) {
  vi.spyOn(fetchClient, "POST").mockImplementation(answer({ region: "biceps.long", alternatives, refused }));
  const onTake = vi.fn();
  show(
    <SwapPanel roundId="r" week={week} spot={{ session: 0, place: 0 }} onTake={onTake} onClose={vi.fn()} />,
  );
  await screen.findByText(/^(Serving|Nothing else)/);
  return onTake;
}

test("an alternative says what it changes and what it breaks, and is taken by its name", async () => {
  const onTake = await swaps([
    alternative("Cable curl", {
      ledger: [
        { region: "biceps.long", sets: -1.5 },
        { region: "calves.gastrocnemius", sets: 2 },
      ],
      minutes: -3.2,
      stretched: false,
      breaks: ["Two of a family."],
    }),
  ]);
  const [line] = screen.getAllByRole("listitem");
  expect(line?.textContent).toContain("Two of a family.");
  expect(line?.textContent).toContain("−1.5 Biceps, long head");
  expect(line?.textContent).toContain("+2 Gastrocnemius");
  expect(line?.textContent).toContain("−3 min");
  expect(line?.textContent).toContain("no longer loaded stretched");
  fireEvent.click(screen.getByRole("button", { name: "Cable curl" }));
  expect(onTake).toHaveBeenCalledWith("Cable curl");
});

test("what stays the same is not said", async () => {
  await swaps([alternative("Cable curl", { minutes: 0.3 })]);
  const [line] = screen.getAllByRole("listitem");
  expect(line?.textContent).toBe("Cable curl");
});

test("what is not for this client says why", async () => {
  await swaps(
    [alternative("Cable curl")],
    [{ exercise: "x", name: "Bar curl", because: "loads a sore wrist" }],
  );
  expect(screen.getByText("1 is not for this client")).toBeTruthy();
  expect(screen.getByText("Bar curl loads a sore wrist.")).toBeTruthy();
});

test("where nothing else serves the region that is said", async () => {
  await swaps([]);
  expect(screen.getByText("Nothing else that serves Biceps, long head is allowed here today.")).toBeTruthy();
});
