import { describe, expect, it } from "vitest";
import { round } from "../../../tests/support/jobs";
import { SHELF } from "../instruments";
import type { Entry } from "./entrySchema";
import { evaluate as evaluateWith } from "./evaluate";
import type { Job } from "./jobSchema";
import { newPlan } from "./plan";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

let n = 0;
const id = () => `00000000-0000-4000-8000-${String(++n).padStart(12, "0")}`;
const plan = newPlan("Test frame", "mm");
const evaluate = (j: Job) => evaluateWith(j, predict(j.plan)?.prediction ?? null);
const job = (entries: Entry[] = [], change: (p: Plan) => Plan = (p) => p): Job => ({
  id: id(),
  createdAt: "2026-11-24T08:00:00.000Z",
  version: 1,
  plan: change(plan),
  instruments: [...SHELF],
  entries,
});

describe("a bed by rod", () => {
  it("is the same bed as by heights: a larger rod reading is lower", () => {
    const rod = round("bed", { R1: "1500", R2: "1499.4", R3: "1500", R4: "1499.8" }, "height-gauge");
    const [first, ...rest] = rod;
    if (first?.kind !== "round") throw new Error("a round expected");
    const byRod = evaluate(job([{ ...first, method: "rod" }, ...rest])).bedRounds[0]?.verdict;
    const byHeight = evaluate(job(round("bed", { R1: "0", R2: "0.6", R3: "0", R4: "0.2" }, "height-gauge")))
      .bedRounds[0]?.verdict;
    expect(byRod?.rests.map((r) => r.heightMm?.toFixed(6))).toEqual(["0.000000", "0.600000", "0.000000", "0.200000"]);
    expect(byRod?.word).toBe(byHeight?.word);
    expect(byRod?.flatness.zoneMm).toBeCloseTo(byHeight?.flatness.zoneMm ?? -1, 9);
  });
});
