import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, started } from "../../../tests/support/drawnFrames";
import { norm3, sub3, type Vec3 } from "../numeric";
import { bodyPoints, resolveStructure } from "./resolveStructure";
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
  it("of round tube go once round it: a circle on a face, an ellipse at a mitre", () => {
    const upright: Record<string, [Vec3, Vec3]> = {
      M: [
        [0, 0, 0],
        [1000, 0, 0],
      ],
      N: [
        [400, 0, 0],
        [400, 600, 0],
      ],
    };
    const corner: Record<string, [Vec3, Vec3]> = {
      M: [
        [0, 0, 0],
        [1000, 0, 0],
      ],
      N: [
        [0, 0, 0],
        [0, 600, 0],
      ],
    };
    const roundMm = (members: Record<string, [Vec3, Vec3]>): number =>
      resolveStructure(drawn(members, [roundTube(40)])).structure.joints[0]?.faces.reduce(
        (sum, f) => sum + f.lengthMm,
        0,
      ) ?? Number.NaN;
    expect(roundMm(upright)).toBeCloseTo(Math.PI * 40, 6);
    // Half axes 20 and 20 times the root of two; Ramanujan's second rule, good to a millionth here.
    const h = ((Math.SQRT2 - 1) / (Math.SQRT2 + 1)) ** 2;
    const ellipse = Math.PI * 20 * (1 + Math.SQRT2) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    expect(roundMm(corner) / ellipse).toBeGreaterThan(0.99);
    expect(roundMm(corner) / ellipse).toBeLessThan(1.001);
  });
  it("of a mitre whose walls stand aslant to the bend go once round the cut, wall by wall", () => {
    fc.assert(
      fc.property(
        fc.record({ over: fc.integer({ min: 60, max: 250 }), rise: fc.integer({ min: 60, max: 250 }) }),
        ({ over, rise }) => {
          const kinked = drawn({
            M: [
              [0, 0, 0],
              [1000, 0, 0],
            ],
            N: [
              [1000, 0, 0],
              [1500, over, rise],
            ],
          });
          const { members, joints } = resolveStructure(kinked).structure;
          const [m] = members;
          const [j] = joints;
          if (!m || j?.kind !== "mitre") throw new Error("no mitre");
          const n = m.outline.length;
          const end = bodyPoints(m).slice(n);
          const aroundMm = end.reduce((sum, p, i) => sum + norm3(sub3(p, end[(i + 1) % n] as Vec3)), 0);
          expect(j.faces.reduce((sum, f) => sum + f.lengthMm, 0) / aroundMm).toBeCloseTo(1, 2);
        },
      ),
      { numRuns: 40 },
    );
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
