import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { length } from "../units";
import { setJoint } from "./editing";
import { resolveStructure } from "./resolveStructure";
import type { StructureMember } from "./structure";

const of = (frame: Parameters<typeof resolveStructure>[0]) => resolveStructure(frame).structure;
const member = (frame: Parameters<typeof resolveStructure>[0], id: string): StructureMember => {
  const m = of(frame).members.find((x) => x.id === id);
  if (!m) throw new Error(`no member ${id}`);
  return m;
};
const kinds = (frame: Parameters<typeof resolveStructure>[0]): Record<string, string> =>
  Object.fromEntries(of(frame).joints.map((j) => [j.id, j.kind]));
/**
 * A mitre of two widths at an included angle: its line runs from the inner to the outer corner.
 * Source: closed form; w1 / sin f1 = w2 / sin f2, f1 + f2 = the included angle.
 */
function mitreByHand(includedDeg: number, w1: number, w2: number): { fromSquareRad: number; faceMm: number } {
  const t = (includedDeg * Math.PI) / 180;
  const f1 = Math.atan2(w1 * Math.sin(t), w2 + w1 * Math.cos(t));
  return { fromSquareRad: Math.PI / 2 - f1, faceMm: w1 / Math.sin(f1) };
}

describe("ends are cut to what they meet", () => {
  it("a mitre of any angle and any two widths, as the closed form has it", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 140, noNaN: true }),
        fc.integer({ min: 20, max: 100 }),
        fc.integer({ min: 20, max: 100 }),
        (deg, w1, w2) => {
          const th = (deg * Math.PI) / 180;
          const sections = [squareTube(40, 2, "S1"), squareTube(40, 2, "S2")];
          (sections[0] as { width: unknown }).width = length(String(w1));
          (sections[1] as { width: unknown }).width = length(String(w2));
          const frame = drawn(
            {
              P: [[0, 0, 20], [900, 0, 20], "S1"],
              Q: [[0, 0, 20], [900 * Math.cos(th), 900 * Math.sin(th), 20], "S2"],
            },
            sections,
          );
          // Ends are typed to a hundredth of a millimetre, so the angle is the one that was drawn.
          const q = frame.members[1];
          if (!q) throw new Error("no Q");
          const drawnDeg = (Math.atan2(q.to.y.mm, q.to.x.mm) * 180) / Math.PI;
          const exact = mitreByHand(drawnDeg, w1, w2);
          const joint = of(frame).joints[0];
          expect(joint?.kind).toBe("mitre");
          const p = member(frame, "P");
          expect(p.longMm - p.shortMm).toBeCloseTo(w1 * Math.abs(Math.tan(exact.fromSquareRad)), 6);
          expect(joint?.faces.find((f) => f.line === "top")?.lengthMm).toBeCloseTo(exact.faceMm, 6);
        },
      ),
      { numRuns: 80 },
    );
  });
  it("a butt is cut to the near face, and the one that runs through to the far one", () => {
    const corner = drawn({
      AB: [
        [20, 20, 20],
        [980, 20, 20],
      ],
      BC: [
        [980, 20, 20],
        [980, 580, 20],
      ],
    });
    const butt = setJoint(corner, "AB", "BC", { kind: "butt", through: "AB" });
    expect(member(butt, "AB").longMm).toBeCloseTo(980, 9);
    expect(member(butt, "BC").longMm).toBeCloseTo(540, 9);
    const other = setJoint(corner, "AB", "BC", { kind: "butt", through: "BC" });
    expect(member(other, "AB").longMm).toBeCloseTo(940, 9);
    expect(member(other, "BC").longMm).toBeCloseTo(580, 9);
  });
  it("a brace into a corner has two cuts, and its tip is its long point", () => {
    const x = member(started("gate leaf"), "X1");
    expect(x.ends.from.cutters).toHaveLength(2);
    expect(x.longMm).toBeGreaterThanOrEqual(x.centreMm - 1e-9);
    expect(x.shortMm).toBeLessThan(x.longMm);
  });
  it("a root gap shortens every branch by it, and a mitred end by half of it square to the cut", () => {
    const ladder = started("ladder", { rungs: 1 });
    const gapped = { ...ladder, gap: length("2") };
    expect(member(ladder, "M1").longMm - member(gapped, "M1").longMm).toBeCloseTo(4, 9);
    expect(member(ladder, "AB").centreMm - member(gapped, "AB").centreMm).toBeCloseTo(2 * Math.SQRT2, 9);
  });
  it("flush: the face lies in one plane with the neighbour's, whatever the two sizes are", () => {
    const frame = drawn({ R1: [[0, 0, 30], [1000, 0, 30], "S1"], M1: [[500, 0, 30], [500, 600, 30], "S2"] }, [
      squareTube(60, 3, "S1"),
      squareTube(30, 3, "S2"),
    ]);
    const [r, m] = frame.members;
    if (!r || !m) throw new Error("two members expected");
    for (const [side, z] of [
      ["up", 45],
      ["down", 15],
    ] as const) {
      const flush = { ...frame, members: [r, { ...m, flush: { to: "R1", side } }] };
      expect(member(flush, "M1").from[2]).toBeCloseTo(z, 9);
      expect(kinds(flush)).toEqual({ "M1/R1": "tee" });
    }
  });
});
