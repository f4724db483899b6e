import { describe, expect, it } from "vitest";
import { resolveFrame } from "../frame";
import { newPlan } from "../job";
import { length } from "../units";
import { estimate, heatJPerMm, predictClosedForm, weldProblems } from "./index";

const plan = newPlan("t", "mm");
const frame = (change: Partial<typeof plan.frame> = {}) => resolveFrame({ ...plan.frame, ...change });

describe("the closed form", () => {
  it("is proportional to heat and goes with one over the wall", () => {
    const one = predictClosedForm(frame(), plan.weld);
    const two = predictClosedForm(frame(), { ...plan.weld, travelMmPerS: plan.weld.travelMmPerS / 2 });
    expect(two.sidesMm.AB.value).toBeCloseTo(2 * one.sidesMm.AB.value, 9);
    const thick = predictClosedForm(frame({ section: { ...plan.frame.section, wall: length("6") } }), plan.weld);
    expect(thick.sidesMm.BC.value).toBeCloseTo(one.sidesMm.BC.value / 2, 9);
  });
  it("heats by efficiency, volts and amps over travel: 20 V, 150 A, 6 mm/s MAG is 400 J/mm (closed form)", () => {
    expect(heatJPerMm({ ...plan.weld, volts: 20, amps: 150, travelMmPerS: 6 })).toBeCloseTo(400, 9);
    expect(heatJPerMm({ ...plan.weld, process: "TIG", volts: 20, amps: 150, travelMmPerS: 6 })).toBeCloseTo(300, 9);
  });
  it("lets tees shorten the sides that run through, and those alone", () => {
    const plain = predictClosedForm(frame(), plan.weld);
    const barred = predictClosedForm(frame({ cross: [{ id: "M1", at: length("500") }] }), plan.weld);
    expect(barred.sidesMm.AB.value).toBeGreaterThan(plain.sidesMm.AB.value);
    expect(barred.sidesMm.BC.value).toBeCloseTo(plain.sidesMm.BC.value, 12);
    expect(barred.crossPullMm).toHaveLength(1);
  });
  it("moves every corner inward by half of what its sides lose", () => {
    const p = predictClosedForm(frame(), plan.weld);
    expect(p.cornerMovesMm.A.x).toBeCloseTo(p.sidesMm.AB.value / 2, 12);
    expect(p.cornerMovesMm.C.y).toBeCloseTo(-p.sidesMm.BC.value / 2, 12);
  });
  it("says less of another material", () => {
    const width = (m: "mild steel" | "stainless 304") => {
      const e = predictClosedForm(frame({ material: m }), plan.weld).sidesMm.AB;
      return e.high / e.low;
    };
    expect(width("stainless 304")).toBeGreaterThan(width("mild steel"));
  });
});

describe("bands", () => {
  it("grow with shared factors and shrink with many beads", () => {
    const part = { mm: 0.2, factors: ["transverse" as const], beads: 4 };
    const few = estimate([part]);
    const many = estimate(Array.from({ length: 10 }, () => part));
    expect(few.low).toBeLessThan(few.value);
    expect(many.value).toBeCloseTo(2, 9);
    expect(many.high / many.value).toBeLessThan(few.high / few.value);
    // What is shared does not average out: 25 % alone gives exp(1.645 x 0.246) = 1.50.
    expect(many.high / many.value).toBeGreaterThan(1.49);
  });
});

describe("settings", () => {
  it("that no welder uses are questioned, a tack that is none is refused", () => {
    expect(weldProblems({ ...plan.weld, travelMmPerS: 0.5 }, 3)[0]).toMatchObject({
      severity: "warning",
      message: expect.stringMatching(/hot/),
    });
    expect(weldProblems({ ...plan.weld, tackLength: length("0") }, 3)[0]).toMatchObject({
      path: "weld.tackLength",
      severity: "error",
    });
    expect(weldProblems(plan.weld, 3)).toEqual([]);
  });
});
