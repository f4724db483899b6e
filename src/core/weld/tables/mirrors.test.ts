import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { luSolve } from "../../numeric";
import { mitreState, stripOf } from "./mitreTable";
import { seamsOf } from "./seamTable";

/** What a joint of such a stiffness gives in each of its six directions. */
function gives(k: Float64Array): number[] {
  const out = Float64Array.from({ length: 36 }, (_, at) => (at % 7 === 0 ? 1 : 0));
  expect(luSolve(k.slice(), out, 6, 6)).toBe(true);
  return [0, 1, 2, 3, 4, 5].map((i) => out[7 * i] as number);
}

describe("a mitre of thick or thin wall that is no right angle of square tube", () => {
  // One leg as bricks against the plane of the mitre, cut edges tied along the welded faces (`script/seams/leg.ts`): what the joint gives about the way
  // inside and about the way up, over what a right angle of square tube of that wall gives. Width over wall, height over width, degrees.
  const STATES = ["2000", "0020", "2200", "2020", "2220", "2222"] as const;
  const FOUND = [
    [
      8,
      1,
      60,
      [
        [2.33, 1.34],
        [0.91, 0.81],
        [0.9, 1.26],
        [1.72, 0.78],
        [0.92, 0.96],
        [0.95, 0.51],
      ],
    ],
    [
      8,
      1,
      120,
      [
        [0.5, 0.85],
        [1.01, 1.04],
        [0.74, 0.61],
        [0.59, 1.06],
        [0.68, 0.71],
        [0.6, 0.87],
      ],
    ],
    [
      8,
      0.5,
      90,
      [
        [1.48, 0.98],
        [0.83, 0.23],
        [1.35, 0.37],
        [1.25, 0.23],
        [1.26, 0.27],
        [1.12, 0.12],
      ],
    ],
    [
      8,
      2,
      90,
      [
        [0.42, 0.7],
        [1.07, 1.55],
        [0.95, 1.47],
        [0.51, 1.58],
        [1.04, 1.76],
        [1.16, 2.38],
      ],
    ],
    [
      32,
      1,
      60,
      [
        [2.1, 1.05],
        [1.0, 0.96],
        [1.52, 1.3],
        [1.79, 0.93],
        [1.48, 1.12],
        [1.43, 0.81],
      ],
    ],
    [
      32,
      1,
      120,
      [
        [0.49, 1.02],
        [0.89, 0.98],
        [0.51, 0.71],
        [0.54, 1.01],
        [0.51, 0.8],
        [0.51, 0.97],
      ],
    ],
    [
      32,
      0.5,
      90,
      [
        [1.13, 0.92],
        [0.87, 0.26],
        [1.03, 0.3],
        [1.08, 0.26],
        [1.02, 0.25],
        [1.0, 0.14],
      ],
    ],
    [
      32,
      2,
      90,
      [
        [0.56, 0.8],
        [1.02, 1.28],
        [0.95, 1.19],
        [0.62, 1.3],
        [0.95, 1.33],
        [0.95, 1.67],
      ],
    ],
  ] as const;
  it("gives over a right angle as finite elements say, within a seventh on the whole", () => {
    const turns = (code: string, bt: number, hw: number, angleDeg: number): number[] => {
      const size = { bMm: 50, tMm: 50 / bt, eMPa: 210_000, strip: stripOf(50), tk: 0.2 };
      const [, , , inward, , upward] = gives(mitreState(code, { ...size, hw, angleDeg }).k);
      return [inward as number, upward as number];
    };
    const out = FOUND.flatMap(([bt, hw, angleDeg, states]) =>
      STATES.flatMap((code, at) => {
        const found = states[at] as readonly number[];
        const [own, square] = [turns(code, bt, hw, angleDeg), turns(code, bt, 1, 90)];
        return found.map((ratio, i) => Math.log((own[i] as number) / (square[i] as number) / ratio));
      }),
    );
    expect(Math.exp(out.reduce((sum, v) => sum + Math.abs(v), 0) / out.length)).toBeLessThan(8 / 7);
    // A whole corner of low tube turns by next to nothing in its plane.
    expect(Math.exp(Math.max(...out.map(Math.abs)))).toBeLessThan(2.1);
  });
});

describe("a straight butt", () => {
  const digits = fc.constantFrom(
    "1000",
    "0010",
    "1100",
    "1010",
    "2000",
    "0020",
    "2200",
    "2020",
    "2210",
    "2120",
    "2220",
    "2022",
  );
  const forms = fc.record({
    bt: fc.double({ min: 6, max: 60, noNaN: true }),
    hw: fc.double({ min: 0.3, max: 3, noNaN: true }),
    tk: fc.double({ min: 0.05, max: 0.6, noNaN: true }),
  });
  const formOf = ({ bt, hw, tk }: { bt: number; hw: number; tk: number }) => ({
    ...{ bMm: 50, tMm: 50 / bt, eMPa: 210_000, strip: stripOf(50) },
    ...{ hw, tk, angleDeg: 180 },
  });
  /** Its outside and inside named the other way round, or its other two faces: signs of the six directions, and which face each becomes. */
  const sides = [
    { signs: [-1, 1, 1, 1, -1, -1], faces: [1, 0, 2, 3] },
    { signs: [1, 1, -1, -1, -1, 1], faces: [0, 1, 3, 2] },
  ];
  type Side = (typeof sides)[number];
  const codeFrom = ({ faces }: Side, code: string): string => faces.map((face) => code[face]).join("");
  const signFrom = ({ signs }: Side, i: number): number => signs[i] as number;

  it("holds and moves alike from whichever side it is named", () => {
    fc.assert(
      fc.property(digits, forms, fc.constantFrom(...sides), (code, of, side) => {
        const form = formOf(of);
        const [a, b] = [mitreState(code, form), mitreState(codeFrom(side, code), form)];
        const largest = Math.max(...a.k.map(Math.abs));
        for (let i = 0; i < 6; i++) {
          for (let j = 0; j < 6; j++) {
            const there = signFrom(side, i) * signFrom(side, j) * (b.k[6 * i + j] as number);
            expect(Math.abs((a.k[6 * i + j] as number) - there)).toBeLessThan(1e-6 * largest);
          }
          side.faces.forEach((face, own) => {
            expect(a.d[4 * i + own]).toBeCloseTo(signFrom(side, i) * (b.d[4 * i + face] as number), 9);
          });
        }
      }),
      { numRuns: 200 },
    );
  });
  it("of square tube of any wall gives as much one way as the other, by whichever pair of faces it is welded", () => {
    fc.assert(
      fc.property(fc.double({ min: 6, max: 60, noNaN: true }), (bt) => {
        const form = formOf({ bt, hw: 1, tk: 0.2 });
        const turn = (code: string, way: number): number => mitreState(code, form).k[7 * way] as number;
        for (const [one, other] of [
          ["2200", "0022"],
          ["1100", "0011"],
          ["2222", "2222"],
        ] as const) {
          expect(turn(one, 3) / turn(other, 5)).toBeCloseTo(1, 2);
          expect(turn(one, 5) / turn(other, 3)).toBeCloseTo(1, 2);
        }
      }),
      { numRuns: 50 },
    );
  });
  it("has open seams alike from whichever side it is named", () => {
    fc.assert(
      fc.property(digits, forms, fc.constantFrom(...sides), (code, of, side) => {
        const form = formOf(of);
        const seams = seamsOf(code, form);
        const others = seamsOf(codeFrom(side, code), form);
        expect(others).toHaveLength(seams.length);
        for (const seam of seams) {
          const face = side.faces[seam.at >> 1] as number;
          // Ends go by the axis that a face runs along: the third for outside and inside, the first for the other two.
          const end = side.signs[seam.at < 4 ? 2 : 0] === -1 ? 1 - (seam.at & 1) : seam.at & 1;
          const other = others.find((s) => s.at === 2 * face + end);
          for (let i = 0; i < 6; i++)
            expect(seam.opens[i]).toBeCloseTo(signFrom(side, i) * (other?.opens[i] as number), 9);
          expect(seam.gives[seam.at]).toBeCloseTo(other?.gives[other.at] as number, 12);
          side.faces.forEach((there, own) => {
            expect(seam.closed[own]).toBeCloseTo(other?.closed[there] as number, 9);
          });
        }
      }),
      { numRuns: 200 },
    );
  });
  // Both legs as bricks, cut edges tied along the welded faces (`script/seams/leg.ts`), held ends and beams taken off: what the joint gives along the
  // tube, about the way inside and about the way up, times modulus and wall, turns times the width squared.
  it.each([
    [8, "2000", [39.22, 11.12, 212.98]],
    [8, "2200", [0.15, 1.98, 0.14]],
    [8, "2020", [1.66, 8.71, 8.71]],
    [32, "2000", [469.31, 19.78, 2020.06]],
    [32, "2200", [0.21, 2.54, 0.21]],
    [32, "2020", [4.14, 17.47, 17.47]],
    [45, "2000", [816.42, 22.44, 3439.77]],
    [45, "2200", [0.21, 2.59, 0.22]],
    [45, "2020", [4.88, 20.18, 20.18]],
  ] as const)(
    "gives as finite elements say, within a quarter, where the table has none: width over wall %d, faces %s",
    (bt, code, given) => {
      const scaled = gives(mitreState(code, formOf({ bt, hw: 1, tk: 0.2 })).k).map(
        (v, i) => v * 210_000 * (50 / bt) * (i < 3 ? 1 : 50 ** 2),
      );
      [1, 3, 5].forEach((way, i) => {
        // What a whole butt gives by the table, to keep the equations whole, is in every state.
        expect(Math.abs((scaled[way] as number) - (given[i] as number))).toBeLessThan(
          0.25 * (given[i] as number) + 0.1,
        );
      });
    },
  );
});
