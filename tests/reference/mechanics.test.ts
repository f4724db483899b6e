import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { condense, LEAST_FITUP, LowRankRun, plainRun } from "@/core/mechanics";
import { type CaseFile, caseProgramme, caseResult } from "./mechanicsCases";

const folder = path.join(process.env.CASES_DIR ?? path.join(import.meta.dirname, "cases"), "mechanics");
const files = readdirSync(folder)
  .filter((f) => f.endsWith(".json"))
  .sort();

describe("shrinkage mechanics", () => {
  it.each(files)("%s", (file) => {
    const cases = JSON.parse(readFileSync(path.join(folder, file), "utf8")) as CaseFile;
    expect(cases.runs.length).toBeGreaterThan(0);
    for (const { run: name, frame, expected } of cases.runs) {
      const { model, plan, limited } = caseProgramme(frame);
      const u = plainRun(plan, limited).movements.at(-1) as Float64Array;
      expect(expected.length).toBeGreaterThan(0);
      if (model.joints.every((j) => j.contactShare >= LEAST_FITUP)) {
        const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
        const run = new LowRankRun(condense(plan, rows), undefined, limited);
        run.forward(plan, 0, plan.actions.length);
        run.gather().forEach((v, i) => {
          expect(Math.abs(v - (u[i] as number)), `${name}: condensed against plain`).toBeLessThan(1e-9);
        });
      }
      for (const value of expected) {
        const got = caseResult(frame, model, u, value.result);
        const says = `${name}: ${value.result} = ${got.toFixed(6)}, expected ${value.expected}, this model ${value.this_model}`;
        expect(Math.abs(got - value.expected), says).toBeLessThanOrEqual(value.tolerance_abs);
        if (value.this_model === undefined) continue;
        // The cases print five decimals: half of the last one is theirs.
        const slack = 0.5e-5 + 1e-6 * Math.abs(value.this_model) + 1e-9;
        expect(Math.abs(got - value.this_model), says).toBeLessThanOrEqual(slack);
      }
    }
  });
});
