import { describe, expect, it } from "vitest";
import { good, points } from "../../../../tests/support/corner";
import { modelOf } from "../../mechanics";
import { frameProblems } from "../frameProblems";
import type { JointPlace } from "../jointKind";
import { cornerPlace } from "./corner";

/** The corner of LA and LB, or of LB and LA. */
function corner(change: Parameters<typeof points>[0] = {}, joints = good.joints): JointPlace {
  let place: JointPlace | null = null;
  modelOf({ ...good, joints, ...points(change) }, (input) => {
    if (input.spec.id === "J") place = cornerPlace(input);
    return { at: [0, 0, 0] as const, contact: new Float64Array(36), contactShare: 1, gapMm: null };
  });
  if (!place) throw new Error("no corner");
  return place as JointPlace;
}

describe("place of a corner", () => {
  it("lies where both members end, halves the angle, and is longer across a mitre by one over the sine of half of it", () => {
    const right = corner();
    expect(right.at).toEqual([0, 0, 0]);
    expect(right.angleDeg).toBeCloseTo(90, 9);
    expect(right.e1[0]).toBeCloseTo(Math.SQRT1_2, 9);
    expect(right.e2).toEqual([0, 0, 1]);
    // Middle of the wall: (50 - 3) / 2 = 23.5.
    expect(right.half2Mm).toBeCloseTo(23.5, 9);
    expect(right.half1Mm).toBeCloseTo(23.5 * Math.SQRT2, 9);
    const open = corner({ B: [-500 * Math.cos(Math.PI / 3), 500 * Math.sin(Math.PI / 3), 0] });
    expect(open.angleDeg).toBeCloseTo(120, 9);
    expect(open.half1Mm).toBeCloseTo(23.5 / Math.sin(Math.PI / 3), 9);
  });
  it("keeps up on the frame's side when the members are named the other way round", () => {
    const swapped = corner(
      {},
      good.joints.map((j) => (j.id === "J" ? { ...j, a: "LB", b: "LA" } : j)),
    );
    expect(swapped.e2[2]).toBeCloseTo(1, 12);
    expect(swapped.half1Mm).toBeCloseTo(corner().half1Mm, 12);
  });
  it("is refused where the two do not meet, or fold back on each other", () => {
    const wrong = (change: Parameters<typeof points>[0]) =>
      frameProblems({ ...good, ...points(change) }).map((p) => p.path);
    expect(wrong({})).toEqual([]);
    expect(wrong({ B: [500, 2, 0] })).toContain("joints/J");
  });
});
