import path from "node:path";
import { defineConfig } from "@playwright/test";

const outputDir = "test-results/e2e";

// Servers of the tests remember their labs here, and not where those of this machine are remembered; the folder is emptied at the
// beginning of a run, so that a lab of an earlier one is not missed.
process.env.STEADY_BEAD_LABS ??= path.resolve(outputDir, "labs.json");

// Debian's Chromium; the background services of a browser have nothing to talk to here.
const args = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** Files that take more than a minute: begun first, so that no worker is left alone with one at the end. */
const long = ["live-bench", "words", "way-back", "survive", "offline"].map((name) => `**/${name}.spec.ts`);

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/lab-template.ts",
  outputDir,
  projects: [
    { name: "long", testMatch: long },
    { name: "others", testIgnore: long },
  ],
  // Long ones run with bin/test --all.
  ...(process.env.LONG_TESTS ? {} : { grepInvert: /@long/ }),
  // One server and one database each.
  workers: 2,
  // Wide enough for a machine that has other things to do: they bound what hangs, and measure nothing.
  timeout: 240_000,
  expect: { timeout: 20_000 },
  reporter: [["list"], ["json", { outputFile: "test-results/e2e.json" }]],
  use: {
    browserName: "chromium",
    launchOptions: { executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args },
    actionTimeout: 40_000,
    viewport: { width: 1280, height: 800 },
    // Nothing is looked at while its color changes, and no time is spent on moving what is opened.
    contextOptions: { reducedMotion: "reduce" },
    // Tests put things between a page and its server; those of the service worker let it in.
    serviceWorkers: "block",
    // Recording costs a third of the time: asked for when something is to be found.
    trace: process.env.TRACE === undefined ? "off" : "retain-on-failure",
  },
});
