import { writeFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { boothPicture as picture, expect, freshRound, test } from "./practice";

const CONSENT = { photo_consent: { given_on: "2026-01-10", purposes: ["assessment"] } };
/** Drawing and looking on two busy cores. */
const LOOKED_MS = 60_000;

async function add(page: Page, files: string[]) {
  const chooser = page.waitForEvent("filechooser");
  await page.getByRole("button", { name: "Add pictures" }).click();
  await (await chooser).setFiles(files);
}

/** A round with pictures taken by the stand-in camera. */
async function photographed(page: Page, name: string, poses: string[]): Promise<string> {
  const round = await freshRound(page, name, CONSENT);
  for (const pose of poses) await page.request.post(`/api/v1/rounds/${round.split("/")[4]}/booth?pose=${pose}`);
  return round;
}

const widths = (page: Page) => page.getByRole("table", { name: /^Widths/ });
const table = (page: Page) => page.getByRole("region", { name: "Photos" });

test("pictures come in beside one that is refused, are looked at, and are judged by key", async ({ page }) => {
  const round = await freshRound(page, "Wystan Orme", CONSENT);
  await page.goto(`${round}/photos`);
  await expect(page.getByText("No pictures in this round yet.")).toBeVisible();
  const note = "test-results/note.jpg";
  writeFileSync(note, "see attached");
  await add(page, [picture("F"), note, picture("B")]);
  const tray = page.getByRole("region", { name: "Coming in" });
  await expect(tray.getByRole("alert")).toContainText("it is a text file");
  await expect(tray.getByRole("listitem")).toHaveCount(3);
  await expect(page.getByRole("button", { name: /Front relaxed/ })).toBeVisible({ timeout: LOOKED_MS });
  await expect(page.getByRole("button", { name: /Back relaxed/ })).toBeVisible({ timeout: LOOKED_MS });
  await tray.getByRole("button", { name: "Close" }).click();

  await expect(page.getByText("Left and right count once it is said", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "None of this round's pictures" }).click();
  await expect(page.getByRole("group", { name: "Left against right" })).toBeVisible();
  await page.getByRole("button", { name: /^Side delt/ }).click();
  await expect(page.getByRole("heading", { name: "Side delt", exact: true })).toBeVisible();
  await page.keyboard.press("2");
  await expect(page.getByRole("button", { name: "behind", pressed: true })).toBeVisible();
  await page.keyboard.press("7");
  await expect(page.getByRole("heading", { name: "Rear delt", exact: true })).toBeVisible();
  await expect(page.getByText(/^1 of \d+ judged$/)).toBeVisible();
  await expect(page.getByRole("link", { name: /^Photos/ })).toContainText("2 pictures, 2 ratings");

  await page.goto(`${round}/verdict`);
  const case_ = await (await page.request.get(`/api/v1/rounds/${round.split("/")[4]}/case`)).json();
  expect(case_.rounds[0].ratings).toMatchObject([
    { region: "delts.lateral", pose: "F", left_right: 1 },
    { region: "delts.lateral", pose: "F", score: -1 },
  ]);
  // The demo's coach has judged blind before: what her eye is worth goes with the rating.
  expect(case_.rounds[0].ratings[1].rater_sd_steps).toBeLessThan(0.875);
});

test("a landmark is nudged by key, measured again, and undone", async ({ page }) => {
  await page.goto(`${await photographed(page, "Ansel Quay", ["F"])}/photos`);
  const waist = widths(page).getByRole("row", { name: /^Waist/ });
  await waist.waitFor({ timeout: LOOKED_MS });
  const before = await waist.innerText();
  await page.getByText("Landmarks", { exact: true }).click();
  const edge = page.getByRole("button", { name: /^Waist edge, left/ });
  await edge.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("Shift+ArrowRight");
  await expect(waist).not.toHaveText(before);
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => waist.innerText()).toBe(before);
});

test("a landmark is dragged, and the outline painted over", async ({ page }) => {
  await page.goto(`${await photographed(page, "Iver Pollard", ["F"])}/photos`);
  const waist = widths(page).getByRole("row", { name: /^Waist/ });
  await waist.waitFor({ timeout: LOOKED_MS });
  const before = await waist.innerText();
  await page.getByText("Landmarks", { exact: true }).click();
  const box = await page.getByRole("button", { name: /^Waist edge, left/ }).boundingBox();
  if (!box) throw new Error("the landmark has no place on the page");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 15, y, { steps: 4 });
  await page.mouse.up();
  await expect(waist).not.toHaveText(before);
  await page.getByRole("button", { name: "Back to what was found" }).click();
  await expect.poll(() => waist.innerText()).toBe(before);

  await page.getByText("Outline", { exact: true }).click();
  await page.mouse.move(x + 3, y - 20);
  await page.mouse.down();
  await page.mouse.move(x + 3, y + 20, { steps: 6 });
  await page.mouse.up();
  await expect(waist).not.toHaveText(before);
  await page.keyboard.press("u");
  await expect.poll(() => waist.innerText()).toBe(before);
});

test("two rounds lie on the table in five ways", async ({ page }) => {
  const first = await photographed(page, "Clement Rowe", ["F"]);
  const client = first.split("/")[2];
  const later = await page.request.post(`/api/v1/clients/${client}/rounds`, {
    data: { date: "2026-04-06", measured_by: "MT" },
  });
  const id = (await later.json()).id;
  await page.request.post(`/api/v1/rounds/${id}/booth?pose=F`);
  await page.goto(`/clients/${client}/rounds/${id}/photos`);
  await expect(table(page).getByRole("figure")).toHaveCount(2, { timeout: LOOKED_MS });
  await expect(widths(page).getByRole("row", { name: /^Hips/ })).toContainText(/[+−]?\d\.\d since 2 Mar ±\d\.\d/);

  await page.keyboard.press("m");
  await expect(table(page).getByRole("figure")).toHaveCount(1);
  await expect(page.getByRole("radio", { name: "Alternate" })).toBeChecked();
  await page.keyboard.press("m");
  const edge = page.getByRole("slider", { name: "Where the two pictures meet" });
  await edge.focus();
  await page.keyboard.press("ArrowLeft");
  await expect(edge).toHaveAttribute("aria-valuenow", "48");
  await page.keyboard.press("m");
  await expect(page.getByText("The left half, mirrored, over the other")).toBeVisible();
  await page.getByRole("button", { name: "Other half on top" }).click();
  await expect(page.getByText("The right half, mirrored, over the other")).toBeVisible();
  await page.keyboard.press("m");
  await expect(page.getByText(/Then 2 Mar 2026/)).toBeVisible();

  // Both windows move together.
  await page.keyboard.press("m");
  const shown = () => table(page).locator("figure img").evaluateAll((all) => all.map((img) => (img as HTMLElement).style.transform.split(" scale")[0]));
  const start = await shown();
  const pane = await table(page).getByRole("figure").first().boundingBox();
  if (!pane) throw new Error("no pane");
  await page.mouse.move(pane.x + 100, pane.y + 60);
  await page.mouse.down();
  await page.mouse.move(pane.x + 140, pane.y + 90, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await shown())[0]).not.toBe(start[0]);
  const after = await shown();
  expect(after[0]).toBe(after[1]);
  await page.keyboard.press("f");
  await expect.poll(shown).toEqual(start);
});

test("without consent nothing is taken in; recorded in the brief it is; withdrawn, every picture goes", async ({ page }) => {
  const round = await freshRound(page, "Odile Marsh");
  await page.goto(`${round}/photos`);
  await expect(page.getByRole("alert")).toContainText("There is no consent to photos for assessment");
  await expect(page.getByRole("button", { name: "Add pictures" })).toBeDisabled();
  await page.getByRole("link", { name: "Go to the brief" }).click();
  await page.getByRole("button", { name: "Record consent" }).click();
  await page.getByRole("checkbox", { name: "assessment" }).click();
  // Refused until the consent is stored, which takes a moment.
  const taken = () => page.request.post(`/api/v1/rounds/${round.split("/")[4]}/booth?pose=B`);
  await expect.poll(async () => (await taken()).ok()).toBe(true);
  await page.getByRole("link", { name: /^Photos/ }).click();
  await expect(page.getByRole("button", { name: /Back relaxed/ })).toBeVisible({ timeout: LOOKED_MS });

  await page.getByRole("link", { name: /^Brief/ }).click();
  await page.getByRole("button", { name: "Withdraw consent" }).click();
  const dialog = page.getByRole("dialog", { name: "Withdraw consent" });
  await expect(dialog).toContainText("every picture of Odile Marsh");
  await dialog.getByRole("button", { name: "Withdraw and remove" }).click();
  await expect(page.getByText("Consent withdrawn; 1 picture removed.")).toBeVisible();
  await page.getByRole("link", { name: /^Photos/ }).click();
  await expect(page.getByText("There is no consent to photos for assessment", { exact: false })).toBeVisible();
});

test("of two pictures of a pose the coach lets the older one count, and it stays so", async ({ page }) => {
  await page.goto(`${await photographed(page, "Two Takes", ["F", "F"])}/photos`);
  const which = page.getByRole("combobox", { name: "Which picture of this pose" });
  const shown = (text: string) => expect(page.getByText(text, { exact: true }).first()).toBeVisible({ timeout: LOOKED_MS });
  await shown("picture 2 of 2, counts");
  await expect(page.getByRole("button", { name: "Let it count" })).toHaveCount(0);
  await which.click();
  await page.getByText("picture 1 of 2", { exact: true }).last().click();
  await page.getByRole("button", { name: "Let it count" }).click();
  await shown("picture 1 of 2, counts");
  await page.goto(page.url().replace(/\?.*/, ""));
  await shown("picture 1 of 2, counts");
});

test("one picture is removed after being asked", async ({ page }) => {
  await page.goto(`${await photographed(page, "Basil Thrower", ["F"])}/photos`);
  await page.getByRole("button", { name: "Remove the picture" }).click({ timeout: LOOKED_MS });
  await page.getByRole("button", { name: "Remove for good" }).click();
  await expect(page.getByText("No pictures in this round yet.")).toBeVisible();
});

test("ratings of the demo's coach are known, and none is due without pictures", async ({ page }) => {
  await page.goto(`${await photographed(page, "Greer Holt", ["B"])}/photos/again`);
  await expect(page.getByText(/\d+ repeats: 0\.\d\d steps apart/)).toBeVisible();
  await expect(page.getByText("Nothing is due")).toBeVisible();
});

test("on a phone pictures can be taken and added, and nothing scrolls sideways", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${await photographed(page, "Petra Lund", ["F"])}/photos`);
  await expect(page.getByRole("button", { name: "Take them now" })).toBeVisible();
  await widths(page).getByRole("row", { name: /^Waist/ }).waitFor({ timeout: LOOKED_MS });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

for (const tool of ["Judge", "Landmarks", "Outline"]) {
  test(`axe finds nothing serious on the light table, ${tool}`, async ({ page }) => {
    await page.goto(`${await photographed(page, `Table of ${tool}`, ["F"])}/photos`);
    await widths(page).getByRole("row", { name: /^Waist/ }).waitFor({ timeout: LOOKED_MS });
    await page.getByText(tool, { exact: true }).click();
    const { violations } = await new AxeBuilder({ page }).analyze();
    const serious = violations.filter(({ impact }) => impact === "serious" || impact === "critical");
    expect(serious.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
  });
}

test("a client whom nobody has taped has girths and a verdict from pictures, and what is not seen has its reason", async ({
  page,
}) => {
  const round = await photographed(page, "Ottoline Verrin", ["F", "SL"]);
  await page.goto(`${round}/photos`);
  const girths = page.getByRole("region", { name: "Girths from these pictures" });
  const waist = girths.getByRole("row", { name: /^Waist/ });
  await expect(waist).toContainText("front and side", { timeout: LOOKED_MS });
  await expect(waist).toContainText("±");
  await expect(girths.getByText("no picture of a double biceps shows the bent arm")).toBeVisible();
  await expect(girths.getByText(/32 made-up bodies/)).toBeVisible();

  await page.goto(`${round}/verdict`);
  await expect(page.getByRole("button", { name: /^Calf .* from pictures$/ })).toBeVisible();
  await page.getByRole("button", { name: /^Calf .* from pictures$/ }).click();
  await expect(page.getByText(/^From pictures \d/)).toBeVisible();

  await page.goto(round.replace(/rounds\/.*/, `rounds/${round.split("/")[4]}/trends`));
  await expect(page.getByRole("slider", { name: /^calf left/ })).toHaveAttribute("aria-valuetext", /from pictures$/);
});
