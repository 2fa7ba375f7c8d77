// Frames a second while two 1200 x 1600 views are panned together on the light table: node pan-table.mjs [address] [picture.jpg].
import { readFileSync } from "node:fs";
import { chromium } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const picture = readFileSync(process.argv[3] ?? "test-results/booth/picture.jpg");
/** How long the pointer moves, ms. */
const PAN_MS = 4000;

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-quic"] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.request.post(`${address}/api/v1/session`, { data: { login: "mara", password: "plumb-line-demo" } });
const clients = await (await page.request.get(`${address}/api/v1/clients?find=Oda`)).json();
const client = await (await page.request.get(`${address}/api/v1/clients/${clients.items[0].id}`)).json();
for (const round of client.rounds.slice(0, 2)) {
  await page.request.post(`${address}/api/v1/rounds/${round.id}/photos?pose=F&mirrored=false`, { data: picture });
}
await page.goto(`${address}/clients/${client.id}/rounds/${client.rounds[0].id}/photos?pose=F`);
const panes = page.locator("figure");
await panes.nth(1).waitFor({ timeout: 60_000 });
await page.waitForFunction(() => [...document.querySelectorAll("figure img")].every((img) => img.naturalWidth >= 1200), undefined, {
  timeout: 60_000,
});
const box = await panes.first().boundingBox();
await page.evaluate(() => {
  window.frames_ = [];
  const note = (at) => {
    window.frames_.push(at);
    requestAnimationFrame(note);
  };
  requestAnimationFrame(note);
});
await page.mouse.move(box.x + 200, box.y + 200);
await page.mouse.down();
const start = Date.now();
for (let i = 0; Date.now() - start < PAN_MS; i++) {
  await page.mouse.move(box.x + 200 + 80 * Math.sin(i / 20), box.y + 200 + 60 * Math.cos(i / 15));
}
await page.mouse.up();
const frames = await page.evaluate(() => window.frames_);
const gaps = frames.slice(1).map((at, i) => at - frames[i]).sort((a, b) => a - b);
const at = (share) => gaps[Math.floor(share * (gaps.length - 1))].toFixed(1);
console.log(`${gaps.length} frames, ${((1000 * gaps.length) / (frames.at(-1) - frames[0])).toFixed(1)} a second`);
console.log(`between frames, ms: median ${at(0.5)}, 95 % under ${at(0.95)}, worst ${at(1)}`);
await browser.close();
