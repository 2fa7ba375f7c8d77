// From the last shutter to the sentence on a client's phone: node capture-times.mjs ADDRESS, on a practice of demo data with pictures.
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { chromium, request } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const SHOTS = 20;

const coach = await request.newContext({ baseURL: address });
await coach.post("/api/v1/session", { data: { login: "mara", password: "plumb-line-demo" } });
const api = async (path, data) =>
  (await (data ? coach.post(`/api/v1${path}`, { data }) : coach.get(`/api/v1${path}`))).json();
const [client] = (await api("/clients?find=Oda")).items;
const table = await api(`/rounds/${client.newest.id}/photos`);
const front = table.rounds.flatMap(({ photos }) => photos).findLast(({ pose }) => pose === "F");
const seen = `${tmpdir()}/orthomer-camera.mjpeg`;
writeFileSync(seen, await (await coach.get(`/api/v1/photos/${front.id}/view`)).body());
await api(`/clients/${client.id}/rounds`, { date: new Date().toISOString().slice(0, 10), measured_by: "MT" });
const { token } = await api(`/clients/${client.id}/links`, { days: 1 });

const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-quic", "--use-fake-device-for-media-stream", `--use-file-for-fake-video-capture=${seen}`],
});
const context = await browser.newContext({ viewport: { width: 390, height: 844 }, permissions: ["camera"] });
const page = await context.newPage();
await page.goto(`${address}/my#${token}`);
await page.getByRole("button", { name: "Pictures" }).click();
await page.getByRole("button", { name: "Take them with the camera" }).click();
const later = page.getByRole("button", { name: "Without it, this time" });
await later.or(page.getByRole("button", { name: "Start" })).first().waitFor();
if (await later.isVisible()) await later.click();
await page.getByRole("button", { name: "3 s" }).click();
await page.getByLabel("Goes on by itself").setChecked(false);
const times = [];
for (let shot = 0; shot < SHOTS; shot++) {
  // The page's own clock: from the last second of the countdown to the sentence.
  const took = page.evaluate(
    () =>
      new Promise((done) => {
        let shut;
        const watch = new MutationObserver(() => {
          const timer = document.querySelector("[role=timer]");
          const said = document.querySelector("[role=status]")?.textContent ?? "";
          if (timer === null) shut ??= performance.now();
          if (shut !== undefined && timer === null && said.endsWith(".")) {
            watch.disconnect();
            done(performance.now() - shut);
          }
        });
        const counting = new MutationObserver(() => {
          if (!document.querySelector("[role=timer]")) return;
          counting.disconnect();
          watch.observe(document.body, { childList: true, subtree: true, characterData: true });
        });
        counting.observe(document.body, { childList: true, subtree: true });
      }),
  );
  await page.getByRole("button", { name: shot === 0 ? "Start" : "Again" }).click();
  times.push(await took);
}
times.sort((a, b) => a - b);
const at = (share) => Math.round(times[Math.min(SHOTS - 1, Math.floor(share * SHOTS))]);
console.log(`from the shutter to the sentence, ${SHOTS} shots: median ${at(0.5)} ms, 95 % ${at(0.95)}, worst ${at(1)}`);
await browser.close();
await coach.dispose();
