import { expect, freshRound, reading, saveState, test } from "./practice";

test("a sheet is typed from the keyboard: Enter goes on, it is checked and saved on the way", async ({ page }) => {
  const round = await freshRound(page, "Tape Tester");
  await page.goto(`${round}/tape`);
  await reading(page, "Upper arm, flexed left, reading 1").focus();
  for (const text of ["36,2", "36.3", "37.8", "37.7"]) {
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  }
  await expect(reading(page, "Forearm left, reading 1")).toBeFocused();
  const row = page.getByRole("group", { name: "Upper arm, flexed" });
  await expect(row).toContainText("0.3 %");
  await expect(row).toContainText(/R \+4\.1 % real, act/);
  await expect(saveState(page)).toHaveText("Saved");
  await page.reload();
  await expect(reading(page, "Upper arm, flexed left, reading 1")).toHaveValue("36.2");
});

test("two readings too far apart ask for a third, and the median counts", async ({ page }) => {
  const round = await freshRound(page, "Third Tester");
  await page.goto(`${round}/tape`);
  await reading(page, "Waist, reading 1").fill("80");
  await reading(page, "Waist, reading 2").fill("82");
  const row = page.getByRole("group", { name: "Waist" });
  await expect(row).toContainText("the two readings differ by 2.5 %: take a third.");
  await reading(page, "Waist, reading 3").fill("80.2");
  await expect(row).not.toContainText("take a third");
});

test("a slipped decimal point is named at its field, and everything else is saved", async ({ page }) => {
  const round = await freshRound(page, "Slip Tester");
  await page.goto(`${round}/tape`);
  await reading(page, "Waist, reading 1").fill("81.5");
  await reading(page, "Upper arm, flexed left, reading 1").fill("374");
  await expect(page.getByText("374 cm is outside 15 to 75 cm for arm-flexed; did you mean 37.4?")).toBeVisible();
  await expect(saveState(page)).toHaveText("1 field not saved: see below");
  await reading(page, "Calf left, reading 1").fill("3x");
  await expect(page.getByText("“3x” is not a number: type centimetres, such as 37.4.")).toBeVisible();
  await page.reload();
  await expect(reading(page, "Waist, reading 1")).toHaveValue("81.5");
  await expect(reading(page, "Upper arm, flexed left, reading 1"), "typing outlives a closed tab").toHaveValue("374");
});

test("of two tabs saving the same sheet the later one is told and decides", async ({ page, context }) => {
  const round = await freshRound(page, "Two Tabs");
  await page.goto(`${round}/tape`);
  const other = await context.newPage();
  await other.goto(`${round}/tape`);
  await reading(other, "Waist, reading 1").fill("80.0");
  await expect(saveState(other)).toHaveText("Saved");
  await reading(page, "Waist, reading 1").fill("85.0");
  await expect(page.getByRole("alert")).toContainText("was saved by Mara Tellwright since you opened it");
  await page.getByRole("button", { name: "Take what is stored" }).click();
  await expect(reading(page, "Waist, reading 1")).toHaveValue("80.0");
  await reading(page, "Hips, reading 1").fill("99.0");
  await expect(saveState(page)).toHaveText("Saved");
  await reading(other, "Waist, reading 1").fill("81.0");
  await other.getByRole("button", { name: "Keep what I typed" }).click();
  await expect(saveState(other)).toHaveText("Saved");
});
