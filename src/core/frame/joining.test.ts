import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { joiningOrder } from "./joining";
import { resolveStructure } from "./resolveStructure";
import { fits, splitForSize } from "./sizeLimit";

describe("sub-assemblies and room", () => {
  it("joins in order, tells which joints are each one's own, and warns of one that hangs in the air", () => {
    const frame = started("two frames stacked");
    const order = joiningOrder(resolveStructure(frame).structure);
    expect(order.map((g) => g.name)).toEqual(["lower frame", "upper frame"]);
    expect(order[0]?.own).toHaveLength(6);
    expect(order[1]?.own).toHaveLength(4);
    // Pieces of seam along the sides: four on the long ones, three on the short.
    expect(order[1]?.toRest).toHaveLength(14);
    const total = resolveStructure(frame).structure.joints.length;
    expect(order.reduce((s, g) => s + g.own.length + g.toRest.length, 0)).toBe(total);
    const table = {
      ...started("table base"),
      groups: [
        { id: "U1", name: "rails", members: ["AB"] },
        { id: "U2", name: "stretcher", members: ["T3"] },
      ],
    };
    expect(joiningOrder(resolveStructure(table).structure)[1]?.warning).toMatch(/touches nothing/);
  });
  it("fits in any turn, and parts what does not between joints, cutting least", () => {
    expect(fits([10, 20, 30], [30, 10, 20])).toBe(true);
    expect(fits([10, 20, 31], [30, 10, 20])).toBe(false);
    const s = resolveStructure(started("ladder", { length: 4000, width: 900, rungs: 7 })).structure;
    expect(splitForSize(s, [5000, 1000, 500])).toBeNull();
    const plan = splitForSize(s, [2500, 1000, 500]);
    expect(plan).toMatchObject({ axis: "x", cuts: [["AB", "CD"]] });
    const cut = plan?.at[0] ?? 0;
    expect(cut).toBeGreaterThanOrEqual(1500);
    expect(cut).toBeLessThanOrEqual(2500);
    for (const j of s.joints) expect(Math.abs(j.at[0] - cut)).toBeGreaterThanOrEqual(60 - 1);
    expect(splitForSize(s, [1500, 1000, 500])?.at).toHaveLength(2);
    // Stood across, the pieces may be as short as the room is narrow; in a cube of 800 nothing helps.
    expect(splitForSize(s, [2500, 500, 500])?.at.length).toBeGreaterThanOrEqual(7);
    expect(splitForSize(s, [800, 800, 800])?.at).toEqual([]);
  });
});
