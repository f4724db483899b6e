import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure } from "../frame";
import { length } from "../units";
import { tubeSags } from "./tubeSags";

const flat = built(rectangle());

describe("a loose tube on two rests", () => {
  it("sags a forty-eighth with the rests set in, and only what is seen is told", () => {
    const structure = built(rectangle({ length: length("6000") }));
    const sags = tubeSags(structure);
    expect(sags[0]?.members).toEqual(["AB", "CD"]);
    expect(sags[0]?.insetMm).toBeCloseTo(0.223 * 6000, 6);
    expect((sags[0]?.onEndsMm ?? 0) / (sags[0]?.setInMm ?? 1)).toBeGreaterThan(40);
    expect((sags[0]?.onEndsMm ?? 0) / (sags[0]?.setInMm ?? 1)).toBeLessThan(60);
    expect(tubeSags(flat)).toEqual([]);
  });
  it("counts every member once, whatever the frame", () => {
    const { structure } = resolveStructure(started("two frames stacked"));
    const told = tubeSags(structure).flatMap((s) => s.members);
    expect(new Set(told).size).toBe(told.length);
  });
});
