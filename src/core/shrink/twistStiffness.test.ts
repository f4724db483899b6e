import { describe, expect, it } from "vitest";
import { built, ladder } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import type { Structure } from "../frame";
import { fromStructure } from "../mechanics";
import { drain } from "../numeric";
import { length } from "../units";
import { FACTORS } from "../weld";
import { twistStiffness } from "./twistStiffness";

const stiffness = (structure: Structure): number => {
  const found = drain(twistStiffness(structure, fromStructure(structure), FACTORS));
  if (found === null) throw new Error("no quadrilateral to twist");
  return found;
};

describe("stiffness in twist", () => {
  it("a rung stiffens a frame of the same size", () => {
    const section = { profile: null, face: length("50"), depth: length("50"), wall: length("3") };
    const open = built(rectangle({ length: length("600"), width: length("900"), section }));
    expect(stiffness(open)).toBeGreaterThan(0);
    expect(stiffness(ladder(1))).toBeGreaterThan(1.05 * stiffness(open));
  });
  it("goes with the wall: twice the wall is nearly twice as stiff", () => {
    const at = (wall: string) => stiffness(ladder(0, { size: "50", wall, depth: "" }));
    expect(at("4") / at("2")).toBeGreaterThan(1.7);
  });
});
