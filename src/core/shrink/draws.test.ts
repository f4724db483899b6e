import { describe, expect, it } from "vitest";
import { FACTORS } from "../weld";
import { drawsOf } from "./draws";

const made = (count: number) => drawsOf(FACTORS, count, 7, { tacks: [], beads: ["a", "b"], joints: ["A", "B"] });

describe("draws", () => {
  it("are the same every time, begin with the nominal one, and have half above it", () => {
    const [one, two] = [made(64), made(64)];
    const heat = one.shared(["transverse"]);
    expect([...heat]).toEqual([...two.shared(["transverse"])]);
    expect(heat[0]).toBe(1);
    const above = heat.filter((v) => v > 1).length;
    expect(above).toBeGreaterThan(16);
    expect(above).toBeLessThan(48);
    expect(heat.every((v) => v > 0)).toBe(true);
  });
  it("scatter as they are said to: lognormal with the stated variation", () => {
    const logs = [...made(4000).shared(["transverse"])].slice(1).map(Math.log);
    const mean = logs.reduce((s, v) => s + v, 0) / logs.length;
    const sd = Math.sqrt(logs.reduce((s, v) => s + (v - mean) ** 2, 0) / (logs.length - 1));
    expect(mean).toBeCloseTo(0, 1);
    expect(sd).toBeCloseTo(Math.sqrt(Math.log(1 + FACTORS.transverse.cv ** 2)), 2);
  });
  it("have in common what was learned of two factors together, each scattering as it is said to", () => {
    const sd = (cv: number): number => Math.sqrt(Math.log(1 + cv ** 2));
    const [a, b] = [sd(FACTORS.transverse.cv), sd(FACTORS.filletClosing.cv)];
    const together = [
      [a * a, 0, -0.8 * a * b, 0],
      [0, sd(FACTORS.longitudinal.cv) ** 2, 0, 0],
      [-0.8 * a * b, 0, b * b, 0],
      [0, 0, 0, sd(FACTORS.tackHeat.cv) ** 2],
    ];
    const draws = drawsOf({ ...FACTORS, together }, 61, 7, { tacks: [], beads: ["a", "b"], joints: ["A", "B"] });
    const logs = (name: string): number[] => [...draws.shared([name])].slice(1).map(Math.log);
    const [x, y, both] = [logs("transverse"), logs("filletClosing"), logs("transverse")];
    const common = (p: readonly number[], q: readonly number[]): number =>
      p.reduce((s, v, d) => s + v * (q[d] ?? 0), 0) / p.length;
    expect(common(x, x)).toBeCloseTo(a * a, 9);
    expect(common(y, y)).toBeCloseTo(b * b, 9);
    expect(common(x, y)).toBeCloseTo(-0.8 * a * b, 9);
    // What hangs on their product is narrower for it, as a covariance says: a² + b² - 1.6 a b.
    const product = both.map((v, d) => v + (y[d] ?? 0));
    expect(common(product, product)).toBeCloseTo(a * a + b * b - 1.6 * a * b, 9);
  });
  it("are free of each other: what is linear in them has the variance of its parts, however few they are", () => {
    const draws = made(61);
    const logs = (of: Float64Array, cv: number) =>
      [...of].slice(1).map((v) => Math.log(v) / Math.sqrt(Math.log(1 + cv ** 2)));
    const columns = [
      logs(draws.shared(["transverse"]), FACTORS.transverse.cv),
      logs(draws.shared(["day"]), FACTORS.day.cv),
      logs(draws.gap("A"), FACTORS.gap.cv),
      logs(draws.bead("b", 0), Math.hypot(FACTORS.perBead.cv, FACTORS.fit.cv)),
    ];
    columns.forEach((x, i) => {
      columns.forEach((y, j) => {
        const common = x.reduce((s, v, d) => s + v * (y[d] ?? 0), 0) / x.length;
        expect(common).toBeCloseTo(i === j ? 1 : 0, 9);
      });
    });
  });
  it("say what an outcome hangs on", () => {
    const draws = made(200);
    const gap = draws.gap("A").map((v) => Math.log(v) / Math.sqrt(Math.log(1 + FACTORS.gap.cv ** 2)));
    const heat = draws
      .shared(["transverse"])
      .map((v) => Math.log(v) / Math.sqrt(Math.log(1 + FACTORS.transverse.cv ** 2)));
    const shares = draws.sharesOf(gap.map((v, d) => 3 * v + 4 * (heat[d] ?? 0)));
    expect(shares.gaps).toBeCloseTo(9 / 25, 1);
    expect(shares.heat).toBeCloseTo(16 / 25, 1);
    expect(shares.beads).toBeLessThan(0.02);
  });
  it("differ from bead to bead and go with nothing but the bead's name", () => {
    const draws = made(64);
    expect([...draws.bead("a", 0)]).not.toEqual([...draws.bead("b", 0)]);
    expect([...draws.bead("a", 0)]).toEqual([...made(64).bead("a", 0)]);
  });
});
