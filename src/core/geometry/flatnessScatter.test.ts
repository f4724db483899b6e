import { describe, expect, it } from "vitest";
import { flatnessScatter, noiseFloor } from "./flatnessScatter";

const FOUR = [
  { x: 0, y: 0 },
  { x: 900, y: 0 },
  { x: 900, y: 500 },
  { x: 0, y: 500 },
];

describe("scatter of a flatness", () => {
  it("of four like heights about a plane is half of a normal's size: mean sqrt(2/pi) u (closed form)", () => {
    // Twist of four readings has 2 u; flatness is half its size.
    const { mean, q95 } = noiseFloor(FOUR, 0.3);
    expect(mean).toBeCloseTo(0.3 * Math.sqrt(2 / Math.PI), 2);
    expect(q95).toBeCloseTo(0.3 * 1.96, 1);
  });
  it("takes a covariance for the same as like readings, and shared height or tilt for nothing", () => {
    const alone = FOUR.map((_, i) => FOUR.map((__, j) => (i === j ? 0.09 : 0)));
    const lifted = alone.map((row, i) => row.map((v, j) => v + 4 + 1e-6 * (FOUR[i]?.x ?? 0) * (FOUR[j]?.x ?? 0)));
    const plain = noiseFloor(FOUR, 0.3, 4000);
    expect(noiseFloor(FOUR, alone, 4000).mean).toBeCloseTo(plain.mean, 1);
    expect(noiseFloor(FOUR, lifted, 4000).mean).toBeCloseTo(plain.mean, 1);
  });
  it("far above the noise is that of the heights, and noise never makes it small", () => {
    const z = [2, 0, 2, 0];
    const { mean, sd } = flatnessScatter(FOUR, z, 0.05);
    expect(mean).toBeCloseTo(2, 1);
    expect(sd).toBeCloseTo(0.05, 2);
  });
});
