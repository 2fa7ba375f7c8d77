import { expect, openStep, test } from "./practice";

test("choosing on the verdict leads to a week with reasons, side order and a ledger", async ({ page }) => {
  await openStep(page, "Bram Quillan", "Verdict");
  await page.getByRole("button", { name: /^Biceps, long head/ }).click();
  await page.getByRole("button", { name: "Bring up", exact: true }).click();
  await page.getByRole("button", { name: "Make the week" }).click();
  await expect(page.getByRole("region", { name: /^Session/ })).toHaveCount(4);
  await expect(page.getByText("left first").first()).toBeVisible();
  const ledger = page.getByRole("complementary").getByRole("row", { name: /Biceps, long head/ });
  await expect(ledger).toContainText("bring up");
  await page.getByRole("button", { name: /Biceps, long head/ }).first().click();
  await expect(page.getByText(/is being brought up and is the main target here/).first()).toBeVisible();
  await expect(page.getByText(/The left side is smaller, so it goes first/).first()).toBeVisible();
});

test("the week prints one session a page with cues and a place to write", async ({ page }) => {
  await openStep(page, "Matteo Brask", "Plan");
  await page.getByRole("link", { name: "Print" }).click();
  await expect(page.getByRole("article")).toHaveCount(4);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("button", { name: "Print this page" })).toBeHidden();
  const pdf = await page.pdf({ format: "A4" });
  const pages = pdf.toString("latin1").match(/\/Type\s*\/Page[^s]/g) ?? [];
  expect(pages.length).toBeGreaterThanOrEqual(4);
});

test("without a choice the week says so", async ({ page }) => {
  await openStep(page, "Juno Halvard", "Plan");
  await expect(page.getByText(/Nothing is chosen to be brought up/)).toBeVisible();
});
