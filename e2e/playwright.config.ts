import { defineConfig } from "@playwright/test";

/** The real binary with the real front end, in Debian's Chromium; each worker has a practice of its own (tests/practice.ts). */
export default defineConfig({
  testDir: "tests",
  workers: 2,
  // Far more than any test takes here: a slow machine is no failure.
  timeout: 120_000,
  // A test that passes at once on a practice of its own is told as flaky and stops nobody.
  retries: 1,
  expect: { timeout: 15_000 },
  forbidOnly: true,
  reporter: [["list"]],
  use: {
    viewport: { width: 1280, height: 800 },
    // Days and numbers are written as the reader's language has them.
    locale: "en-GB",
    // What only moves while it waits is drawn frame by frame without a graphics card: a fifth of the time of a run.
    contextOptions: { reducedMotion: "reduce" },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
    },
  },
});
