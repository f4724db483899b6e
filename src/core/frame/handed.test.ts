import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import type { DrawnFrame } from "./drawnSchema";
import { copyMembers } from "./editing";
import { handedness } from "./handed";
import { mirrorMembers } from "./mirroring";
import { resolveStructure } from "./resolveStructure";

describe("left and right", () => {
  const arm = drawn({
    R1: [
      [0, 0, 20],
      [600, 200, 20],
    ],
    R2: [
      [600, 200, 20],
      [600, 200, 300],
    ],
  });
  const of = (frame: DrawnFrame, left: string[], right: string[]) =>
    handedness(resolveStructure(frame).structure, left, right);
  it("a mirror image is right, a copy is two of one hand", () => {
    const { frame, ids } = mirrorMembers(arm, ["R1", "R2"], "y", 500, false, "mm");
    expect(of(frame, ["R1", "R2"], ids)).toMatchObject({ verdict: "mirrored" });
    const twin = copyMembers(arm, ["R1", "R2"], [0, 900, 0], 1, "mm");
    expect(of(twin.frame, ["R1", "R2"], twin.ids)).toMatchObject({
      verdict: "two of one hand",
      why: expect.stringMatching(/Mirror one/),
    });
  });
  it("an angle or a channel is laid end for end on the other side, so that its legs lie mirrored", () => {
    for (const shape of ["angle", "channel"] as const) {
      const arm = drawn(
        {
          R1: [
            [0, 0, 20],
            [600, 200, 20],
          ],
        },
        [{ ...squareTube(40, 4), shape }],
      );
      const { frame, ids } = mirrorMembers(arm, ["R1"], "y", 500, false, "mm");
      expect(of(frame, ["R1"], ids).verdict, shape).toBe("mirrored");
      const kink = resolveStructure(started("rails with a kink", {}, { ...squareTube(40, 4), shape })).structure;
      expect(handedness(kink, ["L1", "L2"], ["R1", "R2"]).verdict, shape).toBe("mirrored");
    }
  });
  it("what is its own mirror image fits either side; what differs is said", () => {
    const straight = drawn({
      R1: [
        [0, 0, 20],
        [600, 0, 20],
      ],
    });
    const twin = copyMembers(straight, ["R1"], [0, 900, 0], 1, "mm");
    expect(of(twin.frame, ["R1"], twin.ids).verdict).toBe("mirrored");
    const other = copyMembers(arm, ["R1"], [0, 900, 0], 1, "mm");
    expect(of(other.frame, ["R1", "R2"], other.ids).verdict).toBe("different");
  });
});
