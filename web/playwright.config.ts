import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "e2e",
  fullyParallel: true,
  workers: 2,
  // Long enough for a machine that has much else to do: how fast things are is measured
  // (large.spec, make bench), and no journey fails by it.
  timeout: 120_000,
  // A browser or a worker may die of the machine; what passes only the second time is
  // printed as flaky, and is to be looked into.
  retries: 1,
  expect: { timeout: 15_000 },
  reporter: [["line"]],
  // What is measured has the machine to itself, when the journeys are done.
  projects: [
    // Without a browser: it has workers of its own, with stand-ins for a page's globals.
    { name: "logic", testMatch: /logic\.spec/ },
    { name: "journeys", testIgnore: /(large|logic)\.spec/ },
    {
      name: "measured",
      testMatch: /large\.spec/,
      dependencies: ["journeys"],
      fullyParallel: false,
    },
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
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
