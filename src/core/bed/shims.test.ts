import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { flatness } from "../geometry";
import { COMMON_LEAVES_MM, footTurn, shimStack, shims } from "./shims";

const grid = (nx: number, ny: number) =>
  Array.from({ length: nx * ny }, (_, i) => ({ x: (i % nx) * 500, y: Math.floor(i / nx) * 400 }));
const heights = (n: number) => fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: n, maxLength: n });

describe("shims", () => {
  it("bring every rest into one plane, none negative", () => {
    fc.assert(
      fc.property(heights(6), fc.constantFrom("level", "best_fit", "least_total" as const), (z, mode) => {
        const xy = grid(3, 2);
        const s = shims(xy, z, mode);
        const after = z.map((h, i) => h + (s?.shimsMm[i] ?? Number.NaN));
        expect(flatness(xy, after, 0.1).zoneMm ?? 1).toBeLessThan(1e-6);
        expect(Math.min(...(s?.shimsMm ?? [-1]))).toBeGreaterThanOrEqual(-1e-6);
      }),
    );
  });
  it("take least in the way that says so", () => {
    fc.assert(
      fc.property(heights(6), (z) => {
        const total = (mode: "level" | "best_fit" | "least_total") => shims(grid(3, 2), z, mode)?.totalMm ?? 0;
        expect(total("least_total")).toBeLessThanOrEqual(Math.min(total("level"), total("best_fit")) + 1e-6);
      }),
    );
  });
  it("are stacked from leaves at hand, within half the finest leaf", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 12, noNaN: true }), (mm) => {
        const s = shimStack(mm, COMMON_LEAVES_MM);
        expect(Math.abs(s.totalMm - mm)).toBeLessThanOrEqual(0.055);
        expect(new Set(s.leavesMm).size).toBe(s.leavesMm.length);
      }),
    );
  });
  it("turn a foot the right way", () => {
    expect(footTurn(1.5, 1.5)).toMatchObject({ turns: 1, flats: 6, direction: "clockwise seen from above" });
    expect(footTurn(1.5, 1.5, "left").direction).toBe("anticlockwise seen from above");
    expect(footTurn(-0.75, 1.5)).toMatchObject({ turns: 0.5, direction: "anticlockwise seen from above" });
    expect(footTurn(0, 1.5).direction).toBe("leave it");
  });
});
