import { expect, freshRound, saveState, test } from "./practice";

test("a brief is kept on the way, and what is wrong stands at its field", async ({ page }) => {
  const round = await freshRound(page, "Brief Tester");
  await page.goto(`${round}/brief`);
  await page.getByLabel("Stature, cm").fill("17.8");
  const said = "a stature of 17.8 cm is out of range: expected 120 to 230 cm";
  await expect(page.locator(".ant-form-item-explain-error", { hasText: said })).toBeVisible();
  await expect(saveState(page).first()).toHaveText(`Not saved: ${said}`);
  await page.getByLabel("Stature, cm").fill("181");
  await page.getByLabel("Days a week", { exact: true }).fill("5");
  await page.getByRole("button", { name: "Home: bands only" }).click();
  await expect(saveState(page).first()).toHaveText("Saved");
  await expect(page.locator(".ant-form-item-explain-error")).toHaveCount(0);
  await page.reload();
  await expect(page.getByLabel("Stature, cm")).toHaveValue(/^181(\.0)?$/);
  await expect(page.getByRole("button", { name: "Bands", exact: true })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: "Dumbbells", exact: true })).toHaveAttribute("aria-pressed", "false");
});

test("a step back brings a kit back, and forth again", async ({ page }) => {
  const round = await freshRound(page, "Undo Tester");
  await page.goto(`${round}/brief`);
  const dumbbells = page.getByRole("button", { name: "Dumbbells", exact: true });
  await page.getByRole("button", { name: "Home: bands only" }).click();
  await expect(dumbbells).toHaveAttribute("aria-pressed", "false");
  await page.keyboard.press("Control+z");
  await expect(dumbbells).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("Control+y");
  await expect(dumbbells).toHaveAttribute("aria-pressed", "false");
  await expect(saveState(page).first()).toHaveText("Saved");
});

test("a look's weight is changed on the figure, by list and by buttons, and goes back to the look's", async ({ page }) => {
  const round = await freshRound(page, "Look Tester");
  await page.goto(`${round}/brief`);
  await page.locator('[data-region="calves.soleus"]').first().click();
  const soleus = page.getByRole("listitem").filter({ hasText: "Soleus" });
  for (let i = 0; i < 4; i += 1) await soleus.getByRole("button", { name: "Soleus more" }).click();
  await expect(soleus).toContainText("×1.4");
  await expect(saveState(page).first()).toHaveText("Saved");
  await page.reload();
  await expect(soleus).toContainText("×1.4");
  await page.getByRole("button", { name: "1 weight back to the look's" }).click();
  await expect(soleus).toHaveCount(0);
});

test("days at home have their own equipment, and the week's last sessions use nothing else", async ({ page }) => {
  const round = await freshRound(page, "Home Tester");
  await page.goto(`${round}/brief`);
  await page.getByText("At home", { exact: true }).click();
  await page.getByRole("button", { name: "Some of it is at home" }).click();
  await page.getByRole("button", { name: "Home: bands only" }).click();
  await expect(page.getByText("At home, 1 day")).toBeVisible();
  await expect(saveState(page).first()).toHaveText("Saved");
  const plan = await (await page.request.get(`/api/v1${round.replace(/\/clients\/[^/]+/, "")}/plan`)).json();
  const atlas = await (await page.request.get("/api/v1/atlas")).json();
  const home = plan.plan.sessions.filter((session: { home?: boolean }) => session.home);
  expect(home).toHaveLength(1);
  const needs = home[0].items.flatMap(
    ({ exercise }: { exercise: string }) =>
      atlas.exercises.find(({ id }: { id: string }) => id === exercise).equipment,
  );
  expect(needs.filter((item: string) => item !== "band" && item !== "bodyweight")).toEqual([]);
});

test("a yes to a readiness question keeps the plan a draft until the clearance is recorded", async ({ page }) => {
  const round = await freshRound(page, "Ready Tester");
  const draft = async () =>
    (await (await page.request.get(`/api/v1${round.replace(/\/clients\/[^/]+/, "")}/plan`)).json()).draft_because;
  expect(await draft()).toContain("are not answered yet");
  await page.goto(`${round}/brief`);
  await page.getByRole("button", { name: "Ask the questions" }).click();
  // Open questions: nothing is answered until each is.
  const questions = page.locator("[role=radiogroup][aria-label$='?']");
  await expect(questions.first()).toBeVisible();
  for (const question of await questions.all()) {
    const heart = /heart condition/.test((await question.getAttribute("aria-label")) ?? "");
    await question.getByText(heart ? "yes" : "no").click();
  }
  await expect(page.getByText("Get medical clearance first")).toBeVisible();
  await expect(saveState(page).first()).toHaveText("Saved");
  expect(await draft()).toContain("get medical clearance first");
  await page.getByRole("button", { name: "Record the clearance" }).click();
  await page.getByRole("textbox", { name: "By whom, with what limits" }).fill("Dr. Lund: no maximal tests.");
  await page.getByRole("button", { name: "Keep the clearance" }).click();
  await expect(page.getByText("Cleared.", { exact: true })).toBeVisible();
  await expect(saveState(page).first()).toHaveText("Saved");
  expect(await draft()).toBeUndefined();
  // What the doctor allows stands where the week is made.
  await page.goto(`${round}/plan`);
  await expect(page.getByText("Dr. Lund: no maximal tests.")).toBeVisible();
});

test("a usual week is typed, its sets by region shown, and causes are sought in it", async ({ page }) => {
  const round = await freshRound(page, "Week Tester", {}, "2026-11-02");
  await page.goto(`${round}/brief`);
  const week = page.getByRole("region", { name: "Trained lately" });
  await week.getByLabel("Add an exercise").click();
  await page.keyboard.type("Barbell curl");
  await page.keyboard.press("Enter");
  await week.getByLabel("A day of the last such week").fill("2026-10-28");
  await expect(week.getByRole("status")).toHaveText("Saved");
  await expect(week.getByRole("row", { name: /Biceps, long head.*3/ })).toBeVisible();
  const verdict = await (
    await page.request.get(`/api/v1${round.replace(/\/clients\/[^/]+/, "")}/verdict`)
  ).json();
  expect(verdict.assessment.training_known).toBe(true);
  await week.getByLabel("Weeks").fill("40");
  await expect(week.getByRole("alert")).toHaveText("40 weeks is out of range: expected 1 to 12");
});

test("of two tabs saving the same brief the later one is told and loses nothing", async ({ page, context }) => {
  const round = await freshRound(page, "Two Briefs");
  await page.goto(`${round}/brief`);
  const other = await context.newPage();
  await other.goto(`${round}/brief`);
  await other.getByLabel("Minutes a session").fill("55");
  await expect(saveState(other).first()).toHaveText("Saved");
  await page.getByLabel("Minutes a session").fill("80");
  await expect(page.getByRole("alert")).toContainText("this brief was saved elsewhere since you opened it");
  await page.getByRole("button", { name: "Take what is stored" }).click();
  await expect(page.getByLabel("Minutes a session")).toHaveValue("55");
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(page.getByLabel("Minutes a session")).toHaveValue("80");
  await expect(saveState(page).first()).toHaveText("Saved");
});

test("a new client is added and the first round opened", async ({ page }) => {
  await page.goto("/clients/new");
  await page.getByLabel("Name").fill("Wren Tallis");
  await page.getByLabel("Date of birth").fill("1996-04-05");
  await page.getByRole("button", { name: "Add the client" }).click();
  await expect(page, "what only the client can say is asked for").toHaveURL(/\/clients\/new$/);
  await page.getByLabel("Stature, cm").fill("168");
  for (const answer of ["Female", "Left"]) await page.locator("label").filter({ hasText: new RegExp(`^${answer}$`) }).click();
  await page.getByLabel("Training age").click();
  await page.locator(".ant-select-dropdown:visible").getByTitle(/^Beginner/).click();
  await page.getByRole("button", { name: "Add the client" }).click();
  await page.getByRole("button", { name: "Open a round" }).click();
  await page.getByLabel("Who holds the tape").fill("MT");
  await page.getByRole("button", { name: "Open the round" }).click();
  await expect(page).toHaveURL(/\/tape$/);
  await expect(page.getByRole("heading", { name: "Wren Tallis" })).toBeVisible();
});
