import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { resolveStructure, STARTERS } from "../frame";
import { heldMechanics } from "./held";

describe("where a frame is clamped down", () => {
  it("is on its four sides, away from corners, two on each", () => {
    const {
      by: { clamps },
      mechanics,
    } = heldMechanics(ladder(1));
    expect(clamps).toHaveLength(8);
    expect(new Set(clamps.map((c) => c.member))).toEqual(new Set(["AB", "BC", "CD", "DA"]));
    for (const c of clamps) expect(mechanics.frame.points[c.point]).toBeDefined();
  });
  it("on three rests is nowhere: three places hold a plane and bend nothing", () => {
    const {
      by: { clamps },
      mechanics,
    } = heldMechanics(ladder(1), "three rests");
    expect(clamps).toEqual([]);
    expect(Object.keys(mechanics.frame.points).length).toBeGreaterThan(3);
  });
  it("of any frame is at three places or more, all of them on members that lie, or nowhere", () => {
    for (const { name } of STARTERS) {
      const {
        by: { clamps },
        mechanics,
      } = heldMechanics(resolveStructure(started(name)).structure);
      expect(clamps.length === 0 || clamps.length >= 3, name).toBe(true);
      for (const c of clamps)
        expect(mechanics.frame.members.find((m) => m.id === c.member)?.points, name).toContain(c.point);
    }
  });
});
