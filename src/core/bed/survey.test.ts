import { Matrix, solve } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { flatness, flatnessScatter, noiseFloor } from "../geometry";
import { turnedEdge } from "../instruments";
import { normalDraw, seeded, type Vec2 } from "../numeric";
import { BEST_INSET, bestThree, fourPointRock, restOn, sagOnTwoRests, tipForceN } from "./support";
import { type SurveyFit, type SurveyReading, survey } from "./survey";
import { splitTwist, turnedGaps } from "./tableTwist";

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

describe("rests", () => {
  const square: [Vec2, Vec2, Vec2, Vec2] = [
    { x: 0, y: 0 },
    { x: 1000, y: 0 },
    { x: 1000, y: 1000 },
    { x: 0, y: 1000 },
  ];
  it("work is steady on a plane, rocks freely on its diagonal, falls when its weight is outside", () => {
    expect(restOn(square, [0, 1, 2, 1], { x: 500, y: 480 }, 100).status).toBe("steady");
    expect(restOn(square, [1, 0, 1, 0], { x: 500, y: 500 }, 100).status).toBe("rocks_freely");
    expect(restOn(square, [1, 0, 1, 0], { x: 600, y: 480 }, 100).status).toBe("rocks_when_pushed");
    expect(restOn(square, [0, 0, 0, 0], { x: 1500, y: 500 }, 100).status).toBe("falls");
  });
  it("lies on its rests without passing through any, wherever they are", () => {
    for (let t = 0; t < 60; t++) {
      const n = 4 + Math.floor(random() * 4);
      const xy = Array.from({ length: n }, () => ({ x: 1000 * random(), y: 800 * random() }));
      const c = xy.map(() => random() - 0.5);
      const rest = restOn(xy, c, { x: 500, y: 400 }, 200);
      for (const state of rest.states) {
        expect(Math.min(...state.gapsMm)).toBeGreaterThan(-1e-6);
        expect(state.contact.length).toBeGreaterThanOrEqual(3);
      }
    }
  });
  it("the rock gap of a rectangle is its twist, half of it flatness (closed form)", () => {
    const rock = fourPointRock(square, [1.2, 0, 0.8, 0.4]);
    expect(rock.light).toEqual([1, 3]);
    expect(rock.gapsMm[1]).toBeCloseTo(1.6, 9);
    expect(flatness(square, [1.2, 0, 0.8, 0.4], 0.1).zoneMm).toBeCloseTo(0.8, 5);
  });
  it("the best three are the best of all by trying, and their loads carry the weight in balance", () => {
    const points = Array.from({ length: 7 }, () => ({ x: 2000 * random(), y: 1200 * random() }));
    const centre = { x: 1000, y: 600 };
    const best = bestThree(points, centre);
    if (best.status !== "ok") throw new Error("no triangle");
    expect(best.loadShares.reduce((s, v) => s + v, 0)).toBeCloseTo(1, 9);
    const balance = best.rests.reduce(
      (s, r, i) => ({
        x: s.x + (best.loadShares[i] as number) * (points[r] as Vec2).x,
        y: s.y + (best.loadShares[i] as number) * (points[r] as Vec2).y,
      }),
      { x: 0, y: 0 },
    );
    expect(balance.x).toBeCloseTo(centre.x, 6);
    expect(balance.y).toBeCloseTo(centre.y, 6);
    // No push inside the triangle tips it; just outside an edge it does.
    const t = best.rests.map((r) => points[r] as Vec2) as [Vec2, Vec2, Vec2];
    expect(tipForceN(t, centre, 100, centre)).toBe(Number.POSITIVE_INFINITY);
  });
  it("a tube on rests 0.223 in sags a forty-eighth of what it sags on its ends (closed form)", () => {
    const ends = sagOnTwoRests(0.05, 6000, 210_000, 350_000);
    const inset = sagOnTwoRests(0.05, 6000, 210_000, 350_000, BEST_INSET * 6000);
    expect(ends.endMm).toBeCloseTo(0, 9);
    expect(ends.centreMm / Math.max(Math.abs(inset.centreMm), Math.abs(inset.endMm))).toBeGreaterThan(44);
    // 6 m of 60 x 60 x 3: about 11 mm on its ends.
    expect(sagOnTwoRests(6.61e2 * 7.85e-6 * 9.81, 6000, 210_000, 351_000).centreMm).toBeCloseTo(11.65, 0);
  });
});

describe("turning over", () => {
  it("an edge turned over tells itself from the surface", () => {
    const surface = [0, 0.2, 0.1];
    const edge = [0, 0.05, -0.02];
    const found = turnedEdge(
      surface.map((s, i) => s + (edge[i] as number)),
      surface.map((s, i) => s - (edge[i] as number)),
    );
    surface.forEach((s, i) => {
      expect(found.surfaceMm[i]).toBeCloseTo(s, 12);
      expect(found.edgeMm[i]).toBeCloseTo(edge[i] as number, 12);
    });
  });
  it("a quarter turn tells frame from table, what half a turn cannot", () => {
    const gaps = turnedGaps(-1.4, 0.6);
    expect(gaps.halfTurnMm).toBe(gaps.asFoundMm);
    expect(splitTwist(-1.4 - 0.6, 1.4 - 0.6)).toEqual({ frameMm: -1.4, tableMm: expect.closeTo(0.6, 12) });
  });
});
