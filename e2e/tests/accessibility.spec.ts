import AxeBuilder from "@axe-core/playwright";
import { expect, openStep, test } from "./practice";

for (const theme of ["paper", "night"]) {
  for (const step of ["Brief", "Photos", "Tape", "Verdict", "Plan"]) {
    test(`axe finds nothing serious on ${step}, ${theme}`, async ({ page }) => {
      await page.addInitScript((name) => localStorage.setItem("orthomer-theme", name), theme);
      await openStep(page, "Bram Quillan", step);
      await page.waitForLoadState("networkidle");
      const { violations } = await new AxeBuilder({ page }).analyze();
      const serious = violations.filter(({ impact }) => impact === "serious" || impact === "critical");
      expect(serious.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
    });
  }
}
