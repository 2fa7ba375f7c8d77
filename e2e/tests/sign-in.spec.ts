import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { serious } from "./axe";
import { expect, test } from "./practice";

test.describe("signed out", () => {
  test.use({ storageState: { cookies: [], origins: [] } });

  test("the door says when login and password do not match, and opens when they do", async ({ page }) => {
    await page.goto("/clients");
    await page.getByLabel("Login").fill("mara");
    await page.getByLabel("Password", { exact: true }).fill("not the password");
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page.getByRole("alert")).toHaveText("Login and password do not match.");
    await page.getByLabel("Password", { exact: true }).fill("plumb-line-demo");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { name: "Clients" })).toBeVisible();
    await page.getByRole("button", { name: "Sign out" }).click();
    await expect(page.getByRole("button", { name: "Sign in" })).toBeVisible();
  });

  test("the first start of a practice makes the owner and goes on to a first look with a made-up client", async ({ page }) => {
    const data = mkdtempSync(join(tmpdir(), "orthomer-first-"));
    const binary = process.env.ORTHOMER ?? "../target/debug/orthomer";
    const server = spawn(binary, ["serve", "--data", data, "--port", "8131"], { stdio: ["ignore", "pipe", "ignore"] });
    try {
      let printed = "";
      const code = () => /the code (\d{8})/.exec(printed)?.[1];
      await new Promise<void>((ready) => server.stdout.on("data", (text) => (printed += text, code() && ready())));
      await page.goto("http://127.0.0.1:8131/");
      await page.getByLabel("Your name").fill("Mara");
      await page.getByLabel("Login").fill("mara");
      await page.getByLabel("Password", { exact: true }).fill("short");
      await page.getByLabel("Code").fill(code() ?? "");
      await page.getByRole("button", { name: "Make the account" }).click();
      await expect(page.getByText("a password needs at least 10 characters")).toBeVisible();
      await page.getByLabel("Password", { exact: true }).fill("long enough to keep");
      await page.getByRole("button", { name: "Make the account" }).click();
      const firstLook = page.getByRole("region", { name: "First look" });
      await expect(firstLook.getByRole("listitem")).toHaveCount(3);
      expect(await serious(page)).toEqual([]);
      await page.getByRole("link", { name: "Clients" }).click();
      await expect(page.getByText("No clients yet.")).toBeVisible();
      await firstLook.getByRole("button", { name: "Look around with a made-up client" }).click();
      await expect(page.getByRole("heading", { name: "Wren Hollis" })).toBeVisible();
      await expect(page.getByRole("button", { name: /^Calf .*behind/ })).toBeVisible();
      // The same one again, not a second one.
      await page.goto("http://127.0.0.1:8131/tour");
      await page.getByRole("button", { name: "Look around with a made-up client" }).click();
      await expect(page.getByRole("heading", { name: "Wren Hollis" })).toBeVisible();
      await page.goto("http://127.0.0.1:8131/clients");
      await expect(page.getByRole("row")).toHaveCount(2);
    } finally {
      server.kill();
    }
  });
});
