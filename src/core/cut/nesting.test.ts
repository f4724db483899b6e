import fc from "fast-check";
import loadHighs from "highs";
import { describe, expect, it } from "vitest";
import { pieces as piece } from "../../../tests/support/pieces";
import { solvedBy } from "../../workers/solvedBy";
import { length } from "../units";
import type { CutPiece } from "./cutList";
import { leastCost, nestingLp, nestingProblem } from "./nesting";
import { solveNesting } from "./solveNesting";
import { stockProblems } from "./stockProblems";
import type { Stock } from "./stockSchema";

const solver = await loadHighs();
const stock = (change: Partial<Stock> = {}): Stock => ({
  bars: [{ id: "B1", length: length("6000"), price: null }],
  offcuts: [],
  kerf: length("0"),
  grip: length("0"),
  least: length("300"),
  flip: false,
  ...change,
});
function nest(cut: CutPiece[], s: Stock) {
  const problem = nestingProblem(cut, s, 40);
  if ("tooLong" in problem) throw new Error(`too long: ${problem.tooLong}`);
  return { problem, plan: solveNesting(problem, (lp) => solvedBy(solver, lp, 20), s) };
}

/** Fewest bars by trying everything: every piece into every bar. */
function fewest(lengths: number[], bar: number): number {
  const sorted = [...lengths].sort((a, b) => b - a);
  let best = sorted.length;
  const walk = (i: number, room: number[]): void => {
    if (room.length >= best) return;
    if (i === sorted.length) {
      best = room.length;
      return;
    }
    const need = sorted[i] as number;
    const tried = new Set<number>();
    room.forEach((r, k) => {
      if (r < need - 1e-9 || tried.has(r)) return;
      tried.add(r);
      walk(
        i + 1,
        room.map((x, j) => (j === k ? x - need : x)),
      );
    });
    walk(i + 1, [...room, bar - need]);
  };
  walk(0, []);
  return best;
}

describe("buying bars", () => {
  it("is provably least where that can be seen by hand", () => {
    // Three of 2000 fill a 6000 bar: nine take three.
    expect(nest([piece("P", 2000, 9)], stock()).plan).toMatchObject({ proven: true, boughtMm: 18_000 });
    // 3500 + 2500 pair up: four of each take four bars, one of each kind alone would take more.
    expect(nest([piece("P", 3500, 4), piece("Q", 2500, 4)], stock()).plan.bars).toHaveLength(4);
    // With a kerf of 2 three of 1999 still fit, with 3 they do not: 3 x 1999 + 2 x 3 = 6003.
    expect(nest([piece("P", 1999, 3)], stock({ kerf: length("1") })).plan.bars).toHaveLength(1);
    expect(nest([piece("P", 1999, 3)], stock({ kerf: length("3") })).plan.bars).toHaveLength(2);
  });
  it("agrees with trying everything on small jobs, cuts every piece once, and no bar beyond its length", () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ mm: fc.integer({ min: 600, max: 5900 }), n: fc.integer({ min: 1, max: 3 }) }), {
          minLength: 1,
          maxLength: 3,
        }),
        (list) => {
          const cut = list.map((p, i) => piece(`P${i}x`, p.mm, p.n));
          const { plan, problem } = nest(cut, stock());
          expect(plan.bars).toHaveLength(
            fewest(
              list.flatMap((p) => Array<number>(p.n).fill(p.mm)),
              6000,
            ),
          );
          const made = plan.bars.flatMap((b) => b.pieces.map((p) => p.member)).sort();
          expect(made).toEqual(cut.flatMap((c) => c.members).sort());
          for (const b of plan.bars) {
            expect(b.pieces.reduce((s, p) => s + p.longMm, 0)).toBeLessThanOrEqual(b.lengthMm);
            expect(b.usedMm + b.leftMm).toBeCloseTo(b.lengthMm, 9);
          }
          expect(plan.boughtMm).toBeGreaterThanOrEqual(leastCost(problem));
        },
      ),
      { numRuns: 40, seed: 3 },
    );
  });
  it("uses offcuts first, keeps what is worth keeping, and buys the cheaper way by price", () => {
    const withOffcut = nest(
      [piece("P", 1000, 6), piece("Q", 700, 1)],
      stock({ offcuts: [{ id: "O1", length: length("750"), quantity: 1 }] }),
    ).plan;
    expect(withOffcut.bars.filter((b) => b.offcut)).toHaveLength(1);
    expect(withOffcut.boughtMm).toBe(6000);
    const two = stock({
      bars: [
        { id: "B1", length: length("6000"), price: 40 },
        { id: "B2", length: length("3000"), price: 15 },
      ],
    });
    expect(nest([piece("P", 2900, 2)], two).plan).toMatchObject({ price: 30, buy: [{ id: "B2", count: 2 }] });
    expect(nest([piece("P", 2500, 1)], stock()).plan.bars[0]).toMatchObject({ keep: true, leftMm: 3500 });
  });
  it("says what the offcuts at hand do not yield, and claims nothing for it", () => {
    const few = stock({ bars: [], offcuts: [{ id: "O1", length: length("2000"), quantity: 1 }] });
    const { plan } = nest([piece("P", 900, 4)], few);
    expect(plan.missing.length).toBeGreaterThan(0);
    expect(plan.proven).toBe(false);
    const enough = stock({ bars: [], offcuts: [{ id: "O1", length: length("2000"), quantity: 2 }] });
    expect(nest([piece("P", 900, 4)], enough).plan).toMatchObject({ missing: [], buy: [], boughtMm: 0 });
  });
  it("lets mitred pieces share a cut when every other one is turned over", () => {
    const mitred = [piece("P", 1040, 6, 45)];
    // 6 x 1040 = 6240 do not fit side by side; turned over they take 6 x 1000 + 40.
    expect(nest(mitred, stock()).plan.bars).toHaveLength(2);
    expect(
      nest(mitred, stock({ flip: true, bars: [{ id: "B1", length: length("6040"), price: null }] })).plan.bars,
    ).toHaveLength(1);
    expect(
      nest(mitred, stock({ flip: true, bars: [{ id: "B1", length: length("6039"), price: null }] })).plan.bars,
    ).toHaveLength(2);
  });
  it("names the piece that is longer than any bar, and sizes that no shop has", () => {
    expect(nestingProblem([piece("P", 7000, 1)], stock(), 40)).toEqual({ tooLong: "P1" });
    expect(nestingProblem([piece("P", 1000, 1)], stock({ bars: [] }), 40)).toEqual({ tooLong: "P1" });
    expect(stockProblems(stock({ kerf: length("60") }))[0]).toMatchObject({ path: "stock.kerf", severity: "error" });
    expect(stockProblems(stock({ bars: [{ id: "B1", length: length("6"), price: null }] }))[0]?.path).toBe(
      "stock.bars.0.length",
    );
    expect(stockProblems(stock())).toEqual([]);
  });
  it("with forty different pieces, patterns are added as they pay, and the plan is as good as with every pattern", () => {
    // Few enough for every pattern to be written down: both ways must cost the same.
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 700, max: 2900 }), { minLength: 4, maxLength: 9 }), (lengths) => {
        const cut = lengths.map((mm, i) => piece(`P${i}x`, mm, 1));
        const whole = nestingProblem(cut, stock(), 40);
        if ("tooLong" in whole) throw new Error("too long");
        const every = solveNesting(whole, (lp) => solvedBy(solver, lp, 20), stock());
        const grown = solveNesting({ ...whole, complete: false }, (lp) => solvedBy(solver, lp, 20), stock());
        expect(grown.missing).toEqual([]);
        if (grown.proven) expect(grown.boughtMm).toBe(every.boughtMm);
        // What it says could be saved at most is no less than what could be.
        expect(grown.bound * grown.boughtMm).toBeLessThanOrEqual(every.boughtMm + 1e-6);
      }),
      { numRuns: 40, seed: 3 },
    );
    const forty = Array.from({ length: 40 }, (_, i) => piece(`P${i}x`, 600 + 53 * i, 1));
    const { plan, problem } = nest(forty, stock());
    expect(problem.complete).toBe(false);
    expect(plan.missing).toEqual([]);
    expect(plan.proven).toBe(true);
    for (const bar of plan.bars) expect(bar.pieces.reduce((s, p) => s + p.longMm, 0)).toBeLessThanOrEqual(6000 + 1e-6);
  });
  it("the program names every piece and every bar of which there are few", () => {
    const problem = nestingProblem(
      [piece("P", 1000, 3)],
      stock({ offcuts: [{ id: "O1", length: length("1500"), quantity: 2 }] }),
      40,
    );
    if ("tooLong" in problem) throw new Error("too long");
    expect(nestingLp(problem, true)).toMatch(/piece0: .* >= 3/);
    expect(nestingLp(problem, true)).toMatch(/bar0: .* <= 2/);
    expect(nestingLp(problem, false)).not.toMatch(/General/);
  });
});
