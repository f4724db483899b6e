import { describe, expect, it } from "vitest";
import { good, section } from "../../../../tests/support/corner";
import { angleBetween, direction, lineAt, untabledMitre, untabledSections, untabledSlope } from "./shared";

describe("what every kind of joint asks", () => {
  it("lays a weld line in the middle of a wall, and on the face of what is solid", () => {
    expect(lineAt(50, 3)).toBe(23.5);
    expect(lineAt(20, 10)).toBe(10);
    expect(lineAt(20, 20)).toBe(10);
  });
  it("measures the angle between directions, and a member's from its first point to its last", () => {
    expect(angleBetween([1, 0, 0], [1, 1, 0])).toBeCloseTo(45, 12);
    const member = good.members.find((m) => m.id === "LA");
    expect(member && direction(good, member)).toEqual([1, 0, 0]);
  });
  it("names what lies outside the tables", () => {
    const form = { table: "mitre", bMm: 50, tMm: 3, eMPa: 210_000, hw: 1, angleDeg: 90 } as const;
    expect(untabledSections(section, section, form)).toEqual([]);
    expect(untabledSections(section, { ...section, heightMm: 80 }, form)).toEqual([]);
    expect(untabledSections(section, { ...section, heightMm: 110 }, form)).toHaveLength(1);
    expect(untabledSections(section, { ...section, shape: "flat" }, form)).toEqual([
      "a section that is no square or rectangular tube",
    ]);
    expect(untabledSections(section, section, { ...form, tMm: 1 })).toEqual(["a wall of 1/50 of the width"]);
    expect(untabledSlope(47)[0]).toMatch(/47°/);
    expect(untabledMitre(90)).toEqual([]);
    expect(untabledMitre(47)[0]).toMatch(/47°/);
  });
});
