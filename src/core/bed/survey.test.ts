import { Matrix, pseudoInverse, solve } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { flatness, flatnessScatter, MinimumZone, noiseFloor } from "../geometry";
import { normalDraw, seeded, type Vec2 } from "../numeric";
import { type SurveyFit, type SurveyReading, survey } from "./survey";

const random = seeded(17);
const GRID = ["A", "B", "C", "D", "E", "F"];
const PLACES: Vec2[] = [0, 1000, 2000].flatMap((x) => [0, 900].map((y) => ({ x, y })));
type Difference = Extract<SurveyReading, { by: "difference" }>;
/** Readings between random pairs, enough to reach every point and some more. */
function readings(heights: number[], u: number): Difference[] {
  const list: Difference[] = [];
  for (let i = 1; i < GRID.length; i++)
    for (const j of [i - 1, Math.floor(random() * i)])
      list.push({
        id: String(list.length),
        by: "difference",
        from: GRID[j] as string,
        at: GRID[i] as string,
        mm: (heights[i] as number) - (heights[j] as number) + u * normalDraw(random),
        uMm: u,
      });
  return list;
}
const places = (names: readonly string[]): Map<string, Vec2> =>
  new Map(names.map((n, i) => [n, PLACES[GRID.indexOf(n) >= 0 ? GRID.indexOf(n) : i] as Vec2]));
const solved = (list: readonly SurveyReading[], names: readonly string[] = GRID, error = 0): SurveyFit => {
  const n = survey(places(names), list, { L: error });
  if (!("zMm" in n)) throw new Error(n.status);
  return n;
};
/** Heights above the first point. */
const above = (n: SurveyFit, p: string): number => (n.zMm[p] as number) - (n.zMm.A as number);
const sloped = (from: string, at: string, mmPerM: number, direction: 1 | -1 = 1): SurveyReading => ({
  id: `${from}${at}`,
  by: "slope",
  from,
  at,
  mmPerM,
  uMm: 0.05,
  level: "L",
  direction,
  lengthMm: 1000,
});

describe("heights by differences and slopes", () => {
  it("is the least-squares solution of a general library (ml-matrix)", () => {
    for (let trial = 0; trial < 8; trial++) {
      const list = readings([0, 1, -0.5, 0.3, 2, 0.7], 0.1);
      const a = new Matrix(
        list.map((r) => GRID.slice(1).map((p) => ((p === r.at ? 1 : 0) - (p === r.from ? 1 : 0)) / r.uMm)),
      );
      const b = Matrix.columnVector(list.map((r) => r.mm / r.uMm));
      const want = solve(a, b, true).to1DArray();
      const n = solved(list);
      GRID.slice(1).forEach((p, i) => {
        expect(above(n, p)).toBeCloseTo(want[i] as number, 9);
      });
      expect(n.readings.reduce((s, r) => s + r.redundancy, 0)).toBeCloseTo(n.freedom, 9);
    }
  });
  it("finds a planted slip by its residual, and says how small a one would show", () => {
    let found = 0;
    const trials = 40;
    for (let t = 0; t < trials; t++) {
      const list = [...readings([0, 1, 0, 1, 0, 1], 0.1), ...readings([0, 1, 0, 1, 0, 1], 0.1)];
      const clean = solved(list);
      const at = Math.floor(random() * list.length);
      const mdb = clean.readings[at]?.detectableMm ?? Number.NaN;
      const bad = list.map((r, i) => (i === at ? { ...r, mm: r.mm + 1.6 * mdb } : r));
      const w = solved(bad).readings.map((r) => Math.abs(r.w));
      if (w.indexOf(Math.max(...w)) === at && Math.max(...w) > 3.29) found++;
    }
    // At the smallest detectable slip 80 % show; at 1.6 times it nearly all, and the right one is named.
    expect(found / trials).toBeGreaterThan(0.85);
  });
  it("turns with its names and units: relabelled and in other units it is the same bed", () => {
    const list = readings([0, 1, -0.5, 0.3, 2, 0.7], 0.1);
    const n = solved(list);
    const inches = solved(list.map((r) => ({ ...r, mm: r.mm / 25.4, uMm: r.uMm / 25.4 })));
    for (const p of GRID) expect((inches.zMm[p] ?? 0) * 25.4).toBeCloseTo(n.zMm[p] ?? 0, 9);
    expect(inches.chi2).toBeCloseTo(n.chi2, 9);
    const back = solved(list.map((r) => ({ ...r, from: r.at, at: r.from, mm: -r.mm })));
    for (const p of GRID) expect(back.zMm[p]).toBeCloseTo(n.zMm[p] ?? 0, 9);
  });
  it("cannot tell an unknown zero error without a loop, or where its arrows cancel", () => {
    const unknown = Number.POSITIVE_INFINITY;
    const chain = GRID.slice(1).map((p, i) => sloped(GRID[i] as string, p, 0.4));
    // Along this way round the points the error lies in a plane: it tilts the bed and leaves its flatness alone.
    expect(solved(chain, GRID, unknown).levelKnown).toBe(false);
    const bent = new Map(
      GRID.map((p, i) => [
        p,
        { x: [0, 900, 0, 900, 400, 700][i] as number, y: [0, 0, 600, 600, 200, 500][i] as number },
      ]),
    );
    expect(survey(bent, chain, { L: unknown }).status).toBe("loose");
    expect(survey(places(GRID), chain, { L: 0 }).status).toBe("ok_no_check");
    const there = [sloped("A", "B", 0.9), sloped("B", "A", -0.5, -1)];
    expect(solved(there, ["A", "B"], unknown).levelKnown).toBe(false);
    // Forward both ways: the level's own error adds up round the loop.
    const loop = solved([sloped("A", "B", 0.9), sloped("B", "A", -0.5)], ["A", "B"], unknown);
    expect(loop.errors.L?.mmPerM).toBeCloseTo(0.2, 9);
  });
  it("shares a loop's misclosure out by uncertainty", () => {
    const dz = [1.1, -0.4, -0.9];
    const u = [0.1, 0.1, 0.2];
    const loop = dz.map(
      (mm, i): SurveyReading => ({
        id: String(i),
        by: "difference",
        from: "ABC"[i] ?? "",
        at: "BCA"[i] ?? "",
        mm,
        uMm: u[i] ?? 0,
      }),
    );
    const n = solved(loop, ["A", "B", "C"]);
    const fix = n.readings.map((r) => r.residualMm);
    expect(dz.reduce((s, v, i) => s + v + (fix[i] ?? 0), 0)).toBeCloseTo(0, 12);
    expect((fix[2] ?? 0) / (fix[0] ?? 1)).toBeCloseTo(4, 9);
  });
  it("gives flatness its uncertainty with what heights share: Monte Carlo agrees with the linear figure", () => {
    const n = solved(readings([0, 2, 0, -1, 3, 0.5], 0.05));
    const linear = flatness(PLACES, Object.values(n.zMm), n.cov);
    const drawn = flatnessScatter(PLACES, Object.values(n.zMm), n.cov);
    expect(drawn.sd / (linear.uZoneMm ?? 1)).toBeCloseTo(1, 0);
    expect(Math.abs(drawn.sd / (linear.uZoneMm ?? 1) - 1)).toBeLessThan(0.12);
    expect(drawn.mean).toBeCloseTo(linear.zoneMm ?? 0, 1);
  });
  it("noise never lowers a flat bed: more points read more, by the figures of the notes", () => {
    const four = noiseFloor(
      [
        { x: 0, y: 0 },
        { x: 2, y: 0 },
        { x: 2, y: 1 },
        { x: 0, y: 1 },
      ],
      1,
    );
    const six = noiseFloor(PLACES, 1);
    expect(four.mean).toBeCloseTo(0.8, 1);
    expect(six.mean).toBeGreaterThan(four.mean);
  });
});

describe("a survey by any method", () => {
  const grid = (nx: number, ny: number, stepMm = 300): Map<string, Vec2> =>
    new Map(
      Array.from({ length: nx * ny }, (_, i) => [
        `R${i + 1}`,
        { x: (i % nx) * stepMm, y: Math.floor(i / nx) * stepMm },
      ]),
    );
  const fitOf = (s: ReturnType<typeof survey>): SurveyFit => {
    if (s.status !== "ok" && s.status !== "ok_no_check") throw new Error(s.status);
    return s;
  };
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

  it("finds the zero error of a level that nobody knows round a loop, and says nothing of it along an open chain", () => {
    const square = new Map([
      ["A", { x: 0, y: 0 }],
      ["B", { x: 2000, y: 0 }],
      ["C", { x: 2000, y: 1000 }],
      ["D", { x: 0, y: 1000 }],
    ]);
    const slope = (from: string, at: string, mmPerM: number): SurveyReading => ({
      id: `${from}${at}`,
      by: "slope",
      from,
      at,
      mmPerM,
      uMm: 0.1,
      level: "L",
      direction: 1,
    });
    const chain = [slope("A", "B", 0.6), slope("B", "C", 0.2), slope("C", "D", 0.4)];
    const unknown = { L: Number.POSITIVE_INFINITY };
    // Round a corner even the heights are open; in one line they bend as before, however much the level is off.
    expect(survey(square, chain, unknown).status).toBe("loose");
    const line = new Map([...square.keys()].map((name, i) => [name, { x: 1000 * i, y: 0 }]));
    const open = fitOf(survey(line, chain, unknown));
    expect(open.errors).toEqual({});
    expect(open.levelKnown).toBe(false);
    const loop = fitOf(survey(square, [...chain, slope("D", "A", 0.2)], unknown));
    // Once round, all that rises is the level's own: (1.2 + 0.2 + 0.8 + 0.2) / 6 m.
    expect(loop.errors.L?.mmPerM).toBeCloseTo(0.4, 9);
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
