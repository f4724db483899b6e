import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { condense, LowRankRun, plainRun } from "@/core/mechanics";
import { type CaseFrame, caseProgramme } from "./mechanicsCases";

const folder = path.join(process.env.CASES_DIR ?? path.join(import.meta.dirname, "cases"), "seams");
const files = readdirSync(folder)
  .filter((f) => f.endsWith(".json"))
  .sort();

/** An L whose open seams touch or stand open, by finite elements with contact. */
interface SeamFile {
  geometry: Omit<CaseFrame, "steps">;
  steps: Record<string, unknown>[];
  variants: {
    seams: "open" | "touching" | "uniform gap";
    gap_mm: number | null;
    closing_mm: number;
    expected: number[][];
    tolerance_abs: { mm: number; mrad: number };
  }[];
}

/** Largest miss, as a share of the largest value of its unit in the case: a quarter would do, this is what is reached. */
const SHARE = 0.08;

describe("seams", () => {
  it.each(files)("%s", (file) => {
    const { geometry, steps, variants } = JSON.parse(readFileSync(path.join(folder, file), "utf8")) as SeamFile;
    for (const { seams, gap_mm, closing_mm, expected, tolerance_abs } of variants) {
      const frame: CaseFrame = {
        ...geometry,
        model: { ...geometry.model, fitup: 1e-4, gap_mm: seams === "open" ? null : (gap_mm ?? 0) },
        steps: steps.map((s) => (s.closing_mm === "variant.closing_mm" ? { ...s, closing_mm } : s)),
      };
      const { model, plan, limited } = caseProgramme(frame);
      const joint = model.joints[0];
      if (!joint) throw new Error("a case without a joint");
      const { movements } = plainRun(plan, limited);
      const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
      const run = new LowRankRun(condense(plan, rows), undefined, limited);
      run.forward(plan, 0, plan.actions.length);
      run.gather().forEach((v, i) => {
        expect(Math.abs(v - (movements.at(-1)?.[i] as number)), "condensed against plain").toBeLessThan(1e-9);
      });
      for (const [unit, ways] of [
        ["mm", [0, 1, 2]],
        ["mrad", [3, 4, 5]],
      ] as const) {
        const largest = Math.max(...expected.flatMap((row) => ways.map((w) => Math.abs(row[w] as number))));
        movements.forEach((u, step) => {
          for (const w of ways) {
            const [a, b] = [u[6 * joint.nodeA + w] as number, u[6 * joint.nodeB + w] as number];
            const got = (b - a) * (unit === "mm" ? 1 : 1000);
            const want = expected[step]?.[w] as number;
            const says = `${seams} ${gap_mm ?? ""}: step ${step} way ${w} = ${got.toFixed(3)} ${unit}, finite elements ${want}, of ${largest}`;
            expect(Math.abs(got - want), says).toBeLessThanOrEqual(Math.max(SHARE * largest, tolerance_abs[unit]));
          }
        });
      }
    }
  });
});
