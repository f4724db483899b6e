import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { OPERATIONS } from "./operations";

interface Case {
  id: string;
  title: string;
  op: string;
  inputs: unknown;
  expected: unknown;
  tolerance: Record<string, number>;
  source: string;
}

/** Holds `actual` against an expected subset. A tolerance key applies to every value whose path contains it. */
function compare(expected: unknown, actual: unknown, tolerance: Record<string, number>, at: string): void {
  if (typeof expected === "number" || expected === "infinity") {
    const key = Object.keys(tolerance).find((k) => k !== "abs" && at.split(".").includes(k));
    const allowed = tolerance[key ?? "abs"] ?? 0;
    const wanted = expected === "infinity" ? Number.POSITIVE_INFINITY : expected;
    expect(typeof actual, `${at} is a number`).toBe("number");
    if (wanted === Number.POSITIVE_INFINITY) expect(actual, at).toBe(wanted);
    else
      expect(Math.abs((actual as number) - wanted), `${at}: wanted ${wanted}, got ${actual}`).toBeLessThanOrEqual(
        allowed,
      );
  } else if (typeof expected === "object" && expected !== null) {
    expect(actual, at).toBeTypeOf("object");
    expect(actual, at).not.toBeNull();
    const entries = Object.entries(expected);
    if (Array.isArray(expected)) expect((actual as unknown[]).length, `${at} length`).toBe(expected.length);
    for (const [key, value] of entries)
      compare(value, (actual as Record<string, unknown>)[key], tolerance, at ? `${at}.${key}` : key);
  } else expect(actual, at).toBe(expected);
}

const read = (folder: string): Case[] =>
  (existsSync(folder) ? readdirSync(folder) : [])
    .filter((f) => f.endsWith(".json"))
    .map((f) => JSON.parse(readFileSync(path.join(folder, f), "utf8")) as Case);

const own = path.join(import.meta.dirname, "cases");
/** Folders of cases. Another one may be named to hold the same code against other cases. */
const FOLDERS = {
  metrology: path.join(process.env.CASES_DIR ?? own, "metrology"),
  holding: path.join(process.env.CASES_DIR ?? own, "holding"),
} as const;

describe.each(Object.entries(FOLDERS))("%s cases", (_, folder) => {
  const cases = read(folder);
  it("finds cases, and knows every operation they name", () => {
    expect(cases.length, `cases in ${folder}`).toBeGreaterThan(0);
    expect(cases.filter((c) => !OPERATIONS[c.op]).map((c) => `${c.id}: ${c.op}`)).toEqual([]);
  });
  for (const c of cases) {
    const operation = OPERATIONS[c.op];
    const title = `${c.id}: ${c.title} (${c.source})`;
    if (operation) it(title, () => compare(c.expected, operation(c.inputs), c.tolerance, ""));
  }
});
