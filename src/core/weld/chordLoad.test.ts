import { describe, expect, it } from "vitest";
import { good } from "../../../tests/support/corner";
import { drawn } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "../frame";
import { fromStructure } from "../mechanics";
import { cross3, dot3, type Vec3 } from "../numeric";
import { kinkLoad } from "./chordLoad";
import { weldedModel } from "./weldedModel";

const model = weldedModel(good);
const tee = model.joints.find((j) => j.id === "K");
const [chord] = tee?.chords ?? [];
if (!tee || !chord) throw new Error("no tee");
const at = { member: chord.member, node: tee.nodeA };

describe("the kink of a chord under a branch", () => {
  it("balances itself: neither pushes nor turns the frame as a whole, whichever way it goes", () => {
    for (let kink = 0; kink < 6; kink++) {
      const load = kinkLoad(model, at, kink);
      const { value } = load;
      const force: [number, number, number] = [0, 0, 0];
      const moment: [number, number, number] = [0, 0, 0];
      load.at.forEach((freedom, i) => {
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
  it("along the chord pushes with E A / 2 L on each side", () => {
    const { at: freedoms, value } = kinkLoad(model, at, 0);
    const along = freedoms.flatMap((f, i) => (f % 6 === 0 ? [value[i] ?? 0] : []));
    // Both stretches beside the branch are 300 mm long.
    expect(Math.max(...along.map(Math.abs))).toBeCloseTo((210_000 * 564) / (2 * 300), 3);
  });
  it("has none to kink at a mitre, one member at a tee, and both at a lap", () => {
    expect(model.joints.find((j) => j.id === "J")?.chords).toEqual([]);
    expect(tee.chords.map((c) => c.member)).toEqual([chord.member]);
    const crossed = drawn({
      A1: [
        [0, 0, 20],
        [1000, 0, 20],
      ],
      A2: [
        [500, -500, 60],
        [500, 500, 60],
      ],
    });
    const lap = weldedModel(fromStructure(resolveStructure(crossed).structure).frame).joints[0];
    expect(lap?.chords.map((c) => c.member)).toEqual(["A1", "A2"]);
    // A line across the one runs along the other, and their ways off the face meet.
    expect(lap?.chords[1]?.lines.map((l) => l >> 1)).toEqual([1, 1, 0, 0]);
    expect(dot3(lap?.chords[0]?.normal ?? [0, 0, 0], lap?.chords[1]?.normal ?? [0, 0, 0])).toBeCloseTo(-1, 9);
  });
});
