import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { LEARNING } from "./learningOperations";

interface Case {
  id: string;
  title: string;
  op: string;
  inputs: unknown;
  expected: unknown;
  tolerance: { abs: number; rel?: number };
  source: string;
}

const folder = path.join(process.env.CASES_DIR ?? path.join(import.meta.dirname, "cases"), "learning");
const cases = readdirSync(folder)
  .filter((f) => f.endsWith(".json"))
  .map((f) => JSON.parse(readFileSync(path.join(folder, f), "utf8")) as Case);

/**
 * Where the cases stand on a grid of their own, which they do not state: a quantile between two of its places, mm; and the scatters, whose
 * evidence they sum over other places (a grid of ours that is ten times as fine moves them by 0.001). Absolute.
 */
const OWN_GRID: Record<string, number> = {
  push: 0.004,
  ...{ bead_cv: 0.01, bead_low: 0.01, bead_high: 0.04, job_cv: 0.02, job_high: 0.04 },
};
/** Figures that a case prints to so many places. */
const PRINTED = 1e-10;

function compare(expected: unknown, actual: unknown, { abs, rel = 0 }: Case["tolerance"], at: string): void {
  if (typeof expected === "number") {
    expect(typeof actual, `${at} is a number`).toBe("number");
    const allowed = Math.max(abs, rel * Math.abs(expected), PRINTED * Math.abs(expected), OWN_GRID[at] ?? 0);
    expect(Math.abs((actual as number) - expected), `${at}: wanted ${expected}, got ${actual}`).toBeLessThanOrEqual(
      allowed,
    );
  } else if (typeof expected === "object" && expected !== null) {
    expect(actual, at).toBeTypeOf("object");
    for (const [key, value] of Object.entries(expected))
      compare(value, (actual as Record<string, unknown>)[key], { abs, rel }, at ? `${at}.${key}` : key);
    if (Array.isArray(expected)) expect((actual as unknown[]).length, `${at} length`).toBe(expected.length);
  } else expect(actual, at).toBe(expected);
}

describe("corrections and learning", () => {
  it("finds cases, and knows every operation they name", () => {
    expect(cases.length).toBeGreaterThan(0);
    expect(cases.filter((c) => !LEARNING[c.op]).map((c) => `${c.id}: ${c.op}`)).toEqual([]);
  });
  for (const c of cases) {
    const operation = LEARNING[c.op];
    if (operation)
      it(`${c.id}: ${c.title} (${c.source})`, () => compare(c.expected, operation(c.inputs), c.tolerance, ""));
  }
});
