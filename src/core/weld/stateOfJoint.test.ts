import { describe, expect, it } from "vitest";
import { good, points } from "../../../tests/support/corner";
import type { WeldState } from "./jointKind";
import { jointStiffness } from "./stateOfJoint";
import { weldedModel } from "./weldedModel";

const { joints } = weldedModel(good);
const STATES: WeldState[] = [
  [10, 0, 0, 0],
  [10, 10, 0, 0],
  ["welded", 10, 0, 0],
  ["welded", "welded", 10, 10],
  ["welded", "welded", "welded", "welded"],
];
const times = (k: Float64Array, d: readonly number[]): number[] =>
  d.map((_, i) => d.reduce((s, v, j) => s + (k[6 * i + j] ?? 0) * v, 0));
const worked = (k: Float64Array, d: readonly number[]): number =>
  times(k, d).reduce((s, v, i) => s + v * (d[i] ?? 0), 0);

describe("a joint by its table", () => {
  it("takes work whichever way it moves, and more than on one tack with every line that holds besides", () => {
    const ways = [
      [1, 0, 0, 0, 0, 0],
      [0, 1, 0, 0.01, 0, 0],
      [0, 0, 1, 0, 0.01, 0.02],
      [0.3, -0.2, 0.1, 0.01, 0.02, -0.01],
    ];
    for (const joint of joints) {
      const [tacked, ...more] = STATES.map((state) => {
        const { k } = jointStiffness(joint, state);
        return ways.map((d) => worked(k, d));
      });
      // Between states nearly as stiff as the tube itself the tables are rounded; against one tack every state is far stiffer.
      for (const work of more)
        work.forEach((w, i) => {
          expect(tacked?.[i]).toBeGreaterThan(0);
          expect(w).toBeGreaterThan(tacked?.[i] ?? Number.POSITIVE_INFINITY);
        });
    }
  });
  it("locks nothing in that gives work back, and holds a bead to what its line can yield, a tack to its length", () => {
    for (const joint of joints)
      for (const state of STATES) {
        const { locked, lines } = jointStiffness(joint, state);
        for (let trial = 0; trial < 81; trial++) {
          const e = [0, 1, 2, 3].map((l) => (Math.floor(trial / 3 ** l) % 3) - 1);
          const work = e.reduce((s, v, a) => s + e.reduce((t, w, b) => t + v * (locked[4 * a + b] ?? 0) * w, 0), 0);
          expect(work).toBeGreaterThanOrEqual(-1e-6);
        }
        const { half1Mm, half2Mm, yieldPerMm } = joint.faces;
        for (const { line, tack, yieldN } of lines)
          expect(yieldN).toBeCloseTo(yieldPerMm * (tack ? 10 : 2 * (line < 2 ? half2Mm : half1Mm)), 9);
        expect(lines.map((l) => l.line)).toEqual(state.flatMap((s, l) => (s === 0 ? [] : [l])));
      }
  });
  it("closes when a line of it shrinks, along its normal, and a tack alone does so without turning", () => {
    for (const joint of joints)
      for (let line = 0; line < 4; line++) {
        const alone = [0, 1, 2, 3].map((l) => (l === line ? 10 : 0)) as unknown as WeldState;
        const { welds, push } = jointStiffness(joint, alone);
        const { normal } = joint.faces;
        // What a free joint does: K d = push, and d is the unit of closing along the normal.
        const want = times(welds, [...normal.map((v) => -v), 0, 0, 0]);
        const turned = Math.max(...want.map(Math.abs));
        want.forEach((v, i) => {
          expect(Math.abs(v - (push[4 * i + line] ?? 0)) / turned).toBeLessThan(0.06);
        });
      }
  });
  it("is the same joint whichever member is named first", () => {
    const swapped = weldedModel({
      ...good,
      ...points({}),
      joints: good.joints.map((j) => (j.id === "J" ? { ...j, a: "LB", b: "LA" } : j)),
    }).joints.find((j) => j.id === "J");
    const named = joints.find((j) => j.id === "J");
    if (!swapped || !named) throw new Error("no mitre");
    for (const state of STATES) {
      const [p, q] = [jointStiffness(named, state), jointStiffness(swapped, state)];
      const largest = Math.max(...p.k.map(Math.abs));
      p.k.forEach((v, i) => {
        expect(Math.abs(v - (q.k[i] ?? 0)) / largest).toBeLessThan(1e-9);
      });
      p.push.forEach((v, i) => {
        expect(Math.abs(v + (q.push[i] ?? 0)) / largest).toBeLessThan(1e-9);
      });
    }
  });
});
