import { defineConfig } from "@playwright/test";

const PORT = 8129;

/**
 * The real binary with the real front end, in Debian's Chromium. One worker: the tests share one practice. Its clients have no
 * pictures, so that drawing them does not slow the tests; those about pictures send their own.
 */
export default defineConfig({
  testDir: "tests",
  workers: 1,
  timeout: 30_000,
  forbidOnly: true,
  reporter: [["list"]],
  globalSetup: "./global-setup.ts",
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    storageState: "test-results/.signed-in.json",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
    },
  },
  webServer: {
    command: `${process.env.ORTHOMER ?? "../target/debug/orthomer"} demo --no-pictures --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/api/v1/health`,
    reuseExistingServer: false,
    timeout: 60_000,
  },
});
