// Prints how many bytes of JavaScript the sign-in and the list of clients load, gzipped: node first-screen.mjs [address].
import { gzipSync } from "node:zlib";
import { chromium } from "@playwright/test";

const address = process.argv[2] ?? "http://127.0.0.1:8080";
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-quic"] });
const page = await browser.newPage();
const sizes = new Map();
page.on("response", async (response) => {
  if (response.request().resourceType() !== "script") return;
  sizes.set(new URL(response.url()).pathname, gzipSync(await response.body()).length);
});
const total = () => Math.round([...sizes.values()].reduce((sum, size) => sum + size, 0) / 1000);

await page.goto(address);
await page.getByLabel("Login").waitFor();
await page.waitForLoadState("networkidle");
console.log(`sign-in: ${total()} kB in ${sizes.size} files`);
await page.getByLabel("Login").fill("mara");
await page.getByLabel("Password", { exact: true }).fill("plumb-line-demo");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("heading", { name: "Clients" }).waitFor();
await page.waitForLoadState("networkidle");
console.log(`clients: ${total()} kB in ${sizes.size} files`);
await browser.close();
