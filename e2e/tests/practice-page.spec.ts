import { expect, openStep, saveState, test } from "./practice";

test("a number of the practice's own stands beside what ships, changes verdicts and goes back", async ({ page }) => {
  await page.goto("/practice");
  const act = page.getByLabel("Act on a girth difference from");
  await act.fill("6");
  await expect(page.getByText("shipped 3")).toBeVisible();
  await expect(saveState(page)).toHaveText("Saved");
  await openStep(page, "Bram Quillan", "Tape");
  await expect(page.getByRole("group", { name: "Upper arm, flexed" })).toContainText("real, small");
  await page.goto("/practice");
  await act.fill("60");
  await expect(page.getByRole("alert")).toContainText("act on a girth difference from of 60 is out of range: expected 1 to 10");
  await act.fill("");
  await expect(saveState(page)).toHaveText("Saved");
  await openStep(page, "Bram Quillan", "Tape");
  await expect(page.getByRole("group", { name: "Upper arm, flexed" })).toContainText("real, act");
});

test("shares of a girth that do not add to one are refused at their row", async ({ page }) => {
  await page.goto("/practice");
  await page.getByText("Shares of a girth by region; each row adds to 1.").click();
  const neck = page.getByRole("group", { name: "Neck", exact: true });
  await neck.getByLabel("Neck: Upper traps").fill("0.9");
  await expect(neck.getByRole("alert")).toContainText("the shares of neck add to 1.50: expected 1");
  await page.keyboard.press("Control+z");
  await expect(neck.getByText("adds to 1.00")).toBeVisible();
  await expect(saveState(page)).toHaveText("Saved");
});

test("each measurer's error is drawn over time and listed by site", async ({ page }) => {
  await page.goto("/practice");
  const measurers = page.getByRole("region", { name: "Who measures how well" });
  await expect(measurers.getByRole("slider", { name: /: error over time, %$/ })).toHaveCount(2);
  await measurers.getByText("By site").last().click();
  await expect(measurers.getByRole("row", { name: /Waist/ })).toBeVisible();
});

test("an assistant is added, signs in, and changes nothing of the practice", async ({ page, browser, baseURL }) => {
  await page.goto("/practice");
  await page.getByText("Add a person").first().click();
  await page.getByLabel("Name").fill("Jonah Vell");
  await page.getByLabel("Login").fill("jonah");
  await page.getByLabel("Password", { exact: true }).fill("short");
  await page.getByRole("button", { name: "Add a person" }).click();
  await expect(page.getByText("a password needs at least 10 characters")).toBeVisible();
  await page.getByLabel("Password", { exact: true }).fill("long enough now");
  await page.getByLabel("Role", { exact: true }).click();
  await page.locator(".ant-select-dropdown:visible").getByTitle("Assistant").click();
  await page.getByRole("button", { name: "Add a person" }).click();
  await expect(page.getByText("Jonah Vell can sign in.")).toBeVisible();
  const other = await browser.newContext({ baseURL, storageState: undefined });
  const theirs = await other.newPage();
  const signedIn = await theirs.request.post("/api/v1/session", {
    data: { login: "jonah", password: "long enough now" },
  });
  expect(signedIn.status()).toBe(200);
  await theirs.goto("/practice");
  await expect(theirs.getByText("Only the owner changes settings and people.").first()).toBeVisible();
  const refused = await theirs.request.put("/api/v1/practice", { data: { revision: 0, settings: {} } });
  expect(refused.status()).toBe(403);
  await other.close();
  await page.getByRole("button", { name: "Remove Jonah Vell…" }).click();
  await page.getByRole("button", { name: "Remove Jonah Vell", exact: true }).click();
  await expect(page.getByText("jonah", { exact: true })).toHaveCount(0);
});
