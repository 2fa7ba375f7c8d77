// Takes one picture of each main view from demo data: node screenshots.mjs [address] [directory].
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { chromium } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const directory = process.argv[3] ?? "../docs/screenshots";

const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-quic", "--disable-background-networking"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
page.on("console", (message) => message.type() === "error" && console.error(page.url(), message.text()));

async function shot(name) {
  await page.mouse.move(0, 0);
  await page.waitForLoadState("networkidle");
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(250);
  await page.screenshot({ path: `${directory}/${name}.png` });
}

async function open(client, step) {
  await page.goto(`${address}/clients`);
  await page.getByLabel("Find a client").fill(client);
  await page.getByRole("row").nth(2).waitFor({ state: "detached" });
  await page.getByRole("link", { name: client }).click();
  await page.getByRole("heading", { name: client }).waitFor();
  await page.getByRole("navigation").getByRole("link", { name: new RegExp(`^${step}`) }).click();
}

await page.goto(address);
await page.getByLabel("Login").fill("mara");
await page.getByLabel("Password", { exact: true }).fill("plumb-line-demo");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("heading", { name: "Today", exact: true }).waitFor();
await shot("today");
await page.goto(`${address}/clients`);
await page.getByRole("heading", { name: "Clients" }).waitFor();
await shot("clients");
await open("Matteo Brask", "Brief");
await shot("brief");
// The demo's pictures are drawn while it is served: wait for the oldest of this client's.
const clients = await (await page.request.get(`${address}/api/v1/clients?find=Oda`)).json();
const drawn = async () => {
  const table = await (await page.request.get(`${address}/api/v1/rounds/${clients.items[0].newest.id}/photos`)).json();
  const photos = table.rounds.flatMap((round) => round.photos);
  return photos.length === 4 * table.rounds.length && photos.every(({ state }) => state === "seen");
};
while (!(await drawn())) await page.waitForTimeout(1000);
await open("Oda Fenwick", "Photos");
await page.getByRole("button", { name: /Back relaxed/ }).click();
await page.getByRole("button", { name: /^Gastrocnemius/ }).click();
await page.evaluate(() => scrollTo(0, 0));
await page.waitForTimeout(800);
await shot("photos");
await open("Sefa Orrin", "Tape");
await page.getByLabel("Upper thigh left, reading 1, cm").focus();
await shot("tape");
await open("Bram Quillan", "Tests");
await page.getByRole("heading", { name: "Where it was felt" }).waitFor();
await page.evaluate(() => scrollTo(0, 120));
await shot("tests");
await open("Oda Fenwick", "Verdict");
await page.getByRole("img", { name: /Every region shaded/ }).waitFor();
await shot("verdict");
await page.keyboard.press("s");
await page.keyboard.press("j");
await shot("verdict-region");
await page.goto(`${address}/practice`);
await page.getByRole("heading", { name: "Who measures how well" }).waitFor();
await shot("practice");
await open("Matteo Brask", "Plan");
await page.getByText(/^Within|^Proven/).waitFor();
await page.getByRole("button", { name: "Prove longer" }).waitFor();
await shot("plan");
await page.evaluate(() => document.activeElement?.blur());
await page.keyboard.press("j");
await page.keyboard.press("x");
await page.getByRole("region", { name: /^Instead of/ }).getByRole("listitem").first().waitFor();
await shot("plan-swap");
await page.goto(`${address}/library?region=biceps.long`);
const curl = page.getByRole("button", { name: /^Incline dumbbell curl/ });
await curl.click();
await page.getByRole("region", { name: "Movement" }).getByRole("listitem").first().waitFor();
await curl.evaluate((row) => scrollTo(0, row.getBoundingClientRect().top + scrollY - 90));
await shot("library");
await open("Matteo Brask", "Plan");
await page.getByRole("link", { name: "Print" }).click();
await page.getByRole("article").first().waitFor();
await shot("print");
await open("Bram Quillan", "Log");
await page.getByRole("region", { name: /logged twice/ }).waitFor();
await shot("log");
await open("Oda Fenwick", "Verdict");
await page.keyboard.press("[");
await page.getByText("2 of 3").waitFor();
await page.getByRole("link", { name: /^Review/ }).click();
await page.getByRole("article", { name: "Gastrocnemius" }).waitFor();
await shot("review");
await page.goto(page.url().replace("/review", "/trends"));
await page.getByText("Regions", { exact: true }).click();
await page.getByRole("slider").first().waitFor();
await shot("trends");
await page.setViewportSize({ width: 390, height: 844 });
await page.goto(`${address}/train/${clients.items[0].id}`);
await page.getByRole("button", { name: /Begin|Go on|ahead/ }).first().click();
await page.getByRole("button", { name: "Begin", exact: true }).click();
await page.getByRole("button", { name: "Set done" }).click();
await page.waitForTimeout(600);
await shot("train");
await page.setViewportSize({ width: 1280, height: 800 });
await page.goto(`${address}/clients`);
await page.getByRole("button", { name: "Night" }).click();
await page.goto(`${address}/eye`);
await page.getByText("Left against right").waitFor();
await shot("eye");

// A client's own page takes the front of a new round; what its camera sees is the picture of the round before.
const api = async (path, data) => (await page.request.post(`${address}/api/v1${path}`, { data })).json();
const table = await (
  await page.request.get(`${address}/api/v1/rounds/${clients.items[0].newest.id}/photos`)
).json();
const front = table.rounds.at(-1).photos.find(({ pose }) => pose === "F");
const seen = `${tmpdir()}/orthomer-camera.mjpeg`;
writeFileSync(seen, await (await page.request.get(`${address}/api/v1/photos/${front.id}/view`)).body());
const today = new Date().toISOString().slice(0, 10);
await api(`/clients/${clients.items[0].id}/rounds`, { date: today, measured_by: "MT" });
const { token } = await api(`/clients/${clients.items[0].id}/links`, { days: 1 });
const phone = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-quic",
    "--use-fake-device-for-media-stream",
    `--use-file-for-fake-video-capture=${seen}`,
  ],
});
const held = await phone.newContext({
  viewport: { width: 390, height: 844 },
  locale: "en-GB",
  permissions: ["camera"],
});
const capture = await held.newPage();
await capture.goto(`${address}/my#${token}`);
await capture.getByRole("button", { name: "Pictures" }).click();
await capture.getByRole("button", { name: "Take them with the camera" }).click();
await capture.getByLabel("Place, in your words").fill("on the shelf by the door");
await capture.getByLabel(/^Lens above the floor/).fill("104");
await capture.getByLabel(/^Lens to the mark/).fill("350");
await capture.getByRole("button", { name: "Keep and go on" }).click();
await capture.locator("button:enabled", { hasText: "Start" }).waitFor();
// As a phone feels the earth's pull that leans a little.
const pull = { accelerationIncludingGravity: { x: 0.35, y: 9.8, z: 0.2 } };
await capture.evaluate((felt) => dispatchEvent(Object.assign(new Event("devicemotion"), felt)), pull);
await capture.waitForTimeout(300);
await capture.screenshot({ path: `${directory}/capture.png` });
await phone.close();
await browser.close();
