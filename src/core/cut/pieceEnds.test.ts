import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube } from "../../../tests/support/drawnFrames";
import { mitred } from "../../../tests/support/mitred";
import { resolveStructure } from "../frame";
import { pieceEnd } from "./pieceEnds";

describe("the cut at a piece's end", () => {
  it("of a mitre of equal tubes is half of what is left of a right angle: 90 less half the included angle (closed form)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 150 }), fc.integer({ min: 20, max: 80 }), (included, width) => {
        const { sawFromSquareDeg } = mitred(included, width, width);
        for (const deg of sawFromSquareDeg) expect(Math.abs(deg)).toBeCloseTo(90 - included / 2, 6);
      }),
      { numRuns: 40 },
    );
  });
  it("of unequal tubes adds up to the included angle, the wider one cut nearer to square", () => {
    const { cutToAxisDeg } = mitred(90, 60, 30);
    expect(cutToAxisDeg[0] + cutToAxisDeg[1]).toBeCloseTo(90, 9);
    expect(Math.tan((cutToAxisDeg[0] * Math.PI) / 180)).toBeCloseTo(2, 9);
  });
  it("is told by the saw's own scale, with the other way and the corner beside", () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 150 }), (included) => {
        const a = (included * Math.PI) / 180;
        const frame = drawn({
          P: [
            [0, 0, 20],
            [900, 0, 20],
          ],
          Q: [
            [0, 0, 20],
            [900 * Math.cos(a), 900 * Math.sin(a), 20],
          ],
        });
        const { structure } = resolveStructure(frame);
        const m = structure.members.find((x) => x.id === "P");
        if (!m) throw new Error("a member expected");
        const first = (words: string | null) => Number(/^([\d.]+)°/.exec(words ?? "")?.[1]);
        const [square, line] = [pieceEnd(structure, m, "from"), pieceEnd(structure, m, "from", "line")];
        expect(first(square.words)).toBeCloseTo(90 - included / 2, 1);
        expect(first(line.words)).toBeCloseTo(included / 2, 1);
        expect(line.words).toMatch(/from the tube's line/);
        expect(first(square.beside)).toBeCloseTo(first(line.words), 9);
        expect(first(line.beside)).toBeCloseTo(first(square.words), 9);
        const corner = /the corner is ([\d.]+)°, half of it ([\d.]+)°/.exec(square.beside ?? "");
        expect(Number(corner?.[1])).toBeCloseTo(included, 1);
        expect(Number(corner?.[2])).toBeCloseTo(included / 2, 1);
      }),
      { numRuns: 30 },
    );
  });
  it("says square, mitre with its long edge, notch round a tube, and what is beyond a saw", () => {
    const of = (frame: Parameters<typeof resolveStructure>[0], id: string, end: "from" | "to") => {
      const { structure } = resolveStructure(frame);
      const m = structure.members.find((x) => x.id === id);
      if (!m) throw new Error(id);
      return pieceEnd(structure, m, end).words;
    };
    const corner = drawn({
      P: [
        [20, 20, 20],
        [980, 20, 20],
      ],
      Q: [
        [20, 20, 20],
        [20, 580, 20],
      ],
    });
    expect(of(corner, "P", "to")).toBe("square");
    expect(of(corner, "P", "from")).toMatch(/^45° from square, long edge outside$/);
    const onRound = drawn({ R: [[0, 0, 0], [1000, 0, 0], "S2"], M: [[500, 0, 0], [500, 600, 0], "S1"] }, [
      squareTube(30, 2),
      roundTube(60, 3, "S2"),
    ]);
    expect(of(onRound, "M", "from")).toMatch(/^notch to a round of 60 mm at 90°: see the template$/);
  });
});
