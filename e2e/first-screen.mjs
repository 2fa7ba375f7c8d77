// Prints how many bytes the first screens load, gzipped: the desk's script up to the sign-in, Today and the list of clients, and all
// that a client's phone loads from its link to the week: node first-screen.mjs [address].
import { gzipSync } from "node:zlib";
import { chromium } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-quic"] });

/** Listens to what a page loads; gives kilobytes by kind, fonts as they are. */
function loaded(page, kinds) {
  const sizes = new Map();
  page.on("response", async (response) => {
    const kind = response.request().resourceType();
    if (!kinds.includes(kind) || response.status() !== 200) return;
    const body = await response.body().catch(() => undefined);
    if (!body) return;
    sizes.set(response.url(), { kind, size: kind === "font" ? body.length : gzipSync(body).length });
  });
  return () =>
    kinds.map((kind) => {
      const own = [...sizes.values()].filter((one) => one.kind === kind);
      return `${kind} ${Math.round(own.reduce((sum, { size }) => sum + size, 0) / 1000)} kB in ${own.length} files`;
    });
}

const practice = await browser.newContext();
const desk = await practice.newPage();
const script = loaded(desk, ["script"]);
await desk.goto(address);
await desk.getByLabel("Login").waitFor();
await desk.waitForLoadState("networkidle");
console.log(`sign-in: ${script()}`);
await desk.getByLabel("Login").fill("mara");
await desk.getByLabel("Password", { exact: true }).fill("plumb-line-demo");
await desk.getByRole("button", { name: "Sign in" }).click();
await desk.getByRole("heading", { name: "Today", exact: true }).waitFor();
await desk.waitForLoadState("networkidle");
console.log(`sign-in and Today: ${script()}`);
await desk.goto(`${address}/clients`);
await desk.getByRole("heading", { name: "Clients" }).waitFor();
await desk.waitForLoadState("networkidle");
console.log(`and the list of clients: ${script()}`);
const again = await practice.newPage();
const signedIn = loaded(again, ["script"]);
await again.goto(`${address}/today`);
await again.getByRole("heading", { name: "Today", exact: true }).waitFor();
await again.waitForLoadState("networkidle");
console.log(`Today, signed in: ${signedIn()}`);

const clients = await (await desk.request.get(`${address}/api/v1/clients`)).json();
const link = await (await desk.request.post(`${address}/api/v1/clients/${clients.items[0].id}/links`, { data: { days: 1 } })).json();
// The worker fetches what it keeps once more: that is not the first screen.
const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, isMobile: true, serviceWorkers: "block" });
const page = await phone.newPage();
const first = loaded(page, ["script", "stylesheet", "font"]);
await page.goto(`${address}/my#${link.token}`);
await page.getByRole("heading", { level: 1 }).waitFor();
await page.locator("main li button").first().waitFor();
console.log(`a phone from its link to the week: ${first().join(", ")}`);
await page.waitForLoadState("networkidle");
console.log(`and what comes after it, for the session: ${first().join(", ")} in all`);
await browser.close();
