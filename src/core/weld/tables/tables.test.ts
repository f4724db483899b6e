import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import path from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { luSolve, symmetricEigen } from "../../numeric";
import { mitreState, stripOf } from "./mitreTable";
import { seamsOf } from "./seamTable";
import { chordContraction, teeState } from "./teeTable";

const CHECKSUMS = {
  "mitre.json": "10c5eb06b8722bbb2a47ebc3ff383ab9624d52dca87650a3889f926d53bc48ef",
  "seam.json": "876a7940809ce31027c83d89f584d25cbcbdabef4859e7f7e38cbf581bac60fc",
  "tee.json": "a6f7b0629dff70abf5461508f86a58c4d10efaf95cb6c864a01374ce7b3fb2ff",
} as const;

interface Golden {
  kind: "miter" | "tee";
  code: string;
  E: number;
  b: number;
  t: number;
  par: number[];
  K: number[][];
  D: number[][];
  Q: number[][];
  c: number[][];
}
const goldens = JSON.parse(
  readFileSync(path.join(import.meta.dirname, "../../../../tests/reference/cases/joints.json"), "utf8"),
) as Golden[];

const stateOf = ({ kind, code, E, b, t, par }: Golden) => {
  const scale = { eMPa: E, bMm: b, tMm: t };
  const [, p1, p2, p3, p4] = par as [number, number, number, number, number];
  return kind === "miter"
    ? mitreState(code, { ...scale, hw: p1, angleDeg: p2, tk: p3, strip: stripOf(50) })
    : teeState(code, { ...scale, branchWallMm: t, beta: p1, wh: p2, bx: p3, tk: p4 });
};

describe("what the words of an order say of a mitre", () => {
  const forms = [8, 12.5, 20, 33, 45].flatMap((bt) =>
    [0.5, 1, 2].flatMap((hw) =>
      [60, 90, 135].map((angleDeg) => ({ bMm: 50, tMm: 50 / bt, eMPa: 210_000, hw, angleDeg, tk: 0.2, strip: 0.0849 })),
    ),
  );
  it("holds for every form of the table: the second face takes back part of what the first lifted, never all and never none", () => {
    for (const form of forms) {
      // Of the four lines outside, inside, one face, the other; the rest tacked. Row 3 turns about the way to the inside.
      const lifts = mitreState("1121", form).d[4 * 3 + 2] as number;
      const back = -(mitreState("1122", form).d[4 * 3 + 3] as number) / lifts;
      expect(back, JSON.stringify(form)).toBeGreaterThan(0.1);
      expect(back, JSON.stringify(form)).toBeLessThan(1);
    }
  });
  it("holds for every form of the table: beads on the other faces make a corner stiff before the inside is laid", () => {
    for (const form of forms) {
      const turn = (code: string): number => mitreState(code, form).k[6 * 5 + 5] as number;
      expect(turn("2122"), JSON.stringify(form)).toBeGreaterThan(turn("1111"));
    }
  });
});

describe("a chord whose wall contracts under a bead across it", () => {
  /** Thin-walled box by its middle lines, per mm of contraction of the whole strip under the branch: force times lever over stiffness (beam theory). */
  const beam = (bMm: number, tMm: number, wh: number, beta: number): number => {
    const [b, h] = [bMm - tMm, wh * bMm - tMm];
    return (tMm * beta * bMm * (h / 2)) / (tMm * (h ** 3 / 6 + (b * h ** 2) / 2));
  };
  it("kinks toward the bead as a beam does, within two fifths, however deep it is and however narrow the branch", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 32, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        (bt, beta, wh, bx) => {
          const [bMm, tMm] = [50, 50 / bt];
          const { c } = chordContraction({ bMm, tMm, branchWallMm: tMm, eMPa: 210_000, beta, wh, bx, tk: 0.2 });
          const share = (c[4 * 5] as number) / beam(bMm, tMm, wh, beta);
          expect(share, JSON.stringify({ bt, beta, wh, bx })).toBeGreaterThan(0.6);
          expect(share, JSON.stringify({ bt, beta, wh, bx })).toBeLessThan(1.45);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe("a joint of any form", () => {
  const digits = fc
    .array(fc.constantFrom("0", "1", "2"), { minLength: 4, maxLength: 4 })
    .map((d) => d.join(""))
    .filter((code) => code !== "0000");
  /** Of a stiffness, turns taken by the width: how soft and how stiff it is. */
  const range = (k: Float64Array, bMm: number): [number, number] => {
    const scale = (i: number): number => (i < 3 ? 1 : 1 / bMm);
    const six = [0, 1, 2, 3, 4, 5];
    const { values } = symmetricEigen(six.map((i) => six.map((j) => (k[6 * i + j] ?? 0) * scale(i) * scale(j))));
    return [Math.min(...values), Math.max(...values)];
  };
  const B = 50;
  const bt = fc.double({ min: 6, max: 60, noNaN: true });
  const share = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  it("gives, and never next to nothing: a tee on a chord of any depth, of any branch, thick or thin", () => {
    fc.assert(
      fc.property(
        digits,
        fc.record({
          bt,
          beta: share(0.1, 2.5),
          wh: share(0.25, 4),
          bx: share(0.25, 4),
          tk: share(0.04, 1),
          wall: share(0.4, 2.5),
        }),
        (code, { bt, wall, ...form }) => {
          const size = { bMm: B, tMm: B / bt, eMPa: 210_000 };
          const [softest, stiffest] = range(teeState(code, { ...size, ...form, branchWallMm: (wall * B) / bt }).k, B);
          const square = { beta: 1, wh: 1, bx: 1, tk: 0.2, branchWallMm: B / bt };
          const [, usual] = range(teeState(code, { ...size, ...square }).k, B);
          expect(softest).toBeGreaterThan(0);
          expect(stiffest / usual).toBeLessThan(200);
        },
      ),
      { numRuns: 400 },
    );
  });
  it("gives, and never next to nothing: a mitre or butt at any angle, high or low", () => {
    fc.assert(
      fc.property(
        digits,
        fc.record({ bt, hw: share(0.25, 4), angleDeg: share(20, 180), tk: share(0.04, 1) }),
        (code, { bt, ...form }) => {
          const size = { bMm: B, tMm: B / bt, eMPa: 210_000, strip: stripOf(B) };
          const [softest, stiffest] = range(mitreState(code, { ...size, ...form }).k, B);
          const [, usual] = range(mitreState(code, { ...size, hw: 1, angleDeg: 90, tk: 0.2 }).k, B);
          expect(softest).toBeGreaterThan(0);
          expect(stiffest / usual).toBeLessThan(200);
        },
      ),
      { numRuns: 400 },
    );
  });
});

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
      const gives = Float64Array.from({ length: 36 }, (_, at) => (at % 7 === 0 ? 1 : 0));
      expect(luSolve(mitreState(code, { ...size, hw, angleDeg }).k.slice(), gives, 6, 6)).toBe(true);
      return [gives[7 * 3] as number, gives[7 * 5] as number];
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
      const { k } = mitreState(code, formOf({ bt, hw: 1, tk: 0.2 }));
      const six = [0, 1, 2, 3, 4, 5];
      const gives = Float64Array.from({ length: 36 }, (_, at) => (at % 7 === 0 ? 1 : 0));
      expect(luSolve(k.slice(), gives, 6, 6)).toBe(true);
      const scaled = six.map((i) => (gives[7 * i] as number) * 210_000 * (50 / bt) * (i < 3 ? 1 : 50 ** 2));
      [1, 3, 5].forEach((way, i) => {
        // What a whole butt gives by the table, to keep the equations whole, is in every state.
        expect(Math.abs((scaled[way] as number) - (given[i] as number))).toBeLessThan(
          0.25 * (given[i] as number) + 0.1,
        );
      });
    },
  );
});

describe("the joint tables", () => {
  it.each(Object.entries(CHECKSUMS))("%s is as it was made", (file, sum) => {
    const bytes = readFileSync(path.join(import.meta.dirname, file));
    expect(createHash("sha256").update(bytes).digest("hex")).toBe(sum);
  });

  it.each(goldens.map((g) => [`${g.kind} ${g.code} ${g.par.map((p) => p.toFixed(2)).join(" ")}`, g] as const))(
    "are read as they were meant: %s",
    (_, golden) => {
      const state = stateOf(golden);
      for (const [key, want] of [
        ["k", golden.K],
        ["d", golden.D],
        ["q", golden.Q],
        ["c", golden.c],
      ] as const) {
        const flat = want.flat();
        const largest = Math.max(...flat.map(Math.abs), 1e-12);
        flat.forEach((v, i) => {
          expect(
            Math.abs((state[key][i] as number) - v) / largest,
            `${key} ${i}: ${state[key][i]}, meant ${v}`,
          ).toBeLessThan(1e-9);
        });
      }
    },
  );
});
