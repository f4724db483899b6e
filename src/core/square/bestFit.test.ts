import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PANELS } from "../../../tests/support/networks";
import { normalDraw, seeded, type Vec2 } from "../numeric";
import { bestFit } from "./bestFit";

describe("rigid best fit", () => {
  it("undoes any turn and shift, and moves nothing then", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        (turn, shift) => {
          const [c, s] = [Math.cos(turn), Math.sin(turn)];
          const moved = Object.fromEntries(
            Object.entries(PANELS).map(([n, p]) => [n, { x: c * p.x - s * p.y + shift, y: s * p.x + c * p.y - shift }]),
          );
          expect(bestFit(moved, PANELS).worst?.mm).toBeLessThan(1e-8);
        },
      ),
    );
  });
  it("leaves less to move, in squares, than any other turn", () => {
    const random = seeded(8);
    const off = Object.fromEntries(
      Object.entries(PANELS).map(([n, p]) => [n, { x: p.x + 4 * normalDraw(random), y: p.y + 4 * normalDraw(random) }]),
    );
    const sum = (moves: Record<string, Vec2>): number =>
      Object.values(moves).reduce((t, m) => t + m.x ** 2 + m.y ** 2, 0);
    const best = sum(bestFit(off, PANELS).moves);
    const centre = (of: Record<string, Vec2>, k: "x" | "y"): number =>
      Object.values(of).reduce((t, p) => t + p[k], 0) / Object.keys(of).length;
    for (const turn of [-0.01, -0.001, 0.001, 0.01]) {
      const th = bestFit(off, PANELS).turnRad + turn;
      const moves = Object.fromEntries(
        Object.entries(off).map(([n, p]) => {
          const d = { x: p.x - centre(off, "x"), y: p.y - centre(off, "y") };
          const q = PANELS[n] as Vec2;
          return [
            n,
            {
              x: q.x - centre(PANELS, "x") - (Math.cos(th) * d.x - Math.sin(th) * d.y),
              y: q.y - centre(PANELS, "y") - (Math.sin(th) * d.x + Math.cos(th) * d.y),
            },
          ];
        }),
      );
      expect(sum(moves)).toBeGreaterThan(best);
    }
  });
});
