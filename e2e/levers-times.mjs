// Times from a turn of the set-up on the bench of a movement to the figure and the heads drawn anew: node levers-times.mjs [address]
import { chromium } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const TURNS = 40;

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-quic"] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.request.post(`${address}/api/v1/session`, { data: { login: "mara", password: "plumb-line-demo" } });
await page.goto(`${address}/library?region=biceps.long`);
await page.getByRole("button", { name: /^Cable curl/ }).click();
const slider = page.getByRole("slider", { name: "Pulley above the floor" });
await slider.waitFor();
await slider.focus();
// Watched in the page itself: from the key to the first frame after the drawing has changed.
await page.evaluate(() => {
  const figure = document.querySelector('section[aria-label="Movement"] svg[role="img"]').parentElement;
  window.turned = [];
  let pressed;
  addEventListener("keydown", () => (pressed = performance.now()), true);
  new MutationObserver(() => {
    const from = pressed;
    requestAnimationFrame(() => window.turned.push(performance.now() - from));
  }).observe(figure, { childList: true, subtree: true });
});
for (let turn = 0; turn < TURNS; turn++) {
  await page.keyboard.press(turn % 20 < 10 ? "ArrowRight" : "ArrowLeft");
  await page.waitForTimeout(250);
}
const times = (await page.evaluate(() => window.turned)).sort((a, b) => a - b);
const at = (share) => times[Math.min(times.length - 1, Math.floor(share * times.length))].toFixed(0);
console.log(`${times.length} turns: median ${at(0.5)} ms, 95 % within ${at(0.95)} ms, worst ${at(1)} ms`);
await browser.close();
