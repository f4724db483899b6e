import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { resolveStructure, STARTERS } from "../frame";
import { acrossAndAround } from "./acrossAndAround";
import { workpiece } from "./workpiece";

describe("welding, across and around", () => {
  it("of a ring begins outside from corner to opposite corner, and welds insides last of the corners", () => {
    const steps = acrossAndAround(workpiece(ladder(1)), "top").filter((s) => s.id.do === "bead");
    const corners = steps.filter((s) => s.joint?.length === 1).map((s) => s.key);
    expect(corners.slice(0, 4)).toEqual(["bead/A/outside", "bead/C/outside", "bead/B/outside", "bead/D/outside"]);
    expect(corners.slice(-4)).toEqual(["bead/A/inside", "bead/C/inside", "bead/B/inside", "bead/D/inside"]);
  });
  it("of any frame welds every face that gets a bead just once, and every face as the frame lies", () => {
    fc.assert(
      fc.property(fc.constantFrom(...STARTERS.map((s) => s.name)), (name) => {
        const { structure } = resolveStructure(started(name));
        const beads = acrossAndAround(workpiece(structure), "top").filter((s) => s.id.do === "bead");
        const wanted = structure.joints.flatMap((j) =>
          j.faces.filter((f) => f.bead).map((f) => `bead/${j.id}/${f.line}`),
        );
        expect(beads.map((s) => s.key).sort()).toEqual(wanted.sort());
        for (const s of beads) {
          const face = structure.joints.find((j) => j.id === s.joint)?.faces.find((f) => f.line === s.line);
          // Nothing is welded overhead: a face that looks down is welded when it is turned up.
          expect((face?.toward[2] ?? 0) * (s.up === "top" ? 1 : -1), s.key).toBeGreaterThan(-0.71);
        }
      }),
      { numRuns: STARTERS.length * 2 },
    );
  });
});
