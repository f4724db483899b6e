import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { resolveStructure, STARTERS, type Structure } from "../frame";
import { hingeFirst } from "./hingeFirst";
import type { Step } from "./step";
import { workpiece } from "./workpiece";

const tacks = (s: Structure): Step[] => hingeFirst(workpiece(s)).filter((x) => x.id.do === "tack");
const anything = fc.oneof(
  fc.constantFrom(...STARTERS.map((s) => s.name)).map((name) => resolveStructure(started(name)).structure),
  fc.integer({ min: 0, max: 6 }).map((rungs) => ladder(rungs)),
);

describe("tacking, hinge first", () => {
  it("of a ring goes across: A, C, B, D inside, then the same outside, and closes the error between", () => {
    const steps = hingeFirst(workpiece(ladder(2)));
    const keys = steps.map((s) => s.key);
    expect(keys.slice(0, 8)).toEqual([
      "hold",
      "measure/dry fit",
      "tack/A/inside",
      "tack/C/inside",
      "tack/B/inside",
      "tack/D/inside",
      "measure/tacked",
      "tack/A/outside",
    ]);
    expect(steps.find((s) => s.closes)?.key).toBe("measure/tacked");
    // What is put into the ring comes when it is locked.
    expect(keys.indexOf("tack/M1/AB/plus") + keys.indexOf("tack/M1/AB/minus")).toBeGreaterThan(
      2 * keys.indexOf("tack/D/outside"),
    );
  });
  it("of any frame tacks every joint, each face once, and never hangs a member on what nothing holds", () => {
    fc.assert(
      fc.property(anything, (structure) => {
        const all = tacks(structure);
        expect(new Set(all.map((s) => s.key)).size).toBe(all.length);
        expect(new Set(all.map((s) => s.joint))).toEqual(
          new Set(structure.joints.filter((j) => j.faces.some((f) => f.bead)).map((j) => j.id)),
        );
      }),
      { numRuns: 30 },
    );
  });
});
