import { expect, freshRound, saveState, test } from "./practice";

test("one side at a time, the weaker first: typed by key, compared and kept", async ({ page }) => {
  const round = await freshRound(page, "Strength Tester", { dominant_hand: "right" });
  await page.goto(`${round}/tests`);
  await page.getByLabel("Add an exercise").click();
  await page.keyboard.type("Standing dumbbell curl");
  await page.keyboard.press("Enter");
  const line = page.getByRole("group", { name: /Standing dumbbell curl/ });
  await expect(line.getByText("first")).toBeVisible();
  await page.getByLabel(/Standing dumbbell curl.* left, load, kg/).focus();
  for (const text of ["14", "1", "14", "18"]) {
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  }
  await expect(line).toContainText(/R \+\d+\.\d % real, act/);
  await expect(saveState(page).first()).toHaveText("Saved");
  await page.reload();
  await expect(page.getByLabel(/Standing dumbbell curl.* right, repetitions/)).toHaveValue("18");
  await page.getByLabel(/Standing dumbbell curl.* right, repetitions/).fill("40");
  await expect(line.getByRole("alert")).toContainText("repetitions 40 is out of range: expected 1 to 20");
  const next = await page.request.post(`/api/v1/clients/${round.split("/")[2]}/rounds`, {
    data: { date: "2026-05-04", measured_by: "MT" },
  });
  const sheet = await (await page.request.get(`/api/v1/rounds/${(await next.json()).id}/tests`)).json();
  const first = sheet.first.find(({ exercise }: { exercise: string }) => exercise === "db-curl");
  expect(first.side, "the side that was weaker last time").toBe("left");
});

test("the hang is timed by the space bar", async ({ page }) => {
  const round = await freshRound(page, "Hang Tester");
  await page.goto(`${round}/tests`);
  await page.getByRole("heading", { name: "Hang from a bar" }).waitFor();
  const before = Date.now();
  await page.keyboard.press("Space");
  await expect(page.getByRole("button", { name: "Stop" })).toBeVisible();
  await page.waitForTimeout(1200);
  await page.keyboard.press("Space");
  const longest_s = Math.round((Date.now() - before) / 1000);
  await expect(page.getByLabel("Hang, seconds")).toHaveValue(/^\d+$/);
  const timed_s = Number(await page.getByLabel("Hang, seconds").inputValue());
  expect(timed_s).toBeGreaterThanOrEqual(1);
  expect(timed_s).toBeLessThanOrEqual(longest_s);
  await expect(page.getByText("Under 100 s, a good average.")).toBeVisible();
  await page.getByLabel("Hang, seconds").fill("112");
  await expect(page.getByText("At or over 100 s, a good average.")).toBeVisible();
});

test("three points on a still give a range of motion, and what is short is kept for the plan", async ({ page }) => {
  const round = await freshRound(page, "Motion Tester");
  await page.goto(`${round}/tests`);
  await page.getByRole("button", { name: "Shoulder extension left: measure on a still" }).click();
  const dialog = page.getByRole("dialog", { name: "Shoulder extension left" });
  await dialog
    .getByLabel("A still of the end position")
    .setInputFiles({ name: "notes.jpg", mimeType: "image/jpeg", buffer: Buffer.from("no picture at all") });
  await expect(dialog.getByRole("alert")).toContainText("notes.jpg is not a picture this browser can show");
  const still = await page.evaluate(() => {
    const canvas = document.createElement("canvas");
    canvas.width = 400;
    canvas.height = 400;
    canvas.getContext("2d")?.fillRect(0, 0, 400, 400);
    return canvas.toDataURL("image/png").split(",")[1] ?? "";
  });
  await dialog
    .getByLabel("A still of the end position")
    .setInputFiles({ name: "still.png", mimeType: "image/png", buffer: Buffer.from(still, "base64") });
  const picture = dialog.getByRole("img", { name: "The still" });
  const box = await picture.boundingBox();
  if (!box) throw new Error("the still is not shown");
  const tap = (x: number, y: number) => picture.click({ position: { x: x * box.width, y: y * box.height } });
  await expect(dialog.getByRole("status")).toHaveText("Tap: hip.");
  await tap(0.5, 0.9);
  await tap(0.5, 0.4);
  await tap(0.9, 0.63);
  await dialog.getByRole("button", { name: "Take 60°" }).click();
  await expect(page.getByLabel("Shoulder extension left, degrees")).toHaveValue("60");
  await page.getByLabel("Shoulder extension right, degrees").fill("52");
  const motion = page.getByRole("region", { name: "Range of motion" });
  await expect(motion.getByRole("status")).toHaveText("Saved");
  await page.goto(`${round}/brief`);
  await expect(page.getByLabel("Shoulder extension right")).toHaveValue("52");
});

test("where an exercise was felt is tapped on the figure", async ({ page }) => {
  const round = await freshRound(page, "Feel Tester");
  await page.goto(`${round}/tests`);
  await page.getByLabel("After which exercise").click();
  await page.keyboard.type("Standing dumbbell curl");
  await page.keyboard.press("Enter");
  const feel = page.getByRole("region", { name: "Where it was felt" });
  await feel.locator('[data-region="forearm.flexors"]').first().click();
  await expect(feel.getByRole("listitem")).toContainText("Finger and wrist flexors");
  await expect(saveState(page).first()).toHaveText("Saved");
  await page.reload();
  await expect(feel.getByRole("listitem")).toContainText("Finger and wrist flexors");
});

test("nobody under 18 is tested to a maximum", async ({ page }) => {
  const round = await freshRound(page, "Young Tester", { birth_date: "2010-05-01" });
  await page.goto(`${round}/tests`);
  await expect(page.getByText("the client is under 18: no tests to a maximum.")).toBeVisible();
  await expect(page.getByLabel("Add an exercise")).toHaveCount(0);
});
