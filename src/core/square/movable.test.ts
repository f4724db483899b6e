import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { dot, norm, sub, type Vec2 } from "../numeric";
import { movable } from "./movable";

const nodes: Record<string, Vec2> = {
  A: { x: 0, y: 0 },
  M: { x: 500, y: 0 },
  B: { x: 1000, y: 0 },
  C: { x: 1000, y: 600 },
  D: { x: 0, y: 600 },
};
const rods = [
  ["A", "M", "B"],
  ["B", "C"],
  ["C", "D"],
  ["D", "A"],
];
const move = fc.record({
  x: fc.double({ min: -5, max: 5, noNaN: true }),
  y: fc.double({ min: -5, max: 5, noNaN: true }),
});

describe("moves that a frame of tubes can make", () => {
  it("stretch no tube and bend none, and are the nearest such moves", () => {
    fc.assert(
      fc.property(fc.record({ A: move, M: move, B: move, C: move, D: move }), (wanted) => {
        const made = movable(wanted, nodes, rods);
        const of = (p: string): Vec2 => made[p] as Vec2;
        for (const rod of rods)
          for (let i = 1; i < rod.length; i++) {
            const [p, q] = [rod[i - 1] as string, rod[i] as string];
            expect(dot(sub(of(q), of(p)), sub(nodes[q] as Vec2, nodes[p] as Vec2)) / 1000).toBeCloseTo(0, 5);
          }
        expect(of("M").y).toBeCloseTo((of("A").y + of("B").y) / 2, 5);
        // Nearest: what is left over stands square to what was made.
        const left = Object.keys(nodes).reduce(
          (s, p) => s + dot(sub((wanted as Record<string, Vec2>)[p] as Vec2, of(p)), of(p)),
          0,
        );
        expect(Math.abs(left)).toBeLessThan(1e-3);
      }),
      { numRuns: 100 },
    );
  });
  it("keep a rack, and nothing of a wish to stretch", () => {
    const rack = { A: { x: -1, y: 0 }, M: { x: -1, y: 0 }, B: { x: -1, y: 0 }, C: { x: 1, y: 0 }, D: { x: 1, y: 0 } };
    const made = movable(rack, nodes, rods);
    // A rack less what carries the frame as a whole: C and D to the right of A, M and B by as much.
    const way = (p: string): number => (made[p] as Vec2).x - (made.A as Vec2).x;
    expect([way("M"), way("B")].every((x) => Math.abs(x) < 1e-6)).toBe(true);
    expect(way("C")).toBeCloseTo(way("D"), 6);
    expect(way("C")).toBeGreaterThan(0.5);
    const stretch = { A: { x: -2, y: 0 }, M: { x: 0, y: 0 }, B: { x: 2, y: 0 }, C: { x: 2, y: 0 }, D: { x: -2, y: 0 } };
    for (const v of Object.values(movable(stretch, nodes, rods))) expect(norm(v)).toBeLessThan(1e-6);
  });
  it("are none in a frame of triangles, and never carry a frame as a whole", () => {
    const triangle = { A: nodes.A as Vec2, B: nodes.B as Vec2, C: nodes.C as Vec2 };
    const made = movable({ A: { x: 0, y: 0 }, B: { x: 7, y: 0 }, C: { x: 0, y: 3 } }, triangle, [
      ["A", "B"],
      ["B", "C"],
      ["C", "A"],
    ]);
    for (const v of Object.values(made)) expect(norm(v)).toBeLessThan(1e-5);
  });
});
