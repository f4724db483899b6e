import { describe, expect, it } from "vitest";
import { good, section } from "../../../../tests/support/corner";
import { angleBetween, direction, lineAt, slendernessOf, unfittedAngle, unfittedSections } from "./shared";

describe("what every kind of joint asks", () => {
  it("lays a weld line in the middle of a wall, and on the face of what is solid", () => {
    expect(lineAt(50, 3)).toBe(23.5);
    expect(lineAt(20, 10)).toBe(10);
    expect(lineAt(20, 20)).toBe(10);
  });
  it("knows how thin a tube is, never less than one", () => {
    expect(slendernessOf(50, 2)).toBe(24);
    expect(slendernessOf(20, 20)).toBe(1);
  });
  it("measures the angle between directions, and a member's from its first point to its last", () => {
    expect(angleBetween([1, 0, 0], [1, 1, 0])).toBeCloseTo(45, 12);
    const member = good.members.find((m) => m.id === "LA");
    expect(member && direction(good, member)).toEqual([1, 0, 0]);
  });
  it("names what lies outside what was fitted", () => {
    expect(unfittedSections(section, section)).toEqual([]);
    expect(unfittedSections(section, { ...section, heightMm: 80 })).toHaveLength(1);
    expect(unfittedSections(section, { ...section, shape: "flat" })).toEqual(["a section that is no square tube"]);
    expect(unfittedAngle(90)).toEqual([]);
    expect(unfittedAngle(47)[0]).toMatch(/47°/);
  });
});
