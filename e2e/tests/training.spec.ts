import type { BrowserContext, Page } from "@playwright/test";
import { serious } from "./axe";
import { boothPicture, expect, freshRound, openStep, test } from "./practice";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

/** A client with a plan since this week, trained with dumbbells, and their private link. */
async function linked(page: Page, name: string): Promise<{ id: string; token: string; round: string }> {
  const readiness = { asked_on: "2026-03-01", yes: [] };
  const round = await freshRound(page, name, { readiness, days_per_week: 7, minutes_per_session: 30 });
  const [, , id = "", , roundId] = round.split("/");
  const starts_on = new Date().toISOString().slice(0, 10);
  const issue = await page.request.post(`/api/v1/rounds/${roundId}/plan/issue`, { data: { revision: 0, starts_on } });
  expect(issue.status()).toBe(201);
  const link = await page.request.post(`/api/v1/clients/${id}/links`, { data: { days: 30 } });
  return { id, token: (await link.json()).token, round };
}

/** The client's own phone: nobody is signed in on it. */
async function phone(page: Page): Promise<[BrowserContext, Page]> {
  const browser = page.context().browser();
  if (!browser) throw new Error("no browser");
  const context = await browser.newContext({ ...PHONE, storageState: { cookies: [], origins: [] } });
  return [context, await context.newPage()];
}

const sync = (own: Page) => own.getByRole("status").first();

test("a session is logged with one thumb, without a line, and sent when there is one", async ({ page, baseURL }) => {
  const { id, token } = await linked(page, "Thumb Tester");
  const [context, own] = await phone(page);
  await own.goto(`${baseURL}/my#${token}`);
  await expect(own.getByRole("heading", { name: "Thumb Tester" })).toBeVisible();
  expect(own.url()).toBe(`${baseURL}/my`);
  expect(await serious(own)).toEqual([]);
  await own.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await own.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await context.setOffline(true);
  await own.reload();
  await expect(own.getByRole("heading", { name: "Thumb Tester" })).toBeVisible();
  await expect(own.getByText("No line to the studio.")).toBeVisible();
  await own.getByRole("button", { name: /^Today/ }).click();
  await own.getByRole("button", { name: "4", exact: true }).first().click();
  await own.getByRole("button", { name: "Begin", exact: true }).click();
  const load = own.getByLabel("Load, kg");
  await load.fill("12,5");
  // One set, or both sides of one: the rest comes after that.
  await own.getByRole("button", { name: "Set done" }).click();
  await expect(sync(own)).toHaveText("2 to send");
  await own.getByRole("button", { name: "Set done" }).click();
  await expect(own.getByRole("button", { name: "End the rest" })).toBeVisible();
  await expect(sync(own)).toHaveText("3 to send");
  // Closed and opened again on the way: the phone keeps both, and the rest runs on.
  await own.reload();
  await expect(sync(own)).toHaveText("3 to send");
  await own.getByRole("button", { name: /^Today/ }).click();
  // It opens where work is left, which is the next exercise if this one had no more than two sets.
  await own.getByRole("list", { name: "Exercises", exact: true }).getByRole("button").first().click();
  await expect(own.getByText("12.5 kg ×").first()).toBeVisible();
  await expect(own.getByRole("button", { name: "End the rest" })).toBeVisible();
  await context.setOffline(false);
  await own.evaluate(() => window.dispatchEvent(new Event("online")));
  await expect(sync(own)).toHaveText("All sent");
  const log = await (await page.request.get(`/api/v1/clients/${id}/log`)).json();
  expect(log.done).toHaveLength(1);
  expect(log.done[0].exercises[0].entry.part.sets[0].load_kg).toBe(12.5);
  expect(log.done[0].exercises[0].written_by).toBe("Thumb Tester");
  expect(log.done[0].sleep).toBe(4);
  await context.close();
});

test("pain takes two taps, stops the exercise, offers what spares the joint, and reaches the coach", async ({ page, baseURL }) => {
  const { token } = await linked(page, "Sore Tester");
  const [context, own] = await phone(page);
  await own.goto(`${baseURL}/my#${token}`);
  await own.getByRole("button", { name: /^Today/ }).click();
  await own.getByRole("button", { name: "Begin", exact: true }).click();
  await own.getByRole("button", { name: "It hurts" }).click();
  const sheet = own.getByRole("dialog", { name: "What hurts?" });
  if ((await sheet.locator("[aria-pressed=true]").count()) === 0) await sheet.getByRole("button", { name: "wrist" }).click();
  await sheet.getByRole("button", { name: "5", exact: true }).click();
  await expect(sheet.getByText("Stop this exercise.")).toBeVisible();
  expect(await serious(own)).toEqual([]);
  await sheet.getByRole("button", { name: "Done" }).click();
  await expect(own.getByRole("button", { name: "Set done" })).toHaveCount(0);
  await expect(sync(own)).toHaveText("All sent");
  await page.goto("/today");
  const line = page.getByRole("listitem").filter({ hasText: "Sore Tester" });
  await expect(line.first()).toContainText("pain 5 of 10");
  await line.first().getByRole("button", { name: /Seen to/ }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "pain 5 of 10" }).filter({ hasText: "Sore Tester" })).toHaveCount(0);
  await page.getByRole("button", { name: "Put back" }).click();
  await expect(line.first()).toContainText("pain 5 of 10");
  // The line leads to the card that hurts, marked, with what could stand in its place.
  await line.first().getByRole("link").click();
  await expect(page.getByRole("heading", { name: /^Instead of / })).toBeVisible();
  await expect(page.getByText(/hurt 5\/10 on .*: swap it/).filter({ visible: true }).first()).toBeVisible();
  await context.close();
});

test("a red flag says refer on the phone and stands first for the coach", async ({ page, baseURL }) => {
  const { token, round } = await linked(page, "Flag Tester");
  const [context, own] = await phone(page);
  await own.goto(`${baseURL}/my#${token}`);
  await own.getByRole("button", { name: /^Today/ }).click();
  await own.getByRole("button", { name: "Begin", exact: true }).click();
  await own.getByRole("button", { name: "It hurts" }).click();
  const sheet = own.getByRole("dialog", { name: "What hurts?" });
  await sheet.getByRole("button", { name: "shoulder" }).click();
  await sheet.getByRole("button", { name: "numb or tingling" }).click();
  await expect(sheet.getByText("see a doctor or physiotherapist")).toBeVisible();
  await sheet.getByRole("button", { name: "Done" }).click();
  await expect(sync(own)).toHaveText("All sent");
  await page.goto("/today");
  const refers = page.getByRole("listitem").filter({ hasText: "Refer" });
  await expect(refers.filter({ hasText: "Flag Tester" })).toHaveCount(1);
  await expect(page.getByRole("listitem").first()).toContainText("Refer");
  // It stops giving until somebody wrote what was done.
  await page.goto(`${round}/plan`);
  await expect(page.getByRole("alert")).toContainText("numbness");
  await expect(page.getByRole("button", { name: /^Give/ })).toBeDisabled();
  await page.goto("/today");
  const flagged = refers.filter({ hasText: "Flag Tester" });
  await flagged.getByRole("button", { name: /Seen to/ }).click();
  await flagged.getByRole("textbox", { name: "What was done about it:" }).fill("Called; sees a doctor on Friday.");
  await flagged.getByRole("button", { name: "Put away" }).click();
  await expect(flagged).toHaveCount(0);
  await page.goto(`${round}/plan`);
  await expect(page.getByRole("button", { name: /^Give/ })).toBeEnabled();
  await context.close();
});

test("a link that was taken back says so, and what is on the phone stays", async ({ page, baseURL }) => {
  const { token, round } = await linked(page, "Revoked Tester");
  const [context, own] = await phone(page);
  await own.goto(`${baseURL}/my#${token}`);
  await expect(own.getByRole("heading", { name: "Revoked Tester" })).toBeVisible();
  await page.goto(`${round}/log`);
  await page.getByRole("button", { name: "Take back" }).click();
  await expect(page.getByText(/taken back/)).toBeVisible();
  await own.getByRole("button", { name: /^Today/ }).click();
  await own.getByRole("button", { name: "Begin", exact: true }).click();
  await own.getByRole("button", { name: "Set done" }).click();
  await expect(own.getByText("This link was taken back by your coach")).toBeVisible();
  await expect(sync(own)).toHaveText("1 to send");
  await own.goto(`${baseURL}/my#${"0".repeat(64)}`);
  await expect(own.getByText("This link does not open anything")).toBeVisible();
  await context.close();
});

test("pictures are sent from the client's phone and wait for the coach", async ({ page, baseURL }) => {
  const today = new Date().toISOString().slice(0, 10);
  const photo_consent = { given_on: "2026-03-01", purposes: ["assessment", "sharing-with-client"] };
  const round = await freshRound(page, "Picture Tester", { photo_consent }, today);
  const [, , id = ""] = round.split("/");
  const link = await page.request.post(`/api/v1/clients/${id}/links`, { data: { days: 1 } });
  const [context, own] = await phone(page);
  await own.goto(`${baseURL}/my#${(await link.json()).token}`);
  await own.getByRole("button", { name: "Pictures" }).click();
  const front = own.getByLabel("Take the picture: Front relaxed");
  await front.setInputFiles({ name: "x.jpg", mimeType: "image/jpeg", buffer: Buffer.from("no picture") });
  await expect(own.getByRole("alert")).toBeVisible();
  await front.setInputFiles(boothPicture("F"));
  await expect(own.getByText("1 sent")).toBeVisible();
  expect(await serious(own)).toEqual([]);
  await own.getByRole("button", { name: "Shared" }).click();
  await expect(own.getByRole("img")).toBeVisible();
  await page.goto("/today");
  await expect(page.getByRole("listitem").filter({ hasText: "Picture Tester" })).toContainText("1 picture that nobody has judged");
  await context.close();
});

test("what two phones logged side by side is decided by the coach", async ({ page }) => {
  await openStep(page, "Bram Quillan", "Log");
  await expect(page.getByRole("region", { name: /logged twice/ })).toBeVisible();
  await page.getByRole("button", { name: "This one counts" }).first().click();
  await expect(page.getByRole("region", { name: /logged twice/ })).toHaveCount(0);
});

test("the coach says otherwise for next time, with a reason, and takes it back", async ({ page }) => {
  await openStep(page, "Rune Castellan", "Log");
  await page.getByRole("button", { name: "Say otherwise" }).first().click();
  const dialog = page.getByRole("dialog", { name: /^Next time/ });
  await dialog.getByLabel("Reps or seconds").fill("15");
  await expect(dialog.getByRole("button", { name: "Save" })).toBeDisabled();
  await dialog.getByLabel("Why (the client reads it)").fill("slower");
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Your coach says so: slower")).toBeVisible();
  await page.getByRole("button", { name: "Back to the rules" }).click();
  await expect(page.getByText("Your coach says so: slower")).toHaveCount(0);
});

test("a round is reviewed, decided and carried into the next one", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  const verdict = `/api/v1/rounds/${new URL(page.url()).pathname.split("/")[4]}`;
  const before = (await (await page.request.get(`${verdict}/verdict`)).json()).choices;
  await page.getByText("3 of 3").waitFor();
  await page.keyboard.press("[");
  await page.getByText("2 of 3").waitFor();
  await page.getByRole("link", { name: /^Review/ }).click();
  const calf = page.getByRole("article", { name: "Gastrocnemius" });
  await expect(calf).toContainText("within noise");
  await expect(calf.getByRole("radio", { checked: true })).toHaveCount(1);
  await calf.getByRole("radio", { name: /^Keep$/ }).check();
  await page.getByRole("checkbox", { name: "Soleus" }).check();
  expect(await serious(page)).toEqual([]);
  await page.getByRole("button", { name: /^Decide and carry/ }).click();
  // What was chosen there is asked about, and comes back as it was.
  await page.getByRole("dialog").getByRole("button", { name: "Put beside them" }).click();
  await expect(page.getByText("The next round has these choices.")).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByRole("button", { name: "Take it back" })).toHaveCount(0);
  const { choices } = await (await page.request.get(`${verdict}/verdict`)).json();
  expect(choices).toEqual(before);
  await page.getByRole("link", { name: "Review sheet" }).click();
  await expect(page.getByRole("heading", { name: "Review: Oda Fenwick" })).toBeVisible();
  await expect(page.getByRole("list", { name: "What moved, part by part" }).getByRole("listitem").first()).toBeVisible();
});

test("trends show every site, region and lift, and the same as a table", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Log");
  await page.getByRole("link", { name: "Trends" }).click();
  await expect(page.getByRole("slider", { name: /^calf left/ })).toBeVisible();
  expect(await serious(page)).toEqual([]);
  await page.getByText("Lifts", { exact: true }).click();
  await expect(page.getByRole("region", { name: "Trends" }).getByRole("listitem").first()).toContainText("kg");
  await page.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByRole("columnheader").first()).toBeVisible();
});

test("a client goes out as an archive and a practice as a backup", async ({ page }) => {
  await openStep(page, "Juno Halvard", "Log");
  const archive = page.waitForEvent("download");
  await page.getByRole("link", { name: "Archive" }).click();
  const path = await (await archive).path();
  await page.goto("/practice");
  await page.getByLabel("Take a client in…").setInputFiles({ name: "juno.zip", mimeType: "application/zip", buffer: await (await import("node:fs/promises")).readFile(path) });
  await expect(page.getByRole("alert")).toContainText("this client is here already");
  await page.getByLabel("Take a client in…").setInputFiles({ name: "x.zip", mimeType: "application/zip", buffer: Buffer.from("no zip") });
  await expect(page.getByRole("alert")).toContainText("no archive of Orthomer");
  const backup = page.waitForEvent("download");
  await page.getByRole("link", { name: "Backup" }).click();
  expect((await backup).suggestedFilename()).toMatch(/^orthomer-.*\.zip$/);
});
