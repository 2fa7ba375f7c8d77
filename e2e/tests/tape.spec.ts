import { expect, freshRound, reading, saveState, test } from "./practice";

test("a sheet is typed from the keyboard: Enter goes on, it is checked and saved on the way", async ({ page }) => {
  const round = await freshRound(page, "Tape Tester");
  await page.goto(`${round}/tape`);
  await reading(page, "Upper arm, flexed left, reading 1").focus();
  for (const text of ["35,6", "35.7", "37.8", "37.7"]) {
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  }
  await expect(reading(page, "Forearm left, reading 1")).toBeFocused();
  const row = page.getByRole("group", { name: "Upper arm, flexed" });
  await expect(row).toContainText("0.3 %");
  await expect(row).toContainText(/R \+5\.7 % real, act/);
  await expect(saveState(page)).toHaveText("Saved");
  await page.reload();
  await expect(reading(page, "Upper arm, flexed left, reading 1")).toHaveValue("35.6");
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
  await expect(page.getByText("374 cm is outside 15 to 75 cm for arm-flexed; did you mean 37.4 cm?")).toBeVisible();
  await expect(saveState(page)).toHaveText("1 field not saved: see below");
  await reading(page, "Calf left, reading 1").fill("3x");
  await expect(page.getByText("“3x” is not a number: type one such as 37.4.")).toBeVisible();
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
  await reading(page, "Waist, reading 1").fill("82.0");
  await expect(saveState(page)).toHaveText("Saved");
  await reading(other, "Waist, reading 1").fill("81.0");
  await other.getByRole("button", { name: "Keep what I typed" }).click();
  await expect(saveState(other)).toHaveText("Saved");
});

test("a practised coach types a whole sheet, fourteen places on both sides twice, and never touches the mouse", async ({
  page,
}) => {
  const round = await freshRound(page, "Typist Tester");
  await page.addInitScript(() => {
    const kinds = ["mousedown", "mousemove", "click", "pointerdown", "touchstart", "wheel"];
    const pointed: string[] = [];
    Object.assign(window, { pointed });
    for (const kind of kinds) {
      // A click that a key makes has no pointer behind it.
      window.addEventListener(kind, (event) => (event as MouseEvent).detail !== 0 && pointed.push(kind), true);
    }
  });
  await page.goto(`${round}/tape`);
  await page.getByLabel("Weight").waitFor();
  const typical: Record<string, number> = {
    neck: 38, shoulder: 118, chest: 102, "arm-relaxed": 31, "arm-flexed": 34, forearm: 28, wrist: 17, waist: 82,
    abdomen: 86, hip: 98, thigh: 58, "mid-thigh": 54, knee: 38, calf: 37, ankle: 23, head: 57, weight: 81,
    "fold:triceps": 9, "fold:biceps": 5, "fold:subscapular": 11, "fold:chest": 7, "fold:midaxillary": 8,
    "fold:suprailiac": 12, "fold:abdominal": 16, "fold:thigh": 12, "fold:calf": 8, biacromial: 41, biiliac: 28,
    "elbow-breadth": 14, "wrist-breadth": 11.4, "knee-breadth": 19.6, "ankle-breadth": 14.6,
  };
  await page.keyboard.press("n");
  const typed = new Map<string, number>();
  for (;;) {
    const cell = await page.evaluate(() => (document.activeElement as HTMLElement | null)?.dataset.cell);
    if (cell === undefined || typed.has(cell)) break;
    const [place = "", side, reading] = cell.split("|");
    const value = (typical[place] ?? 0) + (side === "right" ? 0.2 : 0) + (reading === "1" ? 0.1 : 0);
    typed.set(cell, value);
    await page.keyboard.type(value.toFixed(1));
    await page.keyboard.press("Enter");
  }
  const bothSidesTwice = new Map<string, number>();
  for (const cell of typed.keys()) {
    const [place = "", side, reading] = cell.split("|");
    if (side && Number(reading) < 2) bothSidesTwice.set(place, (bothSidesTwice.get(place) ?? 0) + 1);
  }
  expect([...bothSidesTwice.values()].filter((count) => count === 4).length).toBeGreaterThanOrEqual(14);
  await expect(saveState(page)).toHaveText("Saved");
  expect(await page.evaluate(() => (window as unknown as { pointed: string[] }).pointed)).toEqual([]);
  const sheet = await (await page.request.get(`/api/v1${round.replace(/\/clients\/[^/]+/, "")}/tape`)).json();
  const stored = [...sheet.entries, ...sheet.folds].flatMap((entry) => entry.readings_cm ?? entry.readings_mm);
  expect(stored.length + 1, "every reading and the weight").toBe(typed.size);
  expect(sheet.problems).toEqual([]);
});

test("a step back takes a field back, and the sheet saves what is shown", async ({ page }) => {
  const round = await freshRound(page, "Step Tester");
  await page.goto(`${round}/tape`);
  await reading(page, "Waist, reading 1").fill("81.5");
  await reading(page, "Waist, reading 2").fill("81.7");
  await page.keyboard.press("Control+z");
  await expect(reading(page, "Waist, reading 2")).toHaveValue("");
  await expect(saveState(page)).toHaveText("Saved");
  await page.reload();
  await expect(reading(page, "Waist, reading 1")).toHaveValue("81.5");
  await expect(reading(page, "Waist, reading 2")).toHaveValue("");
});

test("the level of the tape is noted, and said when it lies elsewhere the next time", async ({ page }) => {
  const round = await freshRound(page, "Level Tester");
  await page.goto(`${round}/tape`);
  await reading(page, "Mid thigh left, reading 1").fill("54.0");
  await page.keyboard.press("F2");
  await page.keyboard.type("20.5");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("group", { name: "Mid thigh" })).toContainText("level 20.5 cm");
  await expect(saveState(page)).toHaveText("Saved");
  const client = round.split("/")[2];
  const next = await page.request.post(`/api/v1/clients/${client}/rounds`, {
    data: { date: "2026-04-20", measured_by: "MT" },
  });
  await page.goto(`/clients/${client}/rounds/${(await next.json()).id}/tape`);
  await reading(page, "Mid thigh left, reading 1").focus();
  const level = page.getByLabel("Mid thigh: level of the tape, cm above the kneecap");
  await expect(level).toHaveAttribute("placeholder", "20.5");
  await level.fill("23");
  await expect(page.getByRole("group", { name: "Mid thigh" })).toContainText("lay at 20.5 cm last time");
});

test("the coach's own order is kept, and what is left out is not asked for", async ({ page }) => {
  const round = await freshRound(page, "Order Tester");
  await page.goto(`${round}/tape`);
  await page.getByRole("button", { name: "Order…" }).click();
  await page.getByRole("checkbox", { name: "Neck" }).uncheck();
  await page.getByRole("button", { name: "Chest earlier" }).click();
  await page.getByRole("button", { name: "Keep this order" }).click();
  await expect(page.getByRole("group", { name: "Neck" })).toHaveCount(0);
  await page.reload();
  await page.keyboard.press("n");
  await page.getByLabel("Weight").press("Enter");
  await expect(reading(page, "Chest, reading 1")).toBeFocused();
  await page.getByRole("button", { name: "Order…" }).click();
  await page.getByRole("button", { name: "As shipped" }).click();
  await page.getByRole("button", { name: "Keep this order" }).click();
  await expect(page.getByRole("group", { name: "Neck" })).toBeVisible();
});
