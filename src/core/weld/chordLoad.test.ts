import { describe, expect, it } from "vitest";
import { good } from "../../../tests/support/corner";
import { cross3, type Vec3 } from "../numeric";
import { kinkLoad } from "./chordLoad";
import { weldedModel } from "./weldedModel";

const model = weldedModel(good);
const tee = model.joints.find((j) => j.id === "K");
const mitre = model.joints.find((j) => j.id === "J");

describe("the kink of a chord under a branch", () => {
  it("balances itself: neither pushes nor turns the frame as a whole, whichever way it goes", () => {
    if (!tee) throw new Error("no tee");
    for (let kink = 0; kink < 6; kink++) {
      const { at, value } = kinkLoad(model, tee, kink);
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
      for (const v of [...force, ...moment]) expect(Math.abs(v) / largest, `way ${kink}`).toBeLessThan(1e-9);
    }
  });
  it("along the chord pushes with E A / 2 L on each side, and there is none at a mitre", () => {
    if (!tee || !mitre) throw new Error("no joint");
    const { at, value } = kinkLoad(model, tee, 0);
    const along = at.flatMap((f, i) => (f % 6 === 0 ? [value[i] ?? 0] : []));
    // Both stretches beside the branch are 300 mm long.
    expect(Math.max(...along.map(Math.abs))).toBeCloseTo((210_000 * 564) / (2 * 300), 3);
    expect(() => kinkLoad(model, mitre, 0)).toThrow(/no chord/);
  });
});
