// From a key or a click to what is painted next, on the five pages that are worked on most.
// node paint-times.mjs ADDRESS CLIENT
import { chromium } from "@playwright/test";

const [address = "http://127.0.0.1:8080", name = "Oda Fenwick"] = process.argv.slice(2);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
const context = await browser.newContext({ baseURL: address, viewport: { width: 1280, height: 800 }, locale: "en-GB" });
await context.request.post("/api/v1/session", { data: { login: "mara", password: "plumb-line-demo" } });
const { items } = await (await context.request.get(`/api/v1/clients?find=${encodeURIComponent(name)}`)).json();
const round = `/clients/${items[0].id}/rounds/${items[0].newest.id}`;

/** What the browser counts as one interaction: its longest event, up to the frame after it, ms. */
const watch = () => {
  window.interactions = new Map();
  new PerformanceObserver((list) => {
    for (const { interactionId, duration } of list.getEntries())
      if (interactionId) window.interactions.set(interactionId, Math.max(duration, window.interactions.get(interactionId) ?? 0));
  }).observe({ type: "event", durationThreshold: 16, buffered: true });
};

const keys = (...each) => async (page) => {
  for (let time = 0; time < 40; time++) {
    await page.keyboard.press(each[time % each.length]);
    await page.waitForTimeout(120);
  }
};

const PAGES = [
  ["list of clients, found by name", "/clients", async (page) => {
    await page.getByLabel("Find a client").click();
    await keys("o", "Backspace", "j", "Backspace")(page);
  }],
  ["tape, readings typed", `${round}/tape`, async (page) => {
    await page.locator("input.typed").nth(3).click();
    await keys("Backspace", "4", "Enter")(page);
  }],
  ["verdict, rows picked", `${round}/verdict`, keys("j", "j", "j", "k")],
  ["plan, cards picked and sets changed", `${round}/plan`, keys("j", "+", "j", "-")],
  ["library, exercises found by name", "/library", async (page) => {
    await page.getByRole("searchbox").or(page.getByPlaceholder(/find/i)).first().click();
    await keys("r", "o", "w", "Backspace", "Backspace", "Backspace")(page);
  }],
];

for (const [what, path, work] of PAGES) {
  const page = await context.newPage();
  await page.addInitScript(watch);
  await page.goto(path);
  await page.waitForLoadState("networkidle");
  await work(page);
  await page.waitForTimeout(300);
  const all = (await page.evaluate(() => [...window.interactions.values()])).sort((a, b) => a - b);
  const at = (share) => all[Math.min(all.length - 1, Math.floor(share * all.length))];
  // Those within a frame are not told by the browser.
  console.log(`${what}: ${all.length} told, median ${at(0.5)}, 95 % within ${at(0.95)}, worst ${at(1)} ms`);
  await page.close();
}
await browser.close();
