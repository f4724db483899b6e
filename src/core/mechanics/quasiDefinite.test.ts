import { describe, expect, it } from "vitest";
import { luSolve, seeded } from "../numeric";
import { solvingRoom } from "./kernel/kernelRoom";
import { plainRoom, roomFor } from "./quasiDefinite";

/** Positive for lines, negative for seams, anything between them: no pivots needed, whatever the order. */
function quasiDefinite(m: number, random: () => number): number[][] {
  const seam = Array.from({ length: m }, () => random() < 0.5);
  const a = seam.map(() => seam.map(() => 0));
  for (let i = 0; i < m; i++)
    for (let j = 0; j <= i; j++) {
      const v = i === j ? (seam[i] ? -1 : 1) * (m + random()) : seam[i] === seam[j] ? random() - 0.5 : 4 * random() - 2;
      (a[i] as number[])[j] = v;
      (a[j] as number[])[i] = v;
    }
  return a;
}

describe("equations that need no pivots", () => {
  it.each([1, 2, 7, 8, 33, 60])("come out alike by the kernel, the plain way and elimination with pivots: %i", (m) => {
    const random = seeded(m);
    const a = quasiDefinite(m, random);
    const b = Float64Array.from({ length: m }, random);
    const kernel = solvingRoom(64);
    expect(kernel).not.toBeNull();
    const answers = [kernel, plainRoom(64)].map((room) => {
      if (!room) return null;
      a.forEach((row, i) => {
        room.a.set(row.slice(0, i + 1), i * 64);
      });
      room.b.set(b);
      expect(room.solve(m, 1e-12)).toBe(true);
      return room.b.slice(0, m);
    });
    expect(answers[0]).toEqual(answers[1]);
    const pivoted = b.slice();
    luSolve(Float64Array.from(a.flat()), pivoted, m, 1);
    answers[0]?.forEach((v, i) => {
      expect(v).toBeCloseTo(pivoted[i] as number, 9);
    });
  });

  it("are said to be singular where two are the same", () => {
    for (const room of [solvingRoom(2), plainRoom(2)]) {
      room?.a.set([1, 0, 1, 1]);
      expect(room?.solve(2, 1e-12)).toBe(false);
    }
  });

  it("find room however many there are", () => {
    expect(roomFor(10).size).toBeGreaterThanOrEqual(10);
    expect(roomFor(500).size).toBeGreaterThanOrEqual(500);
  });
});
