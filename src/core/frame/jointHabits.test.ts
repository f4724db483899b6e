import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube } from "../../../tests/support/drawnFrames";
import type { Vec3 } from "../numeric";
import { angleOf, habit, Landed, legOnRail } from "./jointHabits";
import type { EndName, Placed } from "./meeting";
import { placeMembers } from "./placing";

type Line = [Vec3, Vec3] | [Vec3, Vec3, string];
const sections = [squareTube(40, 3), squareTube(60, 3, "L"), roundTube(48, 3, "R")];
function corner(m: Line, n: Line, ends: [EndName, EndName] = ["to", "from"]) {
  const all = placeMembers(drawn({ M: m, N: n }, sections));
  return habit(all.get("M") as Placed, all.get("N") as Placed, ends, new Landed());
}
const turned = (deg: number, section?: string): Line => {
  const to: Vec3 = [1000 - 500 * Math.cos((deg * Math.PI) / 180), 500 * Math.sin((deg * Math.PI) / 180), 0];
  return section ? [[1000, 0, 0], to, section] : [[1000, 0, 0], to];
};
const RAIL: Line = [
  [0, 0, 0],
  [1000, 0, 0],
];

// Habits of the trade: common practice, no source.
describe("what a corner is made as by habit", () => {
  it("mitres two equal tubes at any angle that a saw and a torch reach, and butts what is sharper or straight", () => {
    for (const deg of [60, 90, 120, 150])
      expect(corner(RAIL, turned(deg)), `${deg}`).toEqual({ kind: "mitre", through: null });
    expect(corner(RAIL, turned(15)).kind).toBe("butt");
    expect(
      corner(RAIL, [
        [1000, 0, 0],
        [1600, 0, 0],
      ]),
    ).toEqual({ kind: "butt", through: "M" });
  });
  it("lets the larger run through where two differ, and the round land on the square", () => {
    expect(corner(RAIL, turned(90, "L"))).toEqual({ kind: "butt", through: "N" });
    expect(corner([...RAIL, "L"] as Line, turned(90))).toEqual({ kind: "butt", through: "M" });
    expect(corner([...RAIL, "R"] as Line, turned(90))).toEqual({ kind: "butt", through: "N" });
  });
  it("butts an end that was drawn on the other's face, whichever is the larger or round, where the other runs to its far side", () => {
    // Cross member under the rail's end: on its face, its outside level with that end.
    for (const [rail, cross, face, far] of [
      ["S1", "S1", 20, 20],
      ["S1", "L", 20, 30],
      ["L", "S1", 30, 20],
      ["R", "S1", 24, 20],
      ["S1", "R", 20, 24],
    ] as const) {
      const across = (x: number, y: number): Line => [[x, y, 0], [x, 800, 0], cross];
      expect(corner([...RAIL, rail] as Line, across(1000 - far, face)), `${cross} on ${rail}`).toEqual({
        kind: "butt",
        through: "M",
      });
      expect(corner([...RAIL, rail] as Line, across(1000, 0)).through === "M").toBe(rail === "L" || cross === "R");
    }
  });
  it("stands a leg under its rail when it ends at the rail's face, and lets it run past when it goes on beside it", () => {
    const leg = (top: number): Line => [
      [1000, 0, -700],
      [1000, 0, top],
    ];
    expect(corner(RAIL, leg(-20), ["to", "to"])).toEqual({ kind: "butt", through: "M" });
    expect(corner(RAIL, leg(0), ["to", "to"])).toEqual({ kind: "butt", through: "N" });
    const all = placeMembers(drawn({ M: RAIL, N: leg(0) }, sections));
    expect(legOnRail(all.get("M") as Placed, all.get("N") as Placed)).toBe(true);
  });
  it("measures angles between directions from 0 to 180°", () => {
    expect(angleOf([1, 0, 0], [0, 2, 0])).toBeCloseTo(90, 12);
    expect(angleOf([1, 0, 0], [-3, 0, 0])).toBeCloseTo(180, 12);
    expect(angleOf([1, 1, 0], [1, 0, 0])).toBeCloseTo(45, 12);
  });
});
