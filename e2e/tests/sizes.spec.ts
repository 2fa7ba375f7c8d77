// Every page at a desk, on a tablet and on a phone: nothing has to be pushed sideways to be read, nothing jumps while it comes,
// nothing serious for axe, and on what is held in a hand nothing too small for a finger.
import type { Page } from "@playwright/test";
import { serious } from "./axe";
import { expect, test } from "./practice";

const SIZES = [
  { width: 390, height: 844, fingers: true },
  { width: 820, height: 1180, fingers: true },
  { width: 1280, height: 800, fingers: false },
];
const STEPS = ["brief", "photos", "tape", "tests", "verdict", "plan", "log", "review", "trends"];
/** What Google's Core Web Vitals call good, from memory. */
const MOST_SHIFT = 0.1;
/** Side of what a finger finds: WCAG 2.2, success criterion 2.5.5, px. */
const FINGER = 44;

/** Adds up what moves while a page comes. */
const watchShifts = (page: Page) =>
  page.addInitScript(() => {
    const seen = { shift: 0 };
    Object.assign(window, { seen });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.shift += (entry as unknown as { value: number }).value;
    }).observe({ type: "layout-shift", buffered: true });
  });

/** What is pressed or typed in and lower or narrower than a finger; words within a sentence are no targets of their own. */
const tooSmall = (page: Page) =>
  page.evaluate((finger) => {
    const targets = "a[href], button, input:not([type=hidden]), select, textarea, summary, [role=button], [role=tab], [role=option]";
    // A field of the component library is what stands around it; so is the label of a box to be ticked.
    const around = ".ant-select, .ant-picker, .ant-input-number, .ant-input-affix-wrapper, .ant-input-search, .ant-slider, label";
    return [...document.querySelectorAll<HTMLElement>(targets)].flatMap((target) => {
      const seen = target.checkVisibility({ visibilityProperty: true, opacityProperty: true });
      if (!seen || target.matches("p a, p button") || target.closest(".sr-only, [data-focus-only]")) return [];
      const { width, height } = (target.closest(around) ?? target).getBoundingClientRect();
      const name = target.getAttribute("aria-label") ?? target.textContent;
      return width > 0 && Math.min(width, height) < finger - 0.5 ? [`${name}: ${width} x ${height}`] : [];
    });
  }, FINGER);

for (const { fingers, ...viewport } of SIZES) {
  test.describe(`at ${viewport.width} by ${viewport.height}`, () => {
    test.use({ viewport, hasTouch: fingers });

    test("every page fits, stands still, can be read by everybody and be pressed", async ({ page }) => {
      // Eighteen pages, each read by axe.
      test.slow();
      await watchShifts(page);
      const found = await (await page.request.get("/api/v1/clients?find=Oda%20Fenwick")).json();
      const client = `/clients/${found.items[0].id}`;
      const round = `${client}/rounds/${found.items[0].newest.id}`;
      const pages = ["/today", "/clients", "/clients/new", client, `${client}/messages`, "/library", "/eye", "/practice"];
      const wrong: string[] = [];
      for (const path of [...pages, ...STEPS.map((step) => `${round}/${step}`), "/stand-in"]) {
        await page.goto(path);
        await page.getByRole("heading").first().waitFor();
        await page.waitForLoadState("networkidle");
        const { wide, shift } = await page.evaluate(() => ({
          wide: document.documentElement.scrollWidth,
          shift: (window as unknown as { seen: { shift: number } }).seen.shift,
        }));
        const here = [
          ...(wide > viewport.width ? [`${wide} px wide`] : []),
          ...(shift > MOST_SHIFT ? [`shifts by ${shift}`] : []),
          // The desk's pages have tests of their own, in both themes (accessibility.spec.ts).
          ...(fingers ? [...(await serious(page)), ...(await tooSmall(page))] : []),
        ];
        wrong.push(...here.map((what) => `${path.replace(round, "round").replace(client, "client")}: ${what}`));
      }
      expect(wrong).toEqual([]);
    });

    test("a session opened on this screen fits, to the longest of the week", async ({ page }) => {
      const found = await (await page.request.get("/api/v1/clients?find=Bram%20Quillan")).json();
      await page.goto(`/train/${found.items[0].id}`);
      const sessions = page.getByRole("main").getByRole("listitem");
      await sessions.first().waitFor();
      for (const session of await sessions.all()) {
        await session.getByRole("button").click();
        await page.getByRole("list", { name: "Exercises", exact: true }).waitFor();
        const wide = await page.evaluate(() => document.documentElement.scrollWidth);
        expect(wide).toBeLessThanOrEqual(viewport.width);
        await page.getByRole("button", { name: "Back to the week" }).click();
      }
    });
  });
}
