// Adds up the runners' results, prints the parts with their seconds, and ends with the line that is counted.
import { existsSync, readFileSync } from "node:fs";
import path from "node:path";

const [folder, seconds] = process.argv.slice(2);
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
const budgets = [];
/** What tests said of the presses and keys that a job takes. */
const readBudgets = (suite) => {
  for (const { tests } of suite.specs ?? [])
    for (const { annotations } of tests)
      budgets.push(...annotations.filter((a) => a.type === "budget").map((a) => a.description));
  for (const inner of suite.suites ?? []) readBudgets(inner);
};
const browser = path.join(folder, "browser.json");
if (existsSync(browser)) {
  const { stats, suites } = JSON.parse(readFileSync(browser, "utf8"));
  suites.forEach(readBudgets);
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected;
  skipped += stats.skipped;
} else failed += 1;

const steps = readFileSync(path.join(folder, "steps.tsv"), "utf8")
  .trim()
  .split("\n")
  .map((line) => line.split("\t"));
console.log();
for (const [name, took, outcome] of steps) console.log(`  ${name.padEnd(26)}${took.padStart(5)} s  ${outcome}`);
console.log(`  ${"all, side by side".padEnd(26)}${seconds.padStart(5)} s`);
for (const budget of budgets) console.log(`  ${budget}`);
if (failed === 0 && steps.some(([, , outcome]) => outcome !== "ok")) failed = 1;
console.log(`${passed} passed, ${failed} failed, ${skipped} skipped`);
process.exitCode = failed > 0 ? 1 : 0;
