import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { length } from "../units";
import { FACTORS } from "./factors";
import { heatJPerMm, PROCESSES, type ProcessName, weldProblems } from "./heat";
import { startingSettings, unsureHeat } from "./starting";

const processes = Object.keys(PROCESSES) as ProcessName[];
const heat = (process: ProcessName, wallMm: number): number =>
  heatJPerMm({ process, ...startingSettings(process, wallMm) });

describe("settings to begin with", () => {
  it("follow the wall: more heat on more wall, with every process", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...processes),
        fc.double({ min: 1, max: 11, noNaN: true }),
        fc.double({ min: 0.6, max: 4, noNaN: true }),
        (process, wall, more) => {
          expect(heat(process, wall + more)).toBeGreaterThan(heat(process, wall));
        },
      ),
    );
  });
  it("are neither cold nor hot for the wall that they are for, and what the process is held to differs", () => {
    for (const process of processes)
      for (const wall of [1.5, 2, 3, 4, 5, 6, 8])
        expect(
          weldProblems({ process, ...startingSettings(process, wall), tackLength: length("10") }, wall),
          `${process} ${wall}`,
        ).toEqual([]);
    expect(heat("TIG", 3)).toBeGreaterThan(1.3 * heat("MAG", 3));
    // 18 V, 120 A at 5 mm/s with wire on 3 mm: 346 J/mm.
    expect(heat("MAG", 3)).toBeCloseTo(345.6, 6);
  });
  it("say on another's wall that it may burn through, or lap cold", () => {
    const weld = (wall: number) => ({
      process: "MAG" as const,
      ...startingSettings("MAG", wall),
      tackLength: length("10"),
    });
    expect(weldProblems(weld(6), 1.5)[0]?.message).toMatch(/burn through/);
    expect(weldProblems(weld(1), 6)[0]?.message).toMatch(/lap cold/);
  });
  it("follow the material: stainless colder, aluminium hotter and faster, and no flux on it (common practice, no source)", () => {
    const of = (material: Parameters<typeof startingSettings>[2]) => startingSettings("MAG", 3, material);
    expect(of("stainless 304").amps).toBeLessThan(of("mild steel").amps);
    expect(of("aluminium 6061").amps).toBeGreaterThan(of("mild steel").amps);
    expect(of("aluminium 6061").travelMmPerS).toBeGreaterThan(1.5 * of("mild steel").travelMmPerS);
    for (const material of ["stainless 304", "aluminium 6061"] as const)
      for (const wall of [1.5, 3, 6]) {
        const weld = { process: "MAG" as const, ...startingSettings("MAG", wall, material), tackLength: length("10") };
        expect(weldProblems(weld, wall, material), `${material} ${wall}`).toEqual([]);
        expect(weldProblems({ ...weld, process: "stick" }, wall, material).some((p) => p.path === "weld.process")).toBe(
          material.startsWith("aluminium"),
        );
      }
  });
  it("make the contraction less sure than settings that were read", () => {
    const wider = unsureHeat(FACTORS);
    expect(wider.transverse.cv).toBeCloseTo(Math.hypot(0.25, 0.3), 9);
    expect(wider.transverse.value).toBe(FACTORS.transverse.value);
    expect(wider.joint).toBe(FACTORS.joint);
  });
});
