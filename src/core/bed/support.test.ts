import { describe, expect, it } from "vitest";
import { flatness } from "../geometry";
import { seeded, type Vec2 } from "../numeric";
import { BEST_INSET, bestThree, fourPointRock, restOn, sagOnTwoRests, tipForceN } from "./support";

const random = seeded(17);

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
