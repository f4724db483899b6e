import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { length } from "../units";
import { MATERIALS } from "./materials";
import { resolveStructure } from "./resolveStructure";

const STEEL = MATERIALS["mild steel"].densityKgPerMm3;
const of = (frame: Parameters<typeof resolveStructure>[0]) => resolveStructure(frame).structure;

describe("weight, centre of mass, surface", () => {
  it("of a mitred rectangle, by hand", () => {
    const s = of(started("rectangle", { length: 1200, width: 800 }, squareTube(40, 3)));
    const area = 4 * 37 * 3 - (4 - Math.PI) * (36 - 9) + 0 * 3;
    expect(s.massKg).toBeCloseTo(3840 * area * STEEL, 1);
    expect(s.centreOfMass[0]).toBeCloseTo(600, 9);
    expect(s.centreOfMass[1]).toBeCloseTo(400, 9);
    // Centre lines 2 (1160 + 760) = 3840; the outside of the tube is 160 less its rounded corners of 6.
    expect(s.surfaceMm2).toBeCloseTo(3840 * (160 - (8 - 2 * Math.PI) * 6), 6);
  });
  it("of solid sections and plates, by hand", () => {
    const bar = drawn(
      {
        A1: [
          [0, 0, 0],
          [1000, 0, 0],
        ],
      },
      [{ ...squareTube(20), shape: "bar" }],
    );
    expect(of(bar).massKg).toBeCloseTo(Math.PI * 100 * 1000 * STEEL, 9);
    expect(of(bar).surfaceMm2).toBeCloseTo(Math.PI * 20 * 1000, 6);
    const flat = drawn(
      {
        A1: [
          [0, 0, 0],
          [500, 0, 0],
        ],
      },
      [{ ...squareTube(50), shape: "flat", height: length("8") }],
    );
    expect(of(flat).massKg).toBeCloseTo(50 * 8 * 500 * STEEL, 9);
    const at = { x: length("0"), y: length("0"), z: length("0") };
    const plate = {
      ...flat,
      members: [],
      parts: [
        {
          id: "P1",
          kind: "plate" as const,
          at,
          size: { x: length("100"), y: length("80"), z: length("6") },
          triangular: false,
          on: null,
          material: "mild steel" as const,
          holes: [{ x: length("0"), y: length("0"), diameter: length("20") }],
        },
      ],
    };
    expect(of(plate).massKg).toBeCloseTo((8000 - 100 * Math.PI) * 6 * STEEL, 9);
    expect(of(plate).surfaceMm2).toBeCloseTo(2 * (8000 - 100 * Math.PI) + 360 * 6 + Math.PI * 20 * 6, 6);
    const gusset = {
      ...plate,
      parts: plate.parts.map((p) => ({ ...p, kind: "gusset" as const, triangular: true, holes: [] })),
    };
    expect(of(gusset).massKg).toBeCloseTo(4000 * 6 * STEEL, 9);
    expect(of(gusset).centreOfMass[0]).toBeCloseTo(-50 + 100 / 3, 9);
  });
  it("turning a frame in the drawing changes neither weight nor surface", () => {
    const frame = started("gate leaf");
    const turned = {
      ...frame,
      members: frame.members.map((m) => ({
        ...m,
        from: { x: m.from.y, y: m.from.x, z: m.from.z },
        to: { x: m.to.y, y: m.to.x, z: m.to.z },
      })),
    };
    expect(of(turned).massKg).toBeCloseTo(of(frame).massKg, 9);
    expect(of(turned).surfaceMm2).toBeCloseTo(of(frame).surfaceMm2, 4);
  });
});
