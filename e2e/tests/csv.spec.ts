import { expect, freshRound, reading, saveState, test } from "./practice";

const open = async (page: Parameters<typeof freshRound>[0], name: string) => {
  const round = await freshRound(page, name);
  await page.goto(`${round}/tape`);
  await page.getByRole("button", { name: "CSV…" }).click();
  return page.getByRole("dialog", { name: "Readings from a CSV file" });
};

test("a file is understood, taken in whole, and taken back by one step", async ({ page }) => {
  const dialog = await open(page, "Csv Tester");
  const text = "Site;Side;First;Second\nWaist;;81,5;81,7\nCalf;L;37,1;37,2\nCalf;R;37,4;37,3\ntriceps fold;right;9,2;9,4\n";
  await dialog
    .getByLabel("CSV file")
    .setInputFiles({ name: "tape.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await expect(dialog.getByRole("status")).toHaveText("4 lines understood.");
  await dialog.getByRole("button", { name: "Take 4 places in" }).click();
  await expect(reading(page, "Waist, reading 2")).toHaveValue("81.7");
  await expect(reading(page, "Triceps fold right, reading 1", "mm")).toHaveValue("9.2");
  await expect(saveState(page)).toHaveText("Saved");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(reading(page, "Calf left, reading 1")).toHaveValue("");
  await expect(saveState(page)).toHaveText("Saved");
});

test("every wrong line is explained, and nothing is taken in until they are put right", async ({ page }) => {
  const dialog = await open(page, "Wrong Csv");
  await dialog
    .getByLabel("Or paste it here")
    .fill("site,side,first,second\nwaist,,80.5,80.7\ncalf,,37,37\narm-flexed,left,374,376\nelbow,,14,14\ncalf,left,37,4,37,6\n");
  await expect(dialog.getByRole("alert")).toContainText("4 of 5 lines cannot be taken in");
  for (const says of [
    'calf has two sides: expected "left" or "right"',
    "374 cm is outside 15 to 75 cm for arm-flexed; did you mean 37.4 cm?",
    'there is no site "elbow": did you mean "elbow-breadth"?',
    "with decimal commas put semicolons between the columns",
  ])
    await expect(dialog.getByRole("cell", { name: says })).toBeVisible();
  await expect(dialog.getByRole("button", { name: "Take 0 places in" })).toBeDisabled();
  await page.keyboard.press("Escape");
  await expect(reading(page, "Waist, reading 1")).toHaveValue("");
});

test("columns are matched by the coach, and a unit is said once for the file", async ({ page }) => {
  const dialog = await open(page, "Match Tester");
  await dialog.getByLabel("Or paste it here").fill("a,b\n815,waist\n");
  await expect(dialog.getByRole("alert")).toContainText("no column is matched to");
  const choose = async (label: string, option: string) => {
    await dialog.getByLabel(label).click();
    await page.locator(".ant-select-dropdown:visible").getByTitle(option, { exact: true }).click();
  };
  await choose("Column 1 a", "Reading");
  await choose("Column 2 b", "Site");
  await choose("Unit of lines that name none", "mm");
  await dialog.getByRole("button", { name: "Take 1 place in" }).click();
  await expect(reading(page, "Waist, reading 1")).toHaveValue("81.5");
});

test("ten thousand lines are refused in a sentence", async ({ page }) => {
  const dialog = await open(page, "Long Csv");
  const rows = Array.from({ length: 10_000 }, (_, i) => `calf,left,${30 + (i % 5)}`).join("\n");
  await dialog
    .getByLabel("CSV file")
    .setInputFiles({ name: "long.csv", mimeType: "text/csv", buffer: Buffer.from(`site,side,value\n${rows}\n`) });
  await expect(dialog.getByRole("alert")).toContainText("10000 rows are more than one sheet holds");
  await expect(dialog.getByText("60 of 10000 lines are shown")).toBeVisible();
});
