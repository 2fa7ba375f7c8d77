// What is typed stays its owner's and is never lost: without a line, with a session that ended, in two tabs, before a form is sent.
import type { BrowserContext, Page } from "@playwright/test";
import { expect, freshRound, reading, saveState, test } from "./practice";

const WAIST = "Waist, reading 1";
const HIPS = "Hips, reading 1";
const SECOND = { name: "Ines Corvell", login: "ines", password: "measured twice a day" };

async function signInAgain(page: Page, login: string, password: string): Promise<void> {
  const dialog = page.getByRole("dialog", { name: "Sign in again" });
  await dialog.getByLabel("Login").fill(login);
  await dialog.getByLabel("Password", { exact: true }).fill(password);
  await dialog.getByRole("button", { name: "Sign in" }).click();
}

/** The session is gone: an answer that was on its way may bring it back once more. */
async function endSession(context: BrowserContext): Promise<void> {
  await expect
    .poll(async () => {
      await context.clearCookies();
      await new Promise((gone) => setTimeout(gone, 300));
      return (await context.cookies()).length;
    })
    .toBe(0);
}

test("a browser that thinks it is offline saves to a server it can reach", async ({ page }) => {
  await page.addInitScript(() => Object.defineProperty(navigator, "onLine", { get: () => false }));
  const round = await freshRound(page, "Basement Tester");
  await page.goto(`${round}/tape`);
  await page.evaluate(() => window.dispatchEvent(new Event("offline")));
  await reading(page, WAIST).fill("80.5");
  await expect(saveState(page)).toHaveText("Saved");
  await page.reload();
  await expect(reading(page, WAIST)).toHaveValue("80.5");
});

test("a sheet whose session ended asks for it in place, and then saves", async ({ page, context }) => {
  const round = await freshRound(page, "Expired Tester");
  await page.goto(`${round}/tape`);
  await reading(page, HIPS).fill("98.5");
  await expect(saveState(page)).toHaveText("Saved");
  await endSession(context);
  await reading(page, WAIST).fill("80.5");
  await signInAgain(page, "mara", "plumb-line-demo");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(reading(page, WAIST), "the page is the one that was left").toHaveValue("80.5");
  await expect(saveState(page)).toHaveText("Saved");
  await page.reload();
  await expect(reading(page, WAIST)).toHaveValue("80.5");
});

test("whoever signs in after somebody else starts clean, and is told that a sheet waits", async ({ page, context }) => {
  const round = await freshRound(page, "Shared Desk Tester");
  const made = await page.request.post("/api/v1/practice/people", { data: { ...SECOND, role: "coach" } });
  expect(made.status(), await made.text()).toBe(201);
  await page.goto(`${round}/tape`);
  await reading(page, HIPS).fill("98.5");
  await expect(saveState(page)).toHaveText("Saved");
  await endSession(context);
  await reading(page, WAIST).fill("80.5");
  await signInAgain(page, SECOND.login, SECOND.password);
  await expect(reading(page, HIPS)).toHaveValue("98.5");
  await expect(reading(page, WAIST), "not theirs to send").toHaveValue("");
  await expect(page.getByText("One sheet that somebody else typed here is not saved")).toBeVisible();
  await endSession(context);
  await reading(page, HIPS).fill("99");
  await signInAgain(page, "mara", "plumb-line-demo");
  await expect(reading(page, WAIST), "and there again for whoever typed it").toHaveValue("80.5");
  await expect(saveState(page)).toHaveText("Saved");
});

test("two tabs that change different fields are put together; the same field is asked about by name and value", async ({
  page,
  context,
}) => {
  const round = await freshRound(page, "Merge Tester");
  await page.goto(`${round}/tape`);
  await reading(page, WAIST).fill("80.0");
  await expect(saveState(page)).toHaveText("Saved");
  const other = await context.newPage();
  await other.goto(`${round}/tape`);
  await reading(other, HIPS).fill("98.0");
  await expect(saveState(other)).toHaveText("Saved");
  await reading(page, "Chest, reading 1").fill("102");
  await expect(reading(page, HIPS)).toHaveValue("98.0");
  await expect(saveState(page)).toHaveText("Saved");
  await expect(page.getByRole("alert")).toHaveCount(0);
  await reading(other, WAIST).fill("81.0");
  await expect(saveState(other)).toHaveText("Saved");
  await reading(page, WAIST).fill("82.0");
  await expect(page.getByRole("alert")).toContainText(/Waist, reading 1, cm: you typed 82.0, stored is 81.0/);
  await page.getByRole("button", { name: "Keep what I typed" }).click();
  await expect(saveState(page)).toHaveText("Saved");
});

test("fields and tabs that listen to devices share one line", async ({ page, context }) => {
  const feeds: string[] = [];
  context.on("request", (request) => request.url().endsWith("/devices/feed") && feeds.push(request.url()));
  const round = await freshRound(page, "One Line Tester");
  await page.goto(`${round}/tape`);
  await page.getByRole("switch", { name: /device/i }).click();
  await expect(page.getByText("listening")).toBeVisible();
  const other = await context.newPage();
  await other.goto(`${round}/tape`);
  await expect(other.getByText("listening")).toBeVisible();
  expect(feeds).toHaveLength(1);
  await page.close();
  await expect.poll(() => feeds.length, { message: "the other tab takes over" }).toBe(2);
  await expect(other.getByText("listening")).toBeVisible();
});

test("a client half written down is there when the page is opened again", async ({ page }) => {
  await page.goto("/clients/new");
  await page.getByLabel("Name").fill("Half Written");
  await page.getByLabel("Stature, cm").fill("181,5");
  await page.getByLabel("Name").press("Tab");
  await page.goto("/clients");
  await page.goto("/clients/new");
  await expect(page.getByLabel("Name")).toHaveValue("Half Written");
  await expect(page.getByLabel("Stature, cm")).toHaveValue("181.5");
  await page.getByRole("button", { name: "Start over with an empty one" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("");
});

test("every page says its name, and moving puts the focus on its heading", async ({ page }) => {
  await page.goto("/today");
  await expect(page).toHaveTitle("Today · Orthomer");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "Skip to content" }), "seen as soon as it has the focus").toBeInViewport();
  for (const [place, heading] of [["Clients", "Clients"], ["Library", "Library"], ["Practice", "Practice"]] as const) {
    await page.getByRole("navigation", { name: "Orthomer" }).getByRole("link", { name: place }).click();
    await expect(page).toHaveTitle(`${heading} · Orthomer`);
    await expect(page.getByRole("heading", { level: 1, name: heading })).toBeFocused();
  }
});
