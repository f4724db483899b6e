import { describe, expect, it } from "vitest";
import type { Vec3 } from "../numeric";
import { angleChange, bow, combined, distanceChange, flatnessOf, outcomeAt, twist } from "./outcomes";
import type { OutputPoint } from "./outputs";

const points = (...at: Vec3[]): OutputPoint[] =>
  at.map((p, i) => ({ id: `P${i}`, at: p, member: "M", point: null, first: 3 * i }));
const out = (...moves: Vec3[]): Float64Array => Float64Array.from(moves.flat());
const four = points([0, 0, 0], [1000, 0, 0], [1000, 500, 0], [0, 500, 0]);
const [a, b, c, d] = four as [OutputPoint, OutputPoint, OutputPoint, OutputPoint];
const still: Vec3 = [0, 0, 0];

describe("outcomes of movements", () => {
  it("of a distance is what its ends move apart along it", () => {
    const ab = distanceChange({ kind: "span", span: "AB" }, a, b);
    expect(outcomeAt(ab, out([1, 5, 0], [3, -5, 2]))).toBeCloseTo(2, 12);
  });
  it("of an angle is the turn of one side less the other's: a point 1000 away moved by 10 across turns by 0.573°", () => {
    const angle = angleChange({ kind: "angle", corner: "A" }, a, b, d);
    expect(outcomeAt(angle, out(still, [0, 10, 0], still, still))).toBeCloseTo(-(0.01 * 180) / Math.PI, 9);
    expect(outcomeAt(angle, out(still, still, still, [-5, 0, 0]))).toBeCloseTo((0.01 * 180) / Math.PI, 9);
  });
  it("of twist and flatness: four corners out by twist are out of flat by half of it (closed form)", () => {
    const up: Vec3 = [0, 0, 1];
    const lifted = out([0, 0, 0.6], still, [0, 0, 0.6], still);
    expect(outcomeAt(twist({ kind: "twist" }, four, up), lifted)).toBeCloseTo(1.2, 12);
    expect(outcomeAt(flatnessOf({ kind: "flat" }, four, up), lifted)).toBeCloseTo(0.6, 9);
  });
  it("of a bow is the largest offset from the line between the ends, signed; a rigid move has none", () => {
    const rail = points([0, 0, 0], [500, 0, 0], [1000, 0, 0]);
    const bowed = bow({ kind: "bow", member: "M" }, rail, [0, 1, 0]);
    expect(outcomeAt(bowed, out(still, [0, -3, 0], [0, 2, 0]))).toBeCloseTo(-4, 12);
    expect(outcomeAt(bowed, out([0, 1, 0], [0, 2, 0], [0, 3, 0]))).toBeCloseTo(0, 12);
  });
  it("add up with their factors", () => {
    const [ac, bd] = [
      distanceChange({ kind: "span", span: "AC" }, a, c),
      distanceChange({ kind: "span", span: "BD" }, b, d),
    ];
    const square = combined({ kind: "square" }, "mm", [
      [1, ac],
      [-1, bd],
    ]);
    const moved = out(still, still, [4, 0, 0], [4, 0, 0]);
    expect(outcomeAt(square, moved)).toBeCloseTo(outcomeAt(ac, moved) - outcomeAt(bd, moved), 12);
    expect(outcomeAt(square, moved)).toBeGreaterThan(7);
  });
});
