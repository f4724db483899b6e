import { describe, expect, it } from "vitest";
import { good } from "../../../tests/support/corner";
import { cross3, type Vec3 } from "../numeric";
import { chordLoad } from "./chordLoad";
import { weldedModel } from "./weldedModel";

const model = weldedModel(good);
const tee = model.joints.find((j) => j.id === "K");
const mitre = model.joints.find((j) => j.id === "J");

describe("the contraction of a chord under a bead", () => {
  it("balances itself: neither pushes nor turns the frame as a whole", () => {
    if (!tee) throw new Error("no tee");
    for (let line = 0; line < 4; line++) {
      const { at, value } = chordLoad(model, tee, line);
      const force: [number, number, number] = [0, 0, 0];
      const moment: [number, number, number] = [0, 0, 0];
      at.forEach((freedom, i) => {
        const v = value[i] ?? 0;
        const [node, way] = [Math.floor(freedom / 6), freedom % 6];
        if (way >= 3) moment[way - 3] = (moment[way - 3] ?? 0) + v;
        else {
          force[way] = (force[way] ?? 0) + v;
          const f: Vec3 = [way === 0 ? v : 0, way === 1 ? v : 0, way === 2 ? v : 0];
          cross3(model.nodes[node]?.at as Vec3, f).forEach((m, k) => {
            moment[k] = (moment[k] ?? 0) + m;
          });
        }
      });
      const largest = Math.max(...value.map(Math.abs));
      for (const v of [...force, ...moment]) expect(Math.abs(v) / largest, `line ${line}`).toBeLessThan(1e-9);
    }
  });
  it("shortens by E V / L along the chord, and has nothing to do at a mitre", () => {
    if (!tee || !mitre) throw new Error("no joint");
    const { at, value } = chordLoad(model, tee, 0);
    const along = at.flatMap((f, i) => (f % 6 === 0 ? [value[i] ?? 0] : [])).filter((v) => v !== 0);
    // The stretch right of the branch is 300 mm long.
    expect(Math.max(...along)).toBeCloseTo(210_000 / 300, 6);
    expect(() => chordLoad(model, mitre, 0)).toThrow(/no chord/);
  });
});
