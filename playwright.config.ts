import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "tests/e2e",
  globalSetup: "./tests/support/e2e-setup.ts",
  workers: 2,
  fullyParallel: true,
  timeout: 900_000,
  // Generous: a busy machine must not fail a test that asserts no time.
  expect: { timeout: 90_000 },
  reporter: process.env.CI ? [["line"]] : [["list"]],
  outputDir: "test-results",
  use: {
    browserName: "chromium",
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    timezoneId: "UTC",
    // What cannot be pressed or typed into is said early.
    actionTimeout: 120_000,
    trace: "off",
    // A page's own test asks the server; what works without it has tests of its own.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: "/usr/bin/chromium-headless-shell",
      chromiumSandbox: false,
      args: [
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
        "--disable-quic",
        "--disable-gpu",
      ],
    },
  },
});
