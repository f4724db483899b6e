import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "tests/e2e",
  globalSetup: "./tests/support/e2e-setup.ts",
  workers: 2,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  reporter: process.env.CI ? [["line"]] : [["list"]],
  outputDir: "test-results",
  use: {
    browserName: "chromium",
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    timezoneId: "UTC",
    trace: "retain-on-failure",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      chromiumSandbox: false,
      args: [
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
        "--disable-quic",
      ],
    },
  },
});
