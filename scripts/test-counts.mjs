// Prints the closing counts of the test runners from their own reports, a line each.
import { existsSync, readFileSync } from "node:fs";

const report = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : null);
const line = (name, passed, failed, skipped) =>
  console.log(`${name}: ${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ""}`);

const jest = report("test-results/jest.json");
if (jest) {
  // A suite that cannot even be loaded counts as a failure, though no test of it was counted.
  const failed = jest.numFailedTests + jest.numRuntimeErrorTestSuites;
  line("jest", jest.numPassedTests, failed, jest.numPendingTests);
}
const e2e = report("test-results/e2e.json");
if (e2e) {
  const { expected, unexpected, flaky, skipped } = e2e.stats;
  line("playwright", expected, unexpected + flaky + e2e.errors.length, skipped);
}
