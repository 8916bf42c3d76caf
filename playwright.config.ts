import { defineConfig } from "@playwright/test";

/**
 * The real interface in Debian's Chromium, against the production build; each file starts its own
 * server and shop.
 */
export default defineConfig({
  testDir: "e2e",
  // Ends what hangs; a walk through a whole job takes its minutes on a busy machine.
  timeout: 480_000,
  // Nothing here is timed: a page may take its while on a busy machine.
  expect: { timeout: 15_000 },
  // Two cores. A test mostly waits for the other side, so two files at a time keep them busy.
  workers: 2,
  // A machine that stands still for seconds may fail a walk once; a walk that fails twice has failed.
  // What passed at the second go only is printed as flaky, and is to be looked into.
  retries: 1,
  reporter: [["list"], ["json"]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
    },
  },
});
