import { describe, expect, it } from "vitest";
import { chiSquareTail, erfc, normalCdf } from "./tails";

// Percentage points from Abramowitz and Stegun, Handbook of Mathematical Functions, tables 26.1 and 26.8 (from memory).
describe("tails against published tables", () => {
  it.each([
    [1.0, 0.8413447460685429],
    [1.644853626951, 0.95],
    [1.95996398454, 0.975],
    [2.575829303549, 0.995],
    [-3.0, 0.0013498980316301],
    [4.5, 0.9999966023268753],
  ])("Phi(%d) = %d", (t, p) => expect(normalCdf(t)).toBeCloseTo(p, 10));

  it.each([
    [3.841458821, 1, 0.05],
    [5.991464547, 2, 0.05],
    [7.814727903, 3, 0.05],
    [11.07049769, 5, 0.05],
    [18.30703805, 10, 0.05],
    [6.634896601, 1, 0.01],
    [23.20925116, 10, 0.01],
    [29.58829845, 10, 0.001],
  ])("Q(%d | %d) = %d", (T, f, p) => expect(chiSquareTail(T, f)).toBeCloseTo(p, 8));

  it("joins its two branches smoothly", () => {
    expect(erfc(2.5 - 1e-9)).toBeCloseTo(erfc(2.5 + 1e-9), 11);
    expect(erfc(0)).toBe(1);
  });
});
