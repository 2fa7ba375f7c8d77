// Times from an edit on the board to the week drawn anew, with its ledger and its rules, by the page's own marks:
// node plan-times.mjs [address] [client]
import { chromium } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const client = process.argv[3] ?? "Oda Fenwick";
const EDITS = 40;

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-quic"] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.request.post(`${address}/api/v1/session`, { data: { login: "mara", password: "plumb-line-demo" } });
await page.goto(`${address}/clients`);
await page.getByRole("link", { name: client }).click();
await page.getByRole("heading", { name: client }).waitFor();
await page.getByRole("link", { name: /^Plan/ }).click();
await page.getByRole("region", { name: /^Session/ }).first().waitFor();
// The first proof is over before anything is timed.
await page.getByRole("button", { name: "Prove longer" }).waitFor();
await page.keyboard.press("j");
for (let edit = 0; edit < EDITS; edit += 1) {
  await page.keyboard.press(edit % 4 < 2 ? "Alt+ArrowDown" : "Alt+ArrowUp");
  const drawn = (count) => performance.getEntriesByName("plan-redrawn").length >= count;
  await page.waitForFunction(drawn, edit + 1);
}
const times = await page.evaluate(() => performance.getEntriesByName("plan-redrawn").map(({ duration }) => duration));
times.sort((a, b) => a - b);
const at = (share) => times[Math.min(times.length - 1, Math.floor(share * times.length))].toFixed(0);
console.log(`${times.length} edits: median ${at(0.5)} ms, 95 % within ${at(0.95)} ms, worst ${at(1)} ms`);
await browser.close();
