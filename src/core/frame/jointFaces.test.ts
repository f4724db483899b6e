import { describe, expect, it } from "vitest";
import { drawn, started } from "../../../tests/support/drawnFrames";
import type { Vec3 } from "../numeric";
import { resolveStructure } from "./resolveStructure";
import type { StructureFace } from "./structure";

const faces = (frame: Parameters<typeof resolveStructure>[0], joint: string): StructureFace[] =>
  resolveStructure(frame).structure.joints.find((j) => j.id === joint)?.faces ?? [];
const only = (members: Record<string, [Vec3, Vec3]>): StructureFace[] =>
  resolveStructure(drawn(members)).structure.joints[0]?.faces ?? [];
const by = (list: StructureFace[], line: string): StructureFace => {
  const face = list.find((f) => f.line === line);
  if (!face) throw new Error(`no face ${line}`);
  return face;
};

describe("faces of a joint", () => {
  it("of a mitre: as long as the cut across the tube above and below, as deep as the tube inside and outside", () => {
    const list = faces(started("ladder"), "A");
    // 40 mm tube at 45°: the cut is 40 times the root of two.
    expect(by(list, "top").lengthMm).toBeCloseTo(40 * Math.SQRT2, 6);
    expect(by(list, "bottom").lengthMm).toBeCloseTo(40 * Math.SQRT2, 6);
    expect(by(list, "inside").lengthMm).toBeCloseTo(40, 6);
    expect(by(list, "top").toward[2]).toBeCloseTo(1, 9);
    // Inside looks into the frame.
    expect(by(list, "inside").toward[0]).toBeCloseTo(Math.SQRT1_2, 6);
    expect(by(list, "inside").toward[1]).toBeCloseTo(Math.SQRT1_2, 6);
  });
  it("of a tee: as wide as the branch, longer along the chord by one over the sine of the angle", () => {
    for (const deg of [90, 60, 35]) {
      const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
      const list = only({
        M: [
          [0, 0, 0],
          [1000, 0, 0],
        ],
        N: [
          [400, 0, 0],
          [400 + 600 * c, 600 * s, 0],
        ],
      });
      expect(by(list, "plus").lengthMm).toBeCloseTo(40, 6);
      expect(by(list, "top").lengthMm).toBeCloseTo(40 / s, 2);
    }
  });
  it("look away from each other in pairs, on every joint of every kind", () => {
    for (const frame of [started("ladder"), started("stand"), started("gate leaf")])
      for (const j of resolveStructure(frame).structure.joints)
        for (const [p, q] of [
          ["inside", "outside"],
          ["top", "bottom"],
          ["plus", "minus"],
        ] as const) {
          const [a, b] = [j.faces.find((f) => f.line === p), j.faces.find((f) => f.line === q)];
          if (!a || !b) continue;
          a.toward.forEach((x, i) => {
            expect(x).toBeCloseTo(-(b.toward[i] ?? Number.NaN), 9);
          });
          expect(Math.hypot(...a.toward)).toBeCloseTo(1, 9);
        }
  });
});
