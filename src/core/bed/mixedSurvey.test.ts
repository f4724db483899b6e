import fc from "fast-check";
import loadHighs from "highs";
import { EigenvalueDecomposition, Matrix, pseudoInverse } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { flatness, flatnessScatter, MinimumZone } from "../geometry";
import { normalDraw, seeded, symmetricEigen, type Vec2 } from "../numeric";
import { type SurveyFit, type SurveyReading, survey } from "./survey";

const grid = (nx: number, ny: number, stepMm = 300): Map<string, Vec2> =>
  new Map(
    Array.from({ length: nx * ny }, (_, i) => [`R${i + 1}`, { x: (i % nx) * stepMm, y: Math.floor(i / nx) * stepMm }]),
  );
const fitOf = (s: ReturnType<typeof survey>): SurveyFit => {
  if (s.status !== "ok" && s.status !== "ok_no_check") throw new Error(s.status);
  return s;
};

describe("the thinnest slab by exchange", () => {
  /** Every four points, straight from the closed form. */
  const enumerated = (xy: readonly Vec2[], z: readonly number[]): number => {
    let best = 0;
    const n = xy.length;
    const area = (i: number, j: number, k: number) => {
      const [p, q, r] = [xy[i], xy[j], xy[k]] as [Vec2, Vec2, Vec2];
      return (q.x - p.x) * (r.y - p.y) - (r.x - p.x) * (q.y - p.y);
    };
    for (let a = 0; a < n; a++)
      for (let b = a + 1; b < n; b++)
        for (let c = b + 1; c < n; c++)
          for (let d = c + 1; d < n; d++) {
            const lam = [area(b, c, d), -area(a, c, d), area(a, b, d), -area(a, b, c)];
            const total = lam.reduce((s, l) => s + Math.abs(l), 0);
            if (total === 0) continue;
            const sum = [a, b, c, d].reduce((s, i, k) => s + (lam[k] as number) * (z[i] as number), 0);
            best = Math.max(best, (2 * Math.abs(sum)) / total);
          }
    return best;
  };

  it("finds what trying every four finds, on grids with many points in line too", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.integer({ min: 2, max: 4 }),
        fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 24, maxLength: 24 }),
        (nx, ny, heights) => {
          const xy = [...grid(nx, ny).values()];
          const z = heights.slice(0, xy.length).map((h) => h / 20);
          expect(new MinimumZone(xy).of(z).zoneMm).toBeCloseTo(enumerated(xy, z), 6);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("finds the same from any start, as it does when many sets of heights follow each other", () => {
    const xy = [...grid(8, 5).values()];
    const random = seeded(4);
    const going = new MinimumZone(xy);
    for (let k = 0; k < 60; k++) {
      const z = xy.map(() => normalDraw(random));
      expect(going.of(z).zoneMm).toBeCloseTo(new MinimumZone(xy).of(z).zoneMm, 8);
    }
  });

  it("is the optimum of the linear program: least h with every point within h/2 of one plane", async () => {
    const highs = await loadHighs();
    const random = seeded(9);
    for (const [nx, ny] of [
      [5, 4],
      [8, 5],
    ] as const) {
      const xy = [...grid(nx, ny).values()].map((p) => ({ x: p.x / 1000, y: p.y / 1000 }));
      const z = xy.map(() => normalDraw(random));
      const rows = xy.flatMap((p, i) => [
        ` u${i}: a + ${p.x} b + ${p.y} c + 0.5 h >= ${z[i]}`,
        ` l${i}: a + ${p.x} b + ${p.y} c - 0.5 h <= ${z[i]}`,
      ]);
      const lp = `Minimize\n obj: h\nSubject To\n${rows.join("\n")}\nBounds\n a free\n b free\n c free\n h >= 0\nEnd`;
      expect(new MinimumZone(xy).of(z).zoneMm).toBeCloseTo(highs.solve(lp).ObjectiveValue, 6);
    }
  });
});

describe("eigenvalues of a symmetric matrix", () => {
  it("are those of a general library, also of a singular one", () => {
    const random = seeded(12);
    const half = Array.from({ length: 7 }, () => Array.from({ length: 5 }, () => normalDraw(random)));
    const a = half.map((p) => half.map((q) => p.reduce((s, v, i) => s + v * (q[i] as number), 0)));
    const own = [...symmetricEigen(a).values].sort((x, y) => x - y);
    const theirs = new EigenvalueDecomposition(new Matrix(a)).realEigenvalues.sort((x, y) => x - y);
    own.forEach((v, i) => {
      expect(v).toBeCloseTo(theirs[i] as number, 9);
    });
  });
});

describe("a survey by any method", () => {
  const places = grid(3, 3);
  const truth = Object.fromEntries(
    [...places.keys()].map((p, i) => [p, [0, 0.4, 0.1, 0.9, 0.2, 0.5, 0.3, 0.7, 0.6][i] as number]),
  );
  const z = (p: string): number => truth[p] as number;
  const height = (p: string, datum = "1"): SurveyReading => ({
    id: p,
    by: "height",
    at: p,
    mm: z(p) + 12,
    uMm: 0.05,
    datum,
  });
  const slope = (from: string, at: string, error = 0, level = "L"): SurveyReading => {
    const [a, b] = [places.get(from), places.get(at)] as [Vec2, Vec2];
    const m = Math.hypot(a.x - b.x, a.y - b.y) / 1000;
    return {
      id: `${from}${at}`,
      by: "slope",
      from,
      at,
      mmPerM: (z(at) - z(from)) / m + error,
      uMm: 0.05 * m,
      level,
      direction: 1,
    };
  };
  const edge = (from: string, at: string, to: string): SurveyReading => ({
    id: `${from}${at}${to}`,
    by: "edge",
    from,
    to,
    at,
    gapMm: (z(from) + z(to)) / 2 + 5 - z(at),
    blocksMm: [5, 5],
    bulgeMm: 0,
    uMm: 0.03,
  });
  const above = (fit: SurveyFit) => Object.values(fit.zMm);

  it("gives the heights back from heights, rods, slopes and differences mixed, in any order", () => {
    const readings: SurveyReading[] = [
      height("R1"),
      height("R2"),
      height("R3"),
      { id: "r4", by: "rod", at: "R4", mm: 1500 - z("R4"), uMm: 0.2, setUp: "1", level: "O", sightM: null },
      { id: "r1", by: "rod", at: "R1", mm: 1500 - z("R1"), uMm: 0.2, setUp: "1", level: "O", sightM: null },
      slope("R4", "R5"),
      { id: "d", by: "difference", from: "R5", at: "R6", mm: z("R6") - z("R5"), uMm: 0.1 },
      edge("R1", "R4", "R7"),
      slope("R7", "R8"),
      slope("R8", "R9"),
    ];
    for (const order of [readings, [...readings].reverse()]) {
      const fit = fitOf(survey(places, order));
      for (const p of places.keys())
        expect((fit.zMm[p] as number) - (fit.zMm.R1 as number)).toBeCloseTo(z(p) - z("R1"), 8);
      expect(fit.levelKnown).toBe(true);
    }
  });

  it("knows flat but not level from gaps under a straightedge alone", () => {
    const gaps = [
      edge("R1", "R2", "R3"),
      edge("R4", "R5", "R6"),
      edge("R7", "R8", "R9"),
      edge("R1", "R4", "R7"),
      edge("R3", "R6", "R9"),
      edge("R1", "R5", "R9"),
      edge("R3", "R5", "R7"),
    ];
    const fit = fitOf(survey(places, gaps));
    expect(fit.levelKnown).toBe(false);
    expect(fit.freedom).toBe(1);
    const xy = [...places.values()];
    const zone = (heights: number[]): number => new MinimumZone(xy).of(heights).zoneMm;
    expect(zone(above(fit))).toBeCloseTo(zone(Object.values(truth)), 8);
    // What the gaps leave open does not count: nor does it make the flatness unsure.
    const u = flatness(xy, above(fit), fit.cov).uZoneMm as number;
    expect(u).toBeGreaterThan(0.01);
    expect(u).toBeLessThan(0.2);
  });

  it("says which points nothing ties to the others, and which are loose", () => {
    const apart = survey(places, [slope("R1", "R2"), slope("R5", "R6")]);
    expect(apart).toEqual({ status: "disconnected", unreached: ["R5", "R6"] });
    // The gap at R5 ties it to R9, which nothing else reaches: neither is known.
    const loose = survey(places, [slope("R1", "R3"), slope("R1", "R7"), edge("R1", "R5", "R9")]);
    expect(loose.status).toBe("loose");
    if (loose.status === "loose") expect(loose.loose).toContain("R9");
    expect(survey(places, [])).toEqual({ status: "nothing" });
  });

  it("finds a level's zero error from a loop, and lets it drop out of one line", () => {
    const loop = [slope("R1", "R3", 0.7), slope("R3", "R9", 0.7), slope("R9", "R7", 0.7), slope("R7", "R1", 0.7)];
    const fit = fitOf(survey(places, loop, { L: 5 }));
    expect(fit.errors.L?.mmPerM).toBeCloseTo(0.7, 2);
    const line = new Map([...places].slice(0, 3));
    const steps = [slope("R1", "R2", 0.7), slope("R2", "R3", 0.7)];
    const bent = fitOf(survey(line, steps, { L: 0.0001 }));
    expect((bent.zMm.R1 as number) - 2 * (bent.zMm.R2 as number) + (bent.zMm.R3 as number)).toBeCloseTo(
      z("R1") - 2 * z("R2") + z("R3"),
      6,
    );
  });

  it("agrees with the pseudo-inverse of a general library", () => {
    const random = seeded(21);
    const names = [...places.keys()];
    const readings: SurveyReading[] = [];
    for (let k = 0; k < 30; k++) {
      const [i, j] = [Math.floor(9 * random()), Math.floor(9 * random())];
      if (i !== j)
        readings.push({
          id: `${k}`,
          by: "difference",
          from: names[i] as string,
          at: names[j] as string,
          mm: normalDraw(random),
          uMm: 0.1 + random(),
        });
    }
    const fit = fitOf(survey(places, readings));
    const a = readings.map((r) =>
      fit.points.map((p) => (r.by === "difference" ? (r.at === p ? 1 : r.from === p ? -1 : 0) / r.uMm : 0)),
    );
    const b = readings.map((r) => [(r.by === "difference" ? r.mm : 0) / r.uMm]);
    const x = pseudoInverse(new Matrix(a)).mmul(new Matrix(b)).to1DArray();
    const low = Math.min(...x);
    fit.points.forEach((p, i) => {
      expect(fit.zMm[p]).toBeCloseTo((x[i] as number) - low, 7);
    });
  });

  it("names a misread that was planted, where its points have two other readings each, and hardly ever another", () => {
    const random = seeded(33);
    let [found, named, wrong] = [0, 0, 0];
    const runs = 300;
    for (let k = 0; k < runs; k++) {
      const readings: SurveyReading[] = [];
      const names = [...places.keys()];
      for (let i = 0; i < 9; i++)
        for (const j of [i + 1, i + 3, i + 4])
          if (j < 9 && (j !== i + 1 || i % 3 < 2) && (j !== i + 4 || i % 3 < 2))
            readings.push({
              id: `${i}-${j}`,
              by: "difference",
              from: names[i] as string,
              at: names[j] as string,
              mm: z(names[j] as string) - z(names[i] as string) + 0.05 * normalDraw(random),
              uMm: 0.05,
            });
      const at = (name: string): number =>
        readings.filter((r) => r.by === "difference" && [r.at, r.from].includes(name)).length;
      const planted = readings[Math.floor(readings.length * random())] as Extract<SurveyReading, { by: "difference" }>;
      planted.mm += 1;
      const { diagnosis } = fitOf(survey(places, readings));
      const right = diagnosis.candidates[0]?.id === planted.id;
      if (diagnosis.status === "located" && !right) wrong++;
      if (at(planted.at) < 3 || at(planted.from) < 3) continue;
      found++;
      if (diagnosis.status === "located" && right) named++;
    }
    // Twenty standard uncertainties off. Where only two readings meet at a point, neither can be told from the other.
    expect(found).toBeGreaterThan(100);
    expect(named / found).toBeGreaterThan(0.97);
    expect(wrong / runs).toBeLessThan(0.02);
  });

  it("scatters by Monte Carlo as the linear figure says, where one group of four clearly decides", () => {
    const xy = [...grid(8, 5).values()];
    const heights = xy.map((_, i) => (i === 0 || i === 39 ? 3 : i === 7 || i === 32 ? -3 : 0));
    const cov = xy.map((_, i) => xy.map((__, j) => (i === j ? 0.01 : 0.004)));
    const linear = flatness(xy, heights, cov);
    const drawn = flatnessScatter(xy, heights, cov, 4000);
    expect(drawn.mean).toBeCloseTo(linear.zoneMm as number, 1);
    expect(Math.abs(drawn.sd / (linear.uZoneMm as number) - 1)).toBeLessThan(0.06);
  });

  it("is not changed by turning the bed, by other names or by other units", () => {
    const readings: SurveyReading[] = [edge("R1", "R5", "R9"), ...[...places.keys()].map((p) => height(p))];
    const base = fitOf(survey(places, readings));
    const c = Math.cos(0.7);
    const s = Math.sin(0.7);
    const turned = new Map([...places].map(([n, p]) => [n, { x: c * p.x - s * p.y, y: s * p.x + c * p.y }]));
    const again = fitOf(survey(turned, readings));
    const inch = fitOf(
      survey(
        new Map([...places].map(([n, p]) => [n, { x: p.x / 25.4, y: p.y / 25.4 }])),
        readings.map((r) =>
          r.by === "height"
            ? { ...r, mm: r.mm / 25.4, uMm: r.uMm / 25.4 }
            : r.by === "edge"
              ? { ...r, gapMm: r.gapMm / 25.4, blocksMm: [5 / 25.4, 5 / 25.4] as const, uMm: r.uMm / 25.4 }
              : r,
        ),
      ),
    );
    for (const p of base.points) {
      expect(again.zMm[p]).toBeCloseTo(base.zMm[p] as number, 8);
      expect((inch.zMm[p] as number) * 25.4).toBeCloseTo(base.zMm[p] as number, 8);
    }
    expect(again.chi2).toBeCloseTo(base.chi2, 8);
  });
});
