import { describe, expect, it } from "vitest";
import { length } from "../units";
import type { DrawnPart } from "./drawnSchema";
import { statedPoint } from "./drawnStart";
import { resolvePart, thicknessOf } from "./parts";

const plate = (change: Partial<DrawnPart> = {}): DrawnPart =>
  ({
    id: "F1",
    kind: "plate",
    at: statedPoint([50, 40, 5], "mm"),
    size: statedPoint([100, 80, 10], "mm"),
    material: "mild steel",
    triangular: false,
    holes: [],
    ...change,
  }) as DrawnPart;

describe("plates and feet", () => {
  it("weigh their volume: 100 x 80 x 10 of steel is 0.628 kg", () => {
    const p = resolvePart(plate());
    expect(p.massKg).toBeCloseTo(100 * 80 * 10 * 7.85e-6, 9);
    expect(p.surfaceMm2).toBeCloseTo(2 * 8000 + 360 * 10, 9);
    expect(p.centreOfMass).toEqual([50, 40, 5]);
  });
  it("of a triangle weigh half, a third along from the corner that they keep", () => {
    const p = resolvePart(plate({ triangular: true }));
    expect(p.massKg).toBeCloseTo(resolvePart(plate()).massKg / 2, 9);
    expect(p.centreOfMass[0]).toBeCloseTo(100 / 3, 9);
    expect(p.centreOfMass[1]).toBeCloseTo(80 / 3, 9);
  });
  it("lose their holes and gain their rims", () => {
    const p = resolvePart(plate({ holes: [{ diameter: length("20") }] as DrawnPart["holes"] }));
    const hole = Math.PI * 100;
    expect(resolvePart(plate()).massKg - p.massKg).toBeCloseTo(hole * 10 * 7.85e-6, 9);
    expect(p.surfaceMm2 - resolvePart(plate()).surfaceMm2).toBeCloseTo(Math.PI * 20 * 10 - 2 * hole, 6);
    expect(thicknessOf([100, 10, 80])).toBe(1);
  });
});
