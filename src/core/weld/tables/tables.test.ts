import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import path from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { symmetricEigen } from "../../numeric";
import { mitreState, stripOf } from "./mitreTable";
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
