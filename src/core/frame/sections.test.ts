import { describe, expect, it } from "vitest";
import { sectionProperties, shapeProperties } from "@/core/frame";

const IN = 25.4;

describe("section properties against handbook tables", () => {
  // EN 10219-2, tables of section properties for square and rectangular hollow sections (values from memory).
  // Width, height, wall (mm), area (cm2), I about the flat axis, I about the upright axis, torsion constant (cm4).
  it.each([
    [40, 40, 3, 4.21, 9.32, 9.32, 15.8],
    [50, 50, 3, 5.41, 19.5, 19.5, 32.1],
    [50, 50, 4, 6.95, 23.7, 23.7, 40.4],
    [60, 60, 3, 6.61, 35.1, 35.1, 57.1],
    [60, 60, 4, 8.55, 43.6, 43.6, 72.6],
    [80, 80, 4, 11.7, 111, 111, 180],
    [100, 100, 4, 14.9, 226, 226, 362],
    [30, 50, 3, 4.21, 12.8, 5.7, 13.5],
    [40, 60, 3, 5.41, 25.4, 13.4, 29.3],
    [40, 80, 3, 6.61, 52.3, 17.6, 43.9],
  ])("EN 10219-2 %d×%d×%d", (faceMm, depthMm, wallMm, area, iFlat, iUpright, j) => {
    const p = sectionProperties({ faceMm, depthMm, wallMm });
    expect(p.areaMm2 / 100 / area).toBeCloseTo(1, 2);
    expect(p.iOutOfPlaneMm4 / 1e4 / iFlat).toBeCloseTo(1, 2);
    expect(p.iInPlaneMm4 / 1e4 / iUpright).toBeCloseTo(1, 2);
    expect(Math.abs(p.jMm4 / 1e4 / j - 1)).toBeLessThan(0.015);
  });

  // AISC Steel Construction Manual, rectangular and square HSS (design wall; values from memory). Inches.
  it.each([
    ["HSS2-1/2×2-1/2×3/16", 2.5, 2.5, 0.174, 1.54, 1.35],
    ["HSS5×5×1/4", 5, 5, 0.233, 4.3, 16],
    ["HSS2×2×1/8", 2, 2, 0.116, 0.84, 0.486],
    ["HSS2×2×3/16", 2, 2, 0.174, 1.19, 0.641],
    ["HSS3×2×1/8", 2, 3, 0.116, 1.07, 1.3],
    ["HSS4×2×3/16", 2, 4, 0.174, 1.89, 3.66],
    ["HSS3×3×1/4", 3, 3, 0.233, 2.44, 3.02],
    ["HSS4×4×1/4", 4, 4, 0.233, 3.37, 7.8],
    ["HSS6×4×1/4", 4, 6, 0.233, 4.3, 20.9],
  ])("AISC %s", (_name, face, depth, wall, area, i) => {
    const p = sectionProperties({ faceMm: face * IN, depthMm: depth * IN, wallMm: wall * IN });
    expect(Math.abs(p.areaMm2 / IN ** 2 / area - 1)).toBeLessThan(0.01);
    expect(Math.abs(p.iOutOfPlaneMm4 / IN ** 4 / i - 1)).toBeLessThan(0.02);
  });

  it("agrees with a general closed form where walls are thin: I of a square tube is b^3 t 2/3", () => {
    const p = sectionProperties({ faceMm: 400, depthMm: 400, wallMm: 1 });
    expect(p.iInPlaneMm4 / ((2 / 3) * 399 ** 3 * 1)).toBeCloseTo(1, 1);
    expect(p.jMm4 / 399 ** 3).toBeCloseTo(1, 1);
  });

  it("is the same tube whichever way it stands", () => {
    const a = sectionProperties({ faceMm: 40, depthMm: 60, wallMm: 3 });
    const b = sectionProperties({ faceMm: 60, depthMm: 40, wallMm: 3 });
    expect(a.areaMm2).toBeCloseTo(b.areaMm2, 9);
    expect(a.iInPlaneMm4).toBeCloseTo(b.iOutOfPlaneMm4, 6);
    expect(a.jMm4).toBeCloseTo(b.jMm4, 6);
  });

  // EN 10219-2, circular hollow sections: diameter, wall (mm), area (cm2), second moment (cm4), from memory.
  it.each([
    [33.7, 2.6, 2.54, 3.09],
    [42.4, 2.6, 3.25, 6.46],
    [48.3, 3, 4.27, 11],
    [60.3, 3, 5.4, 22.2],
    [76.1, 3, 6.89, 46.1],
    [88.9, 4, 10.7, 96.3],
    [114.3, 4, 13.9, 211],
    [139.7, 5, 21.2, 481],
    [168.3, 5, 25.7, 856],
  ])("EN 10219-2 round %d×%d", (diameterMm, wallMm, area, i) => {
    const p = shapeProperties({ shape: "round tube", diameterMm, wallMm });
    expect(p.areaMm2 / 100 / area).toBeCloseTo(1, 2);
    expect(p.iyMm4 / 1e4 / i).toBeCloseTo(1, 2);
    expect(p.jMm4).toBeCloseTo(2 * p.izMm4, 6);
  });

  // EN 10056-1, equal and unequal angles: legs, thickness, root radius (mm), area (cm2), second moments about the axes
  // along the legs (cm4), from memory.
  it.each([
    [30, 30, 3, 5, 1.74, 1.4, 1.4],
    [40, 40, 4, 6, 3.08, 4.47, 4.47],
    [50, 50, 5, 7, 4.8, 11, 11],
    [60, 60, 6, 8, 6.91, 22.8, 22.8],
    [70, 70, 7, 9, 9.4, 42.3, 42.3],
    [80, 80, 8, 10, 12.3, 72.2, 72.2],
    [100, 100, 10, 12, 19.2, 177, 177],
    [50, 75, 6, 7, 7.19, 40.5, 14.4],
  ])("EN 10056-1 angle %d×%d×%d", (widthMm, heightMm, wallMm, rootMm, area, iFlat, iUpright) => {
    const p = shapeProperties({ shape: "angle", widthMm, heightMm, wallMm, rootMm });
    expect(Math.abs(p.areaMm2 / 100 / area - 1)).toBeLessThan(0.01);
    expect(Math.abs(p.iyMm4 / 1e4 / iFlat - 1)).toBeLessThan(0.02);
    expect(Math.abs(p.izMm4 / 1e4 / iUpright - 1)).toBeLessThan(0.02);
  });

  it("channel, flat and bar by their closed forms", () => {
    const channel = shapeProperties({ shape: "channel", widthMm: 50, heightMm: 100, wallMm: 4 });
    expect(channel.areaMm2).toBeCloseTo(100 * 4 + 2 * 46 * 4, 9);
    // Box of 50 x 100 less the hollow of 46 x 92.
    expect(channel.iyMm4).toBeCloseTo((50 * 100 ** 3 - 46 * 92 ** 3) / 12, 6);
    expect(channel.izMm4).toBeLessThan(channel.iyMm4);
    const flat = shapeProperties({ shape: "flat", widthMm: 50, heightMm: 10 });
    expect([flat.areaMm2, flat.iyMm4, flat.izMm4]).toEqual([500, (50 * 1000) / 12, (10 * 125_000) / 12]);
    // Saint-Venant: a square twists with 0.1406 a^4, a thin strip with b t^3 / 3.
    const square = shapeProperties({ shape: "flat", widthMm: 20, heightMm: 20 });
    expect(square.jMm4 / 20 ** 4).toBeCloseTo(0.1406, 3);
    expect(shapeProperties({ shape: "flat", widthMm: 1000, heightMm: 2 }).jMm4 / ((1000 * 8) / 3)).toBeCloseTo(1, 2);
    const bar = shapeProperties({ shape: "bar", diameterMm: 20 });
    expect(bar.iyMm4).toBeCloseTo((Math.PI * 20 ** 4) / 64, 6);
    expect(bar.jMm4).toBeCloseTo((Math.PI * 20 ** 4) / 32, 6);
  });
});
