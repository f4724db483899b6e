import { describe, expect, it } from "vitest";
import { turnedEdge } from "../instruments";
import { splitTwist, turnedGaps } from "./tableTwist";

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
