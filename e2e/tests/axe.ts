import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

/** What axe finds of serious and critical problems on a page that has come to rest; by some rules only, where they are given. */
export async function serious(page: Page, rules?: string[]): Promise<string[]> {
  await page.waitForLoadState("networkidle");
  // What passes is not told: telling it takes as long as finding it.
  const axe = new AxeBuilder({ page }).options({ resultTypes: ["violations"] });
  // There are no frames: what is found needs no second page to be put together on, which took four times as long as finding it.
  axe.setLegacyMode(true);
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  const found = violations.filter(({ impact }) => impact === "serious" || impact === "critical");
  return found.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`);
}
