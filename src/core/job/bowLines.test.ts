import { describe, expect, it } from "vitest";
import { comb, drawn, squareTube } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import type { Vec3 } from "../numeric";
import { bowLines, bowSize, endsGo } from "./bowLines";
import { builtOf } from "./built";
import { predict } from "./predict";

const on = (frame: DrawnFrame) => {
  const plan = drawnPlan(frame);
  const { structure } = builtOf(plan);
  const found = predict(plan);
  if (!structure || !found) throw new Error("no prediction");
  return { structure, ...found };
};
/** A rail with uprights on one side of it: `way` is where they go. */
const rack = (way: Vec3): DrawnFrame =>
  drawn(
    Object.fromEntries([
      ["RAIL", [[0, 0, 0] as Vec3, [1600, 0, 0] as Vec3]],
      ...Array.from({ length: 7 }, (_, i) => {
        const from: Vec3 = [170 + 210 * i, 20 * way[1], 20 * way[2]];
        return [`U${i + 1}`, [from, [from[0], from[1] + 300 * way[1], from[2] + 300 * way[2]] as Vec3]];
      }),
    ]),
    [squareTube(40, 4)],
  );

describe("which way a member bows, in words", () => {
  it("is towards what is welded to one side of it: beads shorten that side (common practice, no source)", () => {
    for (const [way, words] of [
      [[0, 1, 0], "ends of RAIL towards U1 … U7"],
      [[0, -1, 0], "ends of RAIL towards U1 … U7"],
      [[0, 0, 1], "ends of RAIL rise"],
    ] as const) {
      const { prediction, structure } = on(rack(way));
      const [first] = bowLines(prediction, structure);
      expect(first?.say).toBe(words);
      expect(first?.bow.value).toBeGreaterThan(0.3);
      expect(first?.bow.low).toBeGreaterThan(0);
    }
  });
  it("is what the points of the member do: ends against the middle, in the replay's last row", () => {
    for (const [frame, axis, words] of [
      [rack([0, 0, 1]), 2, { "ends of RAIL rise": 1, "ends of RAIL drop": -1 }],
      [rack([0, 1, 0]), 1, { "ends of RAIL towards U1 … U7": 1, "ends of RAIL away from U1 … U7": -1 }],
      [comb(3, 400, 500), 1, { "ends of RAIL towards T1 … T3": 1, "ends of RAIL away from T1 … T3": -1 }],
    ] as const) {
      const { prediction, structure, replay } = on(frame);
      const said = new Map<string, number>(Object.entries(words));
      const line = bowLines(prediction, structure).find((l) => said.has(l.say));
      const last = replay.history.at(-1) ?? new Float64Array(0);
      const along = replay.points.filter((p) => p.member === "RAIL").map((p) => last[p.first + axis] ?? 0);
      const ends = ((along[0] ?? 0) + (along.at(-1) ?? 0)) / 2;
      const middle = along[Math.floor(along.length / 2)] ?? 0;
      expect(Math.sign(ends - middle)).toBe(said.get(line?.say ?? ""));
    }
  });
  it("turns with its sign, and tells the size without it", () => {
    const { structure } = on(rack([0, 1, 0]));
    const id = { kind: "bow", member: "RAIL" } as const;
    expect(new Set([endsGo(structure, id, 1), endsGo(structure, id, -1)])).toEqual(
      new Set(["ends of RAIL towards U1 … U7", "ends of RAIL away from U1 … U7"]),
    );
    expect(bowSize({ value: -2, low: -3, high: -1 })).toEqual({ value: 2, low: 1, high: 3 });
    expect(bowSize({ value: 2, low: 1, high: 3 })).toEqual({ value: 2, low: 1, high: 3 });
  });
});
