import { expect, freshRound, test } from "./practice";

test("a brief is saved, and what is wrong stands at its field", async ({ page }) => {
  const round = await freshRound(page, "Brief Tester");
  await page.goto(`${round}/brief`);
  await page.getByLabel("Stature, cm").fill("17.8");
  await page.getByRole("button", { name: "Save the brief" }).click();
  const said = "a stature of 17.8 cm is out of range: expected 120 to 230 cm";
  await expect(page.locator(".ant-form-item-explain-error", { hasText: said })).toBeVisible();
  await page.getByLabel("Stature, cm").fill("181");
  await page.getByLabel("Days a week").fill("5");
  await page.getByRole("button", { name: "Home: bands only" }).click();
  await page.getByRole("button", { name: "Save the brief" }).click();
  await expect(page.getByText("Brief saved.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Stature, cm")).toHaveValue(/^181(\.0)?$/);
  await expect(page.getByRole("button", { name: "Bands", exact: true })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: "Dumbbells", exact: true })).toHaveAttribute("aria-pressed", "false");
  await expect(page.getByRole("link", { name: /^Brief/ })).toContainText("5 days a week");
});

test("a new client is added and the first round opened", async ({ page }) => {
  await page.goto("/clients/new");
  await page.getByLabel("Name").fill("Wren Tallis");
  await page.getByLabel("Date of birth").fill("1996-04-05");
  await page.getByRole("button", { name: "Add the client" }).click();
  await page.getByRole("button", { name: "Open a round" }).click();
  await page.getByLabel("Who holds the tape").fill("MT");
  await page.getByRole("button", { name: "Open the round" }).click();
  await expect(page).toHaveURL(/\/tape$/);
  await expect(page.getByRole("heading", { name: "Wren Tallis" })).toBeVisible();
});
