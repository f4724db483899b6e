import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { type DrawnFrame, resolveStructure, STARTERS, type Structure } from "../frame";
import { fromStructure } from "../mechanics";
import { weldedModel } from "../weld";
import { frameOutcomes, frameOutputs } from "./frameOutcomes";
import { outcomeKey } from "./outcomeId";
import { outcomeAt } from "./outcomes";

function of(structure: Structure) {
  const { frame, joints } = fromStructure(structure);
  const model = weldedModel(frame);
  const outputs = frameOutputs(structure, joints)(model);
  const outcomes = frameOutcomes(structure, joints)(model, outputs);
  /** Every outcome when all points move so. */
  const when = (move: (at: readonly [number, number, number]) => readonly [number, number, number]) => {
    const out = Float64Array.from(outputs.points.flatMap((p) => [...move(p.at as [number, number, number])]));
    return new Map(outcomes.map((o) => [outcomeKey(o.id), outcomeAt(o, out)]));
  };
  return { outcomes, when };
}

/** A standing frame seen from the right instead of from the front. */
const turnedOnEnd = (frame: DrawnFrame): DrawnFrame => ({
  ...frame,
  members: frame.members.map((m) => {
    const turned = ({ x, y, z }: typeof m.from) => ({ x: y, y: x, z });
    return { ...m, from: turned(m.from), to: turned(m.to) };
  }),
});

describe("what is told of a frame's movement", () => {
  it("is nothing when it moves or turns as a whole", () => {
    for (const structure of [ladder(2), ...STARTERS.map((s) => resolveStructure(started(s.name)).structure)])
      for (const [key, value] of of(structure).when(([x, y, z]) => [
        3 - 2e-4 * z - 1e-4 * y,
        -2 + 1e-4 * x + 1e-4 * z,
        1 + 2e-4 * x - 1e-4 * y,
      ]))
        expect(Math.abs(value), key).toBeLessThan(1e-6);
  });
  it("of a frame that shrinks by a thousandth is that of every length, and no angle", () => {
    const found = of(ladder(0)).when(([x, y]) => [-1e-3 * x, -1e-3 * y, 0]);
    expect(found.get("AB")).toBeCloseTo(-0.508, 6);
    expect(found.get("AC")).toBeCloseTo(-0.508 * Math.SQRT2, 6);
    expect(found.get("square")).toBeCloseTo(0, 9);
    expect(found.get("angle A")).toBeCloseTo(0, 9);
  });
  it("of a lean by s is AC less BD of 2 s L / D, and of a lifted corner its twist", () => {
    const lean = of(ladder(0)).when(([, y]) => [(y / 508) * 2, 0, 0]);
    expect(lean.get("square")).toBeCloseTo((2 * 2 * 508) / (508 * Math.SQRT2), 6);
    const lifted = of(ladder(0)).when(([x, y]) => [0, 0, (x * y) / 508 ** 2]);
    expect(lifted.get("twist")).toBeCloseTo(1, 1);
  });
  it("of a frame without corners that stands in an upright plane is its flatness out of that plane, as if it lay", () => {
    for (const name of ["front", "right"] as const) {
      const rack = started("rack", { uprights: 5 });
      const { structure } = resolveStructure(name === "front" ? rack : turnedOnEnd(rack));
      const across = name === "front" ? 1 : 0;
      // Twisted about its middle by 2 mm from corner to corner.
      const [u, h] = [structure.high[1 - across] as number, structure.high[2]];
      const found = of(structure).when((at) => {
        const out: [number, number, number] = [0, 0, 0];
        out[across] = (2 * (at[1 - across] as number) * at[2]) / (u * h);
        return out;
      });
      const flat = found.get("flat") ?? 0;
      // A surface 2 xy/ab over a rectangle lies between two planes half a millimetre either side: 1 mm; its outermost joints lie a little within.
      expect(flat, name).toBeGreaterThan(0.85);
      expect(flat, name).toBeLessThan(1.001);
      expect(
        of(structure)
          .when(([x, y, z]) => [x * z * 1e-6 * across, y * z * 1e-6 * (1 - across), 0])
          .get("flat"),
      ).toBeCloseTo(0, 6);
    }
  });
});
