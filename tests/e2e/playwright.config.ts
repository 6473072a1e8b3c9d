import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "./specs",
  globalSetup: "./pool.ts",
  // Nothing here measures speed: a slow machine gets the time it needs.
  timeout: 300_000,
  expect: { timeout: 20_000 },
  workers: 2,
  fullyParallel: true,
  retries: 0,
  reporter: [["list"], ["json", { outputFile: "test-results/report.json" }]],
  use: {
    actionTimeout: 20_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.TERN_CHROMIUM ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
