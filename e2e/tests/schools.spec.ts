import { expect, freshRound, openStep, saveState, test } from "./practice";

test("an answer to a school is saved and changes the week's words", async ({ page }) => {
  await openStep(page, "Corvin Ashby", "Brief");
  await page.getByText(/37 questions, 0 answered/).click();
  await page.getByLabel("Where are the shoulder blades in rear-delt work?").click();
  await page.getByTitle("Set back and down").click();
  await expect(page.getByText("Rear-delt exercises are cued with the shoulder blades set.")).toBeVisible();
  await expect(saveState(page).first()).toHaveText("Saved");
  await page.reload();
  await expect(page.getByText(/37 questions, 1 answered/)).toBeVisible();
});

test("a small side measured twice is referred on the verdict, and the region says why it leans", async ({ page }) => {
  const round = await freshRound(page, "Lean Tester");
  const calf = (side: string, cm: number) => ({ site: "calf", side, readings_cm: [cm, cm] });
  await page.request.put(`/api/v1${round.replace(/\/clients\/[^/]+/, "")}/tape`, {
    data: { revision: 0, measured_by: "MT", folds: [], levels_cm: {}, entries: [calf("left", 34), calf("right", 37.6)] },
  });
  await page.goto(`${round}/verdict`);
  await expect(page.getByRole("alert")).toContainText(/Refer\. The sides of the calf differ by 10\.1 %/);
  await page.getByRole("button", { name: /^Gastrocnemius/ }).click();
  await expect(page.getByRole("complementary")).toContainText(/without it 0\.0 %, unclear/);
});

test("a dialog closes by its button and by Escape, and holds the keys meanwhile", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.getByText("3 of 3").waitFor();
  await page.keyboard.press("?");
  const dialog = page.getByRole("dialog", { name: "Keys" });
  await expect(dialog).toBeVisible();
  await page.keyboard.press("[");
  await expect(page.getByText("3 of 3"), "keys are left alone while a dialog is open").toBeVisible();
  await page.keyboard.press("Escape");
  await expect(dialog).toBeHidden();
  await page.keyboard.press("?");
  await dialog.getByRole("button", { name: "Close" }).click();
  await expect(dialog).toBeHidden();
});
