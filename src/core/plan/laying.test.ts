import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { resolveStructure, STARTERS } from "../frame";
import { dot3, norm3 } from "../numeric";
import { withSeamHow } from "../weld";
import { seamRun } from "./laying";
import { orderOfWork } from "./schools";
import { seamPosition } from "./seam";

describe("the way a bead is run", () => {
  it("goes along its seam, the other way when it is turned, on every frame", () => {
    let told = 0;
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      for (const { id, up, joint: jointId, line } of orderOfWork(structure).steps) {
        const joint = structure.joints.find((j) => j.id === jointId);
        const face = joint?.faces.find((f) => f.line === line);
        if (id.do !== "bead" || !joint || !face) continue;
        const run = seamRun(structure, {}, joint, face, up);
        const back = seamRun(structure, { seams: withSeamHow(undefined, id, { turned: true }) }, joint, face, up);
        if (!run || !back) throw new Error(`${name}: no way along ${joint.id}, ${face.line}`);
        told++;
        expect(norm3(run.way)).toBeCloseTo(1, 9);
        expect(dot3(run.way, face.toward)).toBeCloseTo(0, 6);
        expect(dot3(run.way, back.way)).toBeCloseTo(-1, 9);
        expect([back.from, back.to]).toEqual([run.to, run.from]);
      }
    }
    expect(told).toBeGreaterThan(100);
  });
  it("is upward on an upright seam, downward on a thin wall, whichever side lies up (common practice, no source)", () => {
    for (const [wall, from] of [
      [3, "bottom"],
      [1.5, "top"],
    ] as const) {
      const { structure } = resolveStructure(started("ladder", {}, squareTube(40, wall)));
      let upright = 0;
      for (const joint of structure.joints)
        for (const face of joint.faces)
          for (const up of ["top", "bottom"] as const) {
            if (seamPosition(structure, joint, face, up) !== "vertical") continue;
            upright++;
            const run = seamRun(structure, {}, joint, face, up);
            expect(run?.from).toBe(from);
            const rises = (up === "top" ? 1 : -1) * (run?.way[2] ?? 0);
            expect(Math.sign(rises)).toBe(from === "bottom" ? 1 : -1);
          }
      expect(upright).toBeGreaterThan(8);
    }
  });
  it("is inward on the flat face of a corner", () => {
    const { structure } = resolveStructure(started("ladder"));
    const { quad } = structure;
    if (!quad) throw new Error("no ring");
    const middle = [0, 1].map((i) => Object.values(quad.at).reduce((s, p) => s + (p[i] ?? 0) / 4, 0));
    for (const joint of structure.joints.filter((j) => j.kind === "mitre")) {
      const face = joint.faces.find((f) => f.toward[2] > 0.9);
      const run = face && seamRun(structure, {}, joint, face, "top");
      expect([run?.from, run?.to]).toEqual(["outside", "inside"]);
      const [x = 0, y = 0] = run?.way ?? [];
      expect(x * ((middle[0] ?? 0) - joint.at[0]) + y * ((middle[1] ?? 0) - joint.at[1])).toBeGreaterThan(0);
    }
  });
});
