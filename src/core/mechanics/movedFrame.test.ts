import { describe, expect, it } from "vitest";
import { ladder } from "../../../tests/support/ladder";
import { CORNERS } from "../geometry";
import { norm3, sub3, type Vec3 } from "../numeric";
import { fromStructure } from "./fromStructure";
import { movedFrame, placedBy } from "./movedFrame";

const structure = ladder(2);
const { frame, joints } = fromStructure(structure);
const corner = (c: "A" | "B" | "C" | "D"): string => joints.get(structure.quad?.joints[c] ?? "")?.a ?? "";
const far = (p: string, q: string, of = frame): number => norm3(sub3(of.points[p] as Vec3, of.points[q] as Vec3));

describe("a frame with some points set elsewhere", () => {
  it("stays as it is when nothing is set, and goes along when all is set alike", () => {
    expect(movedFrame(frame, {}).points).toEqual(frame.points);
    const all = Object.fromEntries(CORNERS.map((c) => [corner(c), [3, -2, 0] as Vec3]));
    const moved = movedFrame(frame, all);
    for (const [name, p] of Object.entries(frame.points)) {
      const q = moved.points[name] as Vec3;
      expect(q[0] - p[0], name).toBeCloseTo(3, 9);
      expect(q[1] - p[1], name).toBeCloseTo(-2, 9);
    }
  });
  it("carries rungs on the sides that they stand on, at their share of the length", () => {
    const moved = movedFrame(frame, { [corner("B")]: [9, 0, 0] });
    // AB is 900 long between its centre lines: a third of the way it gives a third.
    const rung = structure.joints.find((j) => j.id === "M1/AB");
    const at = joints.get(rung?.id ?? "")?.a ?? "";
    const share =
      ((frame.points[at] as Vec3)[0] - (frame.points[corner("A")] as Vec3)[0]) / far(corner("A"), corner("B"));
    expect((moved.points[at] as Vec3)[0] - (frame.points[at] as Vec3)[0]).toBeCloseTo(9 * share, 9);
    expect(far(corner("A"), corner("B"), moved)).toBeCloseTo(far(corner("A"), corner("B")) + 9, 9);
  });
  it("of four corners places every point of a ladder; of one corner alone, not all", () => {
    const four = placedBy(frame, new Set(CORNERS.map(corner)));
    expect([...four].sort()).toEqual(Object.keys(frame.points).sort());
    expect(placedBy(frame, new Set([corner("A")])).size).toBeLessThan(Object.keys(frame.points).length);
  });
});
