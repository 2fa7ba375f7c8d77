// Times on the client's phone: from the link to the week drawn, from a tap on today to its session, from "Begin" to the first set's
// row, and from "Set done" to the set written below it: node phone-times.mjs [address]
import { chromium } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const ROUNDS = 15;
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-quic"] });
const coach = (await browser.newContext({ baseURL: address })).request;
const post = async (path, data) => (await coach.post(`/api/v1${path}`, { data })).json();
await post("/session", { login: "mara", password: "plumb-line-demo" });

/** A client with a plan since this week and a session today; gives the private link's token. */
async function linked(name) {
  const client = await post("/clients", {
    name, sex: "male", birth_date: "1994-06-11", height_cm: 178, dominant_hand: "right", experience: "intermediate", look: "taper",
    days_per_week: 7, minutes_per_session: 60, equipment: ["dumbbell", "cable", "incline-bench", "bench"],
    readiness: { asked_on: "2026-03-01", yes: [] },
  });
  const round = await post(`/clients/${client.id}/rounds`, { date: "2026-03-02", measured_by: "MT" });
  await post(`/rounds/${round.id}/plan/issue`, { revision: 0, starts_on: new Date().toISOString().slice(0, 10) });
  return (await post(`/clients/${client.id}/links`, { days: 30 })).token;
}

const times = {};

/** Keeps the milliseconds from an act to the frame in which something can be seen. */
async function timed(page, what, act, seen) {
  const from = performance.now();
  await act();
  await seen.waitFor();
  await page.evaluate(() => new Promise((frame) => requestAnimationFrame(frame)));
  (times[what] ??= []).push(performance.now() - from);
}

for (let round = 0; round < ROUNDS; round += 1) {
  const name = `Timed ${Date.now()}`;
  const token = await linked(name);
  const phone = await browser.newContext(PHONE);
  const page = await phone.newPage();
  const button = (said) => page.getByRole("button", { name: said, exact: true });
  const today = page.getByRole("button", { name: /^Today/ });
  await timed(page, "link to week", () => page.goto(`${address}/my#${token}`), today);
  await timed(page, "today to session", () => today.click(), button("Begin"));
  await timed(page, "begin to first set", () => button("Begin").click(), button("Set done"));
  await page.getByLabel("Load, kg").fill("12.5");
  await timed(page, "set done to set written", () => button("Set done").click(), page.getByText("12.5 kg ×").first());
  await phone.close();
}
for (const [what, all] of Object.entries(times)) {
  all.sort((a, b) => a - b);
  const at = (share) => all[Math.min(all.length - 1, Math.floor(share * all.length))].toFixed(0);
  console.log(`${what}: median ${at(0.5)} ms, worst ${at(1)} ms of ${all.length}`);
}
await browser.close();
