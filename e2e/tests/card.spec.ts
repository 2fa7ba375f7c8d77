import type { Page } from "@playwright/test";
import { serious } from "./axe";
import { expect, freshRound, saveState, test } from "./practice";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
const readiness = { asked_on: "2026-03-01", yes: [] };

/** Every scheme on an exercise of its own, two of them in turns at the end. */
const CARDS = [
  { exercise: "flat-db-press", sets: 2, scheme: "ramp-top" },
  { exercise: "goblet-squat", sets: 3, scheme: "reverse-load" },
  { exercise: "db-curl", sets: 2, scheme: "drop" },
  { exercise: "db-side-raise", sets: 2, scheme: "partials" },
  { exercise: "supported-reverse-fly", sets: 2, scheme: "rest-pause" },
  { exercise: "incline-curl", sets: 2, scheme: "hold" },
  { exercise: "supported-db-row", sets: 2, scheme: "carry-between" },
  { exercise: "db-ulnar-deviation", sets: 1, scheme: "ladder" },
  { exercise: "db-wrist-extension", sets: 1, scheme: "split-range" },
  { exercise: "db-shrug", sets: 2, scheme: "timed" },
  { exercise: "hammer-curl", sets: 2, group: "A", written: { note: "Slowly down.", set_up: { bench_deg: 30 } } },
  { exercise: "db-overhead-ext", sets: 2, group: "A" },
];
const PARTS = ["Drop done", "Partials done", "Went again", "Held", "Carried"];

/** A client whose plan since this week has those cards today, and their private link. */
async function given(page: Page, name: string): Promise<{ id: string; token: string }> {
  const equipment = ["dumbbell", "incline-bench", "bench"];
  const round = await freshRound(page, name, { readiness, days_per_week: 7, equipment, max_exercises_per_session: 12 });
  const [, , id = "", , roundId] = round.split("/");
  const plan = await (await page.request.get(`/api/v1/rounds/${roundId}/plan`)).json();
  const today = ((new Date().getDay() + 6) % 7) + 1;
  const sessions = plan.week.sessions.map((day: { day: number; items: object[] }) =>
    day.day === today ? { ...day, items: CARDS } : { ...day, items: [] },
  );
  const week = { ...plan.week, sessions };
  const saved = await page.request.put(`/api/v1/rounds/${roundId}/plan`, { data: { revision: plan.revision, week } });
  expect(saved.status(), await saved.text()).toBe(200);
  const { revision } = await saved.json();
  const starts_on = new Date().toISOString().slice(0, 10);
  const issue = await page.request.post(`/api/v1/rounds/${roundId}/plan/issue`, { data: { revision, starts_on } });
  expect(issue.status(), await issue.text()).toBe(201);
  const link = await page.request.post(`/api/v1/clients/${id}/links`, { data: { days: 30 } });
  return { id, token: (await link.json()).token };
}

test("a session with every scheme is run as written, without a line, and its parts are logged", async ({ page, baseURL }) => {
  const { id, token } = await given(page, "Scheme Tester");
  const browser = page.context().browser();
  if (!browser) throw new Error("no browser");
  const context = await browser.newContext({ ...PHONE, storageState: { cookies: [], origins: [] } });
  const own = await context.newPage();
  await own.goto(`${baseURL}/my#${token}`);
  await own.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await own.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await context.setOffline(true);
  await own.reload();
  await own.getByRole("button", { name: /^Today/ }).click();
  await expect(own.getByText("Warm up", { exact: true })).toBeVisible();
  expect(await serious(own)).toEqual([]);
  await own.getByRole("button", { name: "Begin", exact: true }).click();
  const done = own.getByRole("button", { name: "Set done" });
  const name = own.getByRole("heading", { level: 2 });
  const seen: string[] = [];
  for (const end = own.getByRole("heading", { name: "Done?" }); !(await end.isVisible()); ) {
    const shown = (await name.textContent()) ?? "";
    if (!(await done.isVisible())) {
      await own.getByRole("button", { name: /^(Next|To the end)$/ }).click();
      await expect(name).not.toHaveText(shown);
      continue;
    }
    seen.push(shown);
    await own.getByLabel("Load, kg").fill("10");
    for (const part of PARTS) {
      const button = own.getByRole("button", { name: part, exact: true });
      if (await button.isVisible()) await button.click();
    }
    const before = await own.getByRole("list", { name: "Sets" }).innerText();
    await done.click();
    await expect
      .poll(async () => `${await name.textContent()} ${await own.getByRole("list", { name: "Sets" }).innerText().catch(() => "")}`)
      .not.toBe(`${shown} ${before}`);
  }
  // In turns: hammer curl, extension (one side after the other), hammer curl, extension.
  const turns = seen.map((shown) => shown.slice(0, 2)).filter((mark, place, all) => mark !== all[place - 1]);
  expect(turns.slice(-4)).toEqual(["A1", "A2", "A1", "A2"]);
  await own.getByLabel("A line to the coach").fill("All done.");
  await own.getByRole("button", { name: "Finish the session" }).click();
  await context.setOffline(false);
  await own.evaluate(() => window.dispatchEvent(new Event("online")));
  await expect(own.getByRole("status").first()).toHaveText("All sent");
  const log = await (await page.request.get(`/api/v1/clients/${id}/log`)).json();
  const [session] = log.done;
  expect([session.finished, session.conflicts, session.note]).toEqual([true, 0, "All done."]);
  const kinds = Object.fromEntries(
    session.exercises.map(({ entry }: { entry: { part: { exercise: string; sets: { parts?: { kind: string }[] }[] } } }) => [
      entry.part.exercise,
      entry.part.sets.flatMap(({ parts = [] }) => parts.map(({ kind }) => kind)),
    ]),
  );
  expect(kinds).toMatchObject({
    "db-curl": ["drop"],
    "db-side-raise": ["partials"],
    "supported-reverse-fly": ["pause"],
    "incline-curl": ["hold"],
    "flat-db-press": [],
  });
  expect(kinds["supported-db-row"]).toEqual(expect.arrayContaining(["carry"]));
  // The line stands in Today once, with its day.
  const lines = (await (await page.request.get("/api/v1/today")).json()).items.filter(
    (item: { kind: string; client_id: string }) => item.kind === "line" && item.client_id === id,
  );
  expect(lines.map(({ says }: { says: string }) => says)).toEqual(["“All done.”"]);
  await context.close();
});

test("cards are written on, done in turns and printed as written", async ({ page }) => {
  const round = await freshRound(page, "Card Tester", { readiness });
  await page.goto(`${round}/plan`);
  const day = page.getByRole("region", { name: /^Session 1/ });
  const cards = day.getByRole("listitem");
  await expect(cards.first()).toBeVisible();
  await page.keyboard.press("j");
  await page.keyboard.press("u");
  await expect(cards.nth(0)).toContainText("A1");
  await expect(cards.nth(1)).toContainText("A2");
  await page.keyboard.press("e");
  const panel = page.getByRole("region", { name: /^On the card/ });
  await panel.getByLabel(/^Repetitions/).fill("6-8");
  await panel.getByLabel(/^Lower-pause/).fill("3010");
  await panel.getByLabel("To the client").fill("Slowly down.");
  await expect(cards.first()).toContainText("6–8");
  await expect(cards.first()).toContainText("tempo 3-0-1-0");
  await panel.getByLabel(/^Repetitions/).fill("none");
  await panel.getByLabel(/^Repetitions/).blur();
  await expect(panel.getByRole("alert")).toHaveText("as in 8–12");
  await panel.getByLabel(/^Repetitions/).fill("6-8");
  await expect(saveState(page)).toHaveAttribute("data-state", "saved");
  expect(await serious(page)).toEqual([]);
  // Several at once: the second and third card rest alike.
  await page.getByRole("button", { name: "To the ledger" }).click();
  await page.keyboard.press("j");
  await page.keyboard.press("J");
  await page.getByRole("button", { name: "Write on all of them" }).click();
  await page.getByRole("region", { name: "On the card: 2 cards" }).getByLabel(/^Left in reserve/).fill("3");
  await expect(saveState(page)).toHaveAttribute("data-state", "saved");
  const [, , , , roundId] = round.split("/");
  const plan = await (await page.request.get(`/api/v1/rounds/${roundId}/plan`)).json();
  const [first, second, third] = plan.plan.sessions[0].items;
  expect([first.group, second.group, first.reps, first.tempo]).toEqual(["A", "A", [6, 8], [3, 0, 1, 0]]);
  expect([second.reserve, third.reserve]).toEqual([3, 3]);
  await page.goto(`${round}/plan/print`);
  await expect(page.getByText(/^A1\. /).first()).toBeVisible();
  await expect(page.getByText("Slowly down.").first()).toBeVisible();
});

test("coach and client write to each other, and each sees that the other has read it", async ({ page, baseURL }) => {
  const { id, token } = await given(page, "Message Tester");
  const browser = page.context().browser();
  if (!browser) throw new Error("no browser");
  const context = await browser.newContext({ ...PHONE, storageState: { cookies: [], origins: [] } });
  const own = await context.newPage();
  await own.goto(`${baseURL}/my#${token}`);
  await own.getByRole("button", { name: "Coach" }).click();
  await own.getByLabel("To your coach").fill("Away next week.");
  await own.getByRole("button", { name: "Send" }).click();
  await expect(own.getByText("Away next week.")).toBeVisible();
  await page.goto("/today");
  const line = page.getByRole("listitem").filter({ hasText: "Message Tester" }).filter({ hasText: "Away next week." });
  await line.getByRole("link").click();
  await expect(page).toHaveURL(new RegExp(`/clients/${id}/messages`));
  await page.getByLabel(/^To the client/).fill("Then two sessions at home.");
  await page.getByRole("button", { name: "Send" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "Then two sessions at home." })).toBeVisible();
  await own.reload();
  await expect(own.getByRole("button", { name: "Coach 1" })).toBeVisible();
  await own.getByRole("button", { name: "Coach 1" }).click();
  await expect(own.getByText("Then two sessions at home.")).toBeVisible();
  await expect(own.getByText(/seen/)).toHaveCount(1);
  expect(await serious(own)).toEqual([]);
  await page.goto("/today");
  await expect(line).toHaveCount(0);
  await context.close();
});
