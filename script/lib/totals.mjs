// Adds up the runners' results and ends with the line that is counted.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";

const [folder, stepFailed] = process.argv.slice(2);
let passed = 0;
let failed = 0;
let skipped = 0;
for (const name of ["unit", "db", "crash"]) {
  const file = path.join(folder, `${name}.json`);
  if (!existsSync(file)) {
    failed += 1;
    continue;
  }
  const result = JSON.parse(readFileSync(file, "utf8"));
  passed += result.numPassedTests;
  failed += result.numFailedTests + (result.numFailedTestSuites > 0 && result.numFailedTests === 0 ? 1 : 0);
  for (const suite of result.testResults)
    for (const test of suite.assertionResults) if (test.status === "pending" || test.status === "skipped") skipped += 1;
}
const browser = path.join(folder, "browser.json");
if (existsSync(browser)) {
  const { stats } = JSON.parse(readFileSync(browser, "utf8"));
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected;
  skipped += stats.skipped;
} else failed += 1;
if (stepFailed === "1" && failed === 0) failed = 1;
console.log(`${passed} passed, ${failed} failed, ${skipped} skipped`);
process.exitCode = failed > 0 || readdirSync(folder).length === 0 ? 1 : 0;
