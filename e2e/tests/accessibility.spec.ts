import type { Page } from "@playwright/test";
import { serious } from "./axe";
import { expect, freshRound, openStep, openSwaps, test } from "./practice";

/** All rules by day; by night, where only colours differ, those about colours. */
async function seriousInBothThemes(page: Page): Promise<string[]> {
  const byDay = await serious(page);
  await page.getByRole("button", { name: "Night", exact: true }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
  return [...byDay, ...(await serious(page, ["color-contrast", "link-in-text-block"]))];
}

for (const step of ["Brief", "Photos", "Tape", "Tests", "Verdict", "Plan"]) {
  test(`axe finds nothing serious on ${step}, in both themes`, async ({ page }) => {
    await openStep(page, "Bram Quillan", step);
    expect(await seriousInBothThemes(page)).toEqual([]);
  });
}

for (const path of ["/today", "/clients", "/clients/new", "/library", "/eye", "/practice", "/stand-in"]) {
  test(`axe finds nothing serious on ${path}, in both themes`, async ({ page }) => {
    await page.goto(path);
    expect(await seriousInBothThemes(page)).toEqual([]);
  });
}

test("axe finds nothing serious in the dialogs of the assessment hour", async ({ page }) => {
  const round = await freshRound(page, "Dialog Tester");
  await page.goto(`${round}/tape`);
  await page.getByRole("button", { name: "CSV…" }).click();
  await page.getByLabel("Or paste it here").fill("site,side,value\nwaist,,80\ncalf,,37");
  await page.getByText("1 of 2 lines cannot be taken in").waitFor();
  expect(await serious(page)).toEqual([]);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Order…" }).click();
  expect(await serious(page)).toEqual([]);
  await page.goto(`${round}/tests`);
  await page.getByRole("button", { name: "Hip bend left: measure on a still" }).click();
  expect(await serious(page)).toEqual([]);
});

for (const step of ["brief", "tape", "tests", "verdict"]) {
  test(`nothing shifts while ${step} appears at 1280 by 800`, async ({ page }) => {
    await page.addInitScript(() => {
      const shifts: number[] = [];
      Object.assign(window, { shifts });
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) shifts.push((entry as unknown as { value: number }).value);
      }).observe({ type: "layout-shift", buffered: true });
    });
    await openStep(page, "Bram Quillan", "Verdict");
    await page.goto(page.url().replace("verdict", step));
    await page.waitForLoadState("networkidle");
    await page.waitForTimeout(300);
    const total = await page.evaluate(() =>
      (window as unknown as { shifts: number[] }).shifts.reduce((sum, value) => sum + value, 0),
    );
    expect(total, "cumulative layout shift").toBeLessThan(0.001);
  });
}

test("axe finds nothing serious on a bent week, its swaps, and an own exercise", async ({ page }) => {
  const round = await freshRound(page, "Bent Tester");
  await page.goto(`${round}/plan`);
  await page.getByRole("region", { name: /^Session/ }).first().waitFor();
  await page.keyboard.press("j");
  for (let more = 0; more < 6; more++) await page.keyboard.press("+");
  await page.keyboard.press("o");
  await page.getByText(/rules? (is|are) broken/).waitFor();
  expect(await serious(page)).toEqual([]);
  await page.reload();
  await page.getByRole("region", { name: /^Session/ }).first().waitFor();
  await openSwaps(page);
  expect(await serious(page)).toEqual([]);
  await page.goto("/library?region=delts.posterior");
  await page.getByRole("button", { name: "Add an exercise of your own…" }).click();
  expect(await serious(page)).toEqual([]);
});
