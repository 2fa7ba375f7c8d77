import { expect, openStep, test } from "./practice";

test("a site opens to measured, expected and what it was judged from", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.getByRole("button", { name: /^Calf behind/ }).click();
  const detail = page.getByRole("complementary");
  await expect(detail).toContainText(/Measured\s*32\.\d cm/);
  await expect(detail).toContainText(/Expected\s*35\.\d cm/);
  await expect(detail).toContainText("stature, shoulder breadth");
  await expect(detail).toContainText("Gastrocnemius");
});

test("by key: down the line, open a region's evidence, bring it up", async ({ page }) => {
  await openStep(page, "Corvin Ashby", "Verdict");
  await page.getByRole("button", { name: /^Shoulders behind/ }).waitFor();
  await page.keyboard.press("j");
  await page.keyboard.press("j");
  const detail = page.getByRole("complementary");
  await expect(detail.getByRole("heading", { name: /Front delt/ })).toBeVisible();
  await expect(detail).toContainText(/Shoulders tape, size · without it/);
  await page.keyboard.press("b");
  await expect(page.getByText("2 of 3")).toBeVisible();
  await page.keyboard.press("b");
  await expect(page.getByText("1 of 3")).toBeVisible();
});

test("too little measured and what is taken out of every verdict are said before the chart", async ({ page }) => {
  await openStep(page, "Nadia Pell", "Verdict");
  await expect(page.getByText(/No size can be judged yet\. Missing: a breadth, or the girth of a wrist, knee or ankle/)).toBeVisible();
  await openStep(page, "Rune Castellan", "Verdict");
  await expect(page.getByText(/^General muscularity \+\d\.\d of this reference/)).toBeVisible();
  await openStep(page, "Tobin Achter", "Verdict");
  await expect(page.getByText(/The sides of the .* differ by \d+\.\d %.*refer before training it up/)).toBeVisible();
});

test("the chart has a table twin", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.getByText("The same as a table").click();
  await expect(page.getByRole("row", { name: /Gastrocnemius behind −/ })).toBeVisible();
});

test("a verdict is overruled with a reason, shown, kept, and taken back", async ({ page }) => {
  await openStep(page, "Juno Halvard", "Verdict");
  await page.getByRole("button", { name: /^Gastrocnemius/ }).click();
  const detail = page.getByRole("complementary");
  await detail.getByRole("button", { name: "Say otherwise…" }).click();
  await detail.getByRole("button", { name: "behind", exact: true }).click();
  await detail.getByLabel("Because").fill("short muscle bellies, seen on stage");
  await page.keyboard.press("Enter");
  await expect(detail).toContainText("You say: behind.");
  await page.reload();
  await page.getByRole("button", { name: /^Gastrocnemius/ }).click();
  await expect(detail).toContainText("short muscle bellies, seen on stage");
  await detail.getByRole("button", { name: "Take your verdict back" }).click();
  await expect(detail.getByRole("button", { name: "Say otherwise…" })).toBeVisible();
});

test("rows are laid by body or by need, girths fold, and keys do both", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.getByRole("button", { name: "Calf: 3 regions" }).click();
  await expect(page.getByRole("button", { name: /^Gastrocnemius/ })).toHaveCount(1);
  await page.keyboard.press("s");
  await expect(page.getByRole("button", { name: /Gastrocnemius · need 1\.\d\d/ })).toBeVisible();
  await page.keyboard.press("j");
  await expect(page.getByRole("complementary").getByRole("heading", { name: /Gastrocnemius/ })).toBeVisible();
  await page.keyboard.press("f");
  await expect(page.getByRole("img", { name: /Every region shaded/ })).toBeVisible();
});

test("a whole part is brought up by key, counts as one of three, and the week serves its heads", async ({ page }) => {
  await openStep(page, "Corvin Ashby", "Verdict");
  await page.getByRole("button", { name: /^Shoulders behind/ }).click();
  await page.keyboard.press("b");
  await expect(page.getByText("2 of 3")).toBeVisible();
  await expect(page.getByRole("button", { name: "all of Shoulders" })).toBeVisible();
  await expect(page.getByRole("status").first()).toHaveText("Saved");
  await page.getByRole("button", { name: "Make the week" }).click();
  const ledger = page.getByRole("region", { name: "Week's ledger" });
  await expect(ledger.getByRole("row", { name: /Rear delt/ })).toContainText("bring up");
  await page.goBack();
  await page.getByRole("button", { name: "Do not bring up: Shoulders" }).click();
  await expect(page.getByText("1 of 3")).toBeVisible();
  await expect(page.getByRole("status").first()).toHaveText("Saved");
});

test("a region tapped on the figure opens its evidence", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.locator('[data-region="calves.gastrocnemius"]').last().click();
  await expect(page.getByRole("complementary").getByRole("heading", { name: /Gastrocnemius behind/ })).toBeVisible();
});

test("each school says how short a girth is", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.getByRole("button", { name: /^Calf behind/ }).click();
  const detail = page.getByRole("complementary");
  await expect(detail.getByRole("row", { name: /Rest of this body.*cm short/ })).toBeVisible();
  await expect(detail.getByRole("row", { name: /Frame ratios.*cm short/ })).toBeVisible();
});

test("what the client sees is chosen part by part, kept, and nothing before", async ({ page }) => {
  await openStep(page, "Juno Halvard", "Verdict");
  await page.getByRole("button", { name: "Client sees nothing" }).click();
  await page.getByLabel("Left against right").check();
  await page.getByRole("button", { name: "Close" }).click();
  await expect(page.getByRole("button", { name: "Client sees sides" })).toBeVisible();
  await expect(page.getByRole("status").first()).toHaveText("Saved");
  await page.reload();
  await page.getByRole("button", { name: "Client sees sides" }).click();
  await page.getByLabel("Left against right").uncheck();
  await expect(page.getByRole("button", { name: "Client sees nothing" })).toHaveCount(1);
});

test("a choice is taken back by one step", async ({ page }) => {
  await openStep(page, "Juno Halvard", "Verdict");
  await page.getByRole("button", { name: /^Soleus/ }).click();
  await page.keyboard.press("b");
  await expect(page.getByText("1 of 3")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByText("0 of 3")).toBeVisible();
});

test("a link copied from the verdict, the trends or the library leads to the same again", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.getByRole("button", { name: /^Calf behind/ }).click();
  await page.getByText("By need", { exact: true }).click();
  await expect(page).toHaveURL(/\/verdict\?site=calf&order=need$/);
  await page.reload();
  await expect(page.getByRole("complementary")).toContainText(/Measured\s*32\.\d cm/);
  await expect(page.getByRole("radio", { name: "By need" })).toBeChecked();
  await page.goto(page.url().replace(/verdict.*/, "trends?part=regions&as=table"));
  await expect(page.getByRole("radio", { name: "Regions" })).toBeChecked();
  await expect(page.getByRole("columnheader").first()).toBeVisible();
  await page.goto("/library?region=biceps.long");
  await page.getByLabel("Find an exercise").fill("incline");
  await expect(page).toHaveURL(/region=biceps\.long&find=incline/);
  await page.reload();
  await expect(page.getByLabel("Find an exercise")).toHaveValue("incline");
});
