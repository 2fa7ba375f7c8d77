import { expect, freshRound, test } from "./practice";

test("a region picked on the figure shows what it does and what serves it, main targets first", async ({ page }) => {
  await page.goto("/library");
  await page.getByRole("img", { name: /The body's regions/ }).locator("[data-region='delts.posterior']").first().click();
  await expect(page.getByRole("region", { name: "Rear delt" })).toContainText("Taken over by");
  await expect(page).toHaveURL(/region=delts\.posterior/);
  const first = page.getByRole("region", { name: "Exercises" }).getByRole("listitem").first();
  await expect(first).toContainText("Rear delt");
  await first.getByRole("button").click();
  await expect(first).toContainText("taken over by");
});

test("an exercise shows its movement: its range and set-up are turned, and the set-up for a head is found", async ({ page }) => {
  await page.goto("/library?region=biceps.long");
  await page.getByRole("button", { name: /^Cable curl/ }).click();
  const bench = page.getByRole("region", { name: "Movement" });
  const figure = bench.getByRole("img", { name: "Cable curl" });
  await expect(figure).toBeVisible();
  const end = await figure.innerHTML();
  await bench.getByRole("slider", { name: "Along the range" }).press("Home");
  await expect.poll(() => figure.innerHTML()).not.toBe(end);
  const head = bench.getByRole("listitem").filter({ hasText: "Biceps, long head" });
  const usual = await head.textContent();
  await bench.getByRole("slider", { name: "Pulley above the floor" }).press("ArrowRight");
  await expect(bench.getByText("25 cm")).toBeVisible();
  await expect.poll(() => head.textContent()).not.toBe(usual);
  await bench.getByRole("button", { name: "loads it longest" }).click();
  await expect(bench.getByText("25 cm")).toBeHidden();
  await bench.getByRole("button", { name: "Back to the usual set-up" }).click();
  await expect(head).toHaveText(usual ?? "");
});

test("from a client's card the bench keeps to their reach, sets two set-ups side by side, and keeps one for them", async ({ page }) => {
  const screens = { shoulder_flexion_deg: { left: 118, right: 140 } };
  const round = await freshRound(page, "Reach Tester", { screens });
  const [, , client] = round.split("/");
  const find = page.getByRole("button", { name: "loads it longest" });
  await page.goto(`/library?exercise=overhead-cable-ext&client=${client}`);
  const bench = page.getByRole("region", { name: "Movement" });
  await expect(bench.getByText(/^Here the arm is raised \d+°; this client has 118°\.$/)).toBeVisible();
  await bench.getByRole("button", { name: "Compare with this one" }).click();
  await find.click();
  await expect(bench.getByText(/On the right, in green: .*Pulley above the floor/)).toBeVisible();
  await expect(bench.getByRole("img", { name: /overhead/i })).toHaveCount(2);
  await expect(bench.getByText(/this client has 118°/)).toBeHidden();
  await bench.getByRole("button", { name: "Keep it for Reach Tester" }).click();
  await expect(bench.getByText("Kept: their cards and their phone have it.")).toBeVisible();
  const kept = await (await page.request.get(`/api/v1/clients/${client}/set-ups/overhead-cable-ext`)).json();
  expect(Object.keys(kept.kept.numbers)).toContain("pulley_height_cm");
});

test("every exercise of the list has its picture", async ({ page }) => {
  await page.goto("/library");
  const pictures = page.getByRole("region", { name: "Exercises" }).locator("img");
  await expect(pictures.first()).toBeVisible();
  const wide = () => pictures.first().evaluate((picture: HTMLImageElement) => picture.naturalWidth);
  await expect.poll(wide).toBeGreaterThan(0);
});

test("exercises are found by words, kit and stretch", async ({ page }) => {
  await page.goto("/library");
  const list = page.getByRole("region", { name: "Exercises" });
  await list.getByRole("listitem").first().waitFor();
  await page.keyboard.press("/");
  await page.keyboard.type("curl incline");
  await expect(list.getByRole("status")).toContainText(/^[1-5] exercises?\./);
  await expect(list.getByRole("listitem").first()).toContainText("Incline");
});

test("an own exercise is checked like ours, saved, changed, and used by the planner", async ({ page }) => {
  await page.goto("/library");
  await page.getByRole("button", { name: "Add an exercise of your own…" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name").fill("Tin tray calf raise");
  await dialog.getByRole("button", { name: "Save the exercise" }).click();
  await expect(dialog.getByText("no region is its main target: one needs the fraction 1")).toBeVisible();
  await expect(dialog.getByText("at least one cue is needed")).toBeVisible();
  await dialog.getByLabel("Main targets, a whole set each").fill("Gastro");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  if (!(await dialog.isVisible())) await page.getByRole("button", { name: "Add an exercise of your own…" }).click();
  await dialog.getByLabel("Getting into position").fill("Stand on the tray.");
  await dialog.getByLabel("Cues").fill("Rise slowly.");
  await dialog.getByRole("button", { name: "Save the exercise" }).click();
  await expect(dialog).toBeHidden();
  await page.getByLabel("Find an exercise").fill("tin tray");
  const row = page.getByRole("region", { name: "Exercises" }).getByRole("listitem").filter({ hasText: "Tin tray" });
  await expect(row).toContainText("own");

  const round = await freshRound(page, "Own Exercise Tester", { equipment: [] });
  await page.goto(`${round}/plan`);
  await page.getByRole("region", { name: /^Session/ }).first().waitFor();
  await page.getByRole("combobox", { name: /Add an exercise to Monday/ }).fill("Tin tray");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("listitem").filter({ hasText: "Tin tray calf raise" }).first()).toContainText("Gastrocnemius");
});
