import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bulgeAt, turnedEdge } from "./straightedge";

describe("a straightedge turned over", () => {
  it("tells surface and edge apart, whatever both are", () => {
    const gaps = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 3, maxLength: 3 });
    fc.assert(
      fc.property(gaps, gaps, (surface, edge) => {
        const found = turnedEdge(
          surface.map((s, i) => s + (edge[i] ?? 0)),
          surface.map((s, i) => s - (edge[i] ?? 0)),
        );
        found.surfaceMm.forEach((v, i) => {
          expect(v).toBeCloseTo(surface[i] ?? Number.NaN, 9);
        });
        found.edgeMm.forEach((v, i) => {
          expect(v).toBeCloseTo(edge[i] ?? Number.NaN, 9);
        });
      }),
    );
  });
  it("bulges between the places it was tested at in a straight line, and keeps its last beyond", () => {
    const edge = [
      { xMm: 100, bulgeMm: 0.2 },
      { xMm: 500, bulgeMm: -0.2 },
    ];
    expect(bulgeAt(edge, 300)).toBeCloseTo(0, 12);
    expect([bulgeAt(edge, 0), bulgeAt(edge, 900)]).toEqual([0.2, -0.2]);
    expect(bulgeAt(undefined, 300)).toBe(0);
  });
});
