import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evaluate, job, opened, read } from "../../../tests/support/jobs";
import { SPANS, type Span } from "../geometry";
import { distance, type Vec2 } from "../numeric";
import { length } from "../units";
import type { ReadingEntry } from "./entrySchema";
import type { Plan } from "./planSchema";
import { nudgeWords, placeWords } from "./words";

/** A frame of 1000 by 600 that leans by so much at its top, and is so much longer below. */
const leaning = (lean: number, taper = 0): Record<string, Vec2> => ({
  A: { x: 0, y: 0 },
  B: { x: 1000 + taper, y: 0 },
  C: { x: 1000 + lean, y: 600 },
  D: { x: lean, y: 600 },
});

const span = (q: Record<string, Vec2>, s: Span): number =>
  distance(q[s[0] as string] as Vec2, q[s[1] as string] as Vec2);

/** A cross as far inside both edges, by the two offset lines crossed (not by the product's own formula). */
function cross(q: Record<string, Vec2>, at: string, inMm: number): Vec2 {
  const order = ["A", "B", "C", "D"];
  const i = order.indexOf(at);
  const line = (from: Vec2, to: Vec2) => {
    const l = distance(from, to);
    const n = { x: -(to.y - from.y) / l, y: (to.x - from.x) / l };
    return { n, c: n.x * from.x + n.y * from.y + inMm };
  };
  const p = (k: number): Vec2 => q[order[(k + 4) % 4] as string] as Vec2;
  const [a, b] = [line(p(i - 1), p(i)), line(p(i), p(i + 1))];
  const det = a.n.x * b.n.y - a.n.y * b.n.x;
  return { x: (a.c * b.n.y - a.n.y * b.c) / det, y: (a.n.x * b.c - a.c * b.n.x) / det };
}

const tapes = (values: (s: Span) => number, spans: readonly Span[] = SPANS, more: Partial<ReadingEntry> = {}) => {
  const r = opened("dry fit");
  return [r, ...spans.map((s) => read(r.id, s, values(s).toFixed(4), more))];
};
const roundOf = (entries: ReturnType<typeof tapes>, plan?: (p: Plan) => Plan) => {
  const [round] = evaluate(job(entries, plan)).frameRounds;
  if (!round?.square) throw new Error("a round expected");
  return { ...round, square: round.square };
};

describe("diagonals taped between crosses set in from the corners", () => {
  it("give the same shape and the same push as corner to corner", () => {
    const lean = fc.double({ min: -12, max: 12, noNaN: true });
    fc.assert(
      fc.property(lean, fc.constantFrom(10, 15, 25.4, 60), fc.double({ min: -3, max: 3, noNaN: true }), (d, s, t) => {
        const q = leaning(d, t);
        const marks = Object.fromEntries(Object.keys(q).map((c) => [c, cross(q, c, s)]));
        const setIn = { taken: { setIn: length(String(s)) } };
        const [r, ...sides] = tapes((x) => span(q, x), ["AB", "BC", "CD", "DA"]);
        const diagonals = (["AC", "BD"] as const).map((x) =>
          read((r as { id: string }).id, x, span(marks, x).toFixed(4), setIn),
        );
        const byMarks = roundOf([r, ...sides, ...diagonals] as ReturnType<typeof tapes>);
        const byCorners = roundOf(tapes((x) => span(q, x)));
        expect(byMarks.square.shearMmPerM?.value).toBeCloseTo(byCorners.square.shearMmPerM?.value ?? 0, 2);
        expect(byMarks.square.nudges[0]?.shiftMm).toBeCloseTo(byCorners.square.nudges[0]?.shiftMm ?? 0, 1);
        expect(byMarks.square.diagonalDifferenceMm?.value).toBeCloseTo(span(q, "AC") - span(q, "BD"), 1);
        // Nearer marks say a little less of the lean.
        expect(byMarks.square.diagonalDifferenceMm?.u).toBeGreaterThan(byCorners.square.diagonalDifferenceMm?.u ?? 0);
      }),
      { numRuns: 25 },
    );
  });
});

describe("marks that lie too deep", () => {
  it("are read as they are, and bring nothing down", () => {
    const setIn = { taken: { setIn: length("300") } };
    const round = roundOf(tapes((s) => span(leaning(0), s), SPANS, setIn));
    expect(round.square.diagonalDifferenceMm?.value).toBeCloseTo(0, 6);
    expect(Number.isFinite(round.square.diagonalDifferenceMm?.u)).toBe(true);
  });
});

describe("two diagonals alone", () => {
  const two = (d: number) => roundOf(tapes((s) => span(leaning(d), s), ["AC", "BD"]));
  it("give a push by sides as drawn, no corner angles, and ask for the sides", () => {
    const round = two(2);
    expect(round.square.bySides).toBe(true);
    expect(round.square.angleDeg).toBeNull();
    expect(round.square.nudges[0]?.shiftMm).toBeCloseTo(2, 2);
    const words = nudgeWords(round, "mm");
    expect(words).toMatchObject({
      act: "slide",
      say: expect.stringMatching(/^Slide side CD: push corner C toward D by 2\.0 mm/),
    });
    expect(words.why).toMatch(/two diagonals alone, the sides as drawn/);
    // Nothing is known of corners that hang on sides nobody read.
    expect(round.verdicts.find((v) => v.limit.kind === "corner")?.result ?? null).toBeNull();
  });
  it("with sides as they were cut, where all were measured", () => {
    const cut = opened("cut");
    const pieces = (["AB", "BC", "CD", "DA"] as const).map((member) =>
      read(cut.id, { kind: "piece", member }, String(span(leaning(0), member))),
    );
    const round = roundOf([cut, ...pieces, ...tapes((s) => span(leaning(2), s), ["AC", "BD"])] as ReturnType<
      typeof tapes
    >);
    expect(nudgeWords(round, "mm").why).toMatch(/sides as they were cut/);
  });
  it("that ask for a large push are asked about first; read twice they are not", () => {
    const words = nudgeWords(two(9), "mm");
    expect(words).toMatchObject({
      act: "measure",
      say: expect.stringMatching(/Is it so far off\? Read AB, BC, CD first/),
    });
    expect(words.why).toMatch(/If they are right, slide side CD: push corner C toward D by 9\.0 mm/);
    const r = opened("dry fit");
    const twice = (["AC", "BD"] as const).flatMap((s) => {
      const text = span(leaning(9), s).toFixed(2);
      return [read(r.id, s, text), read(r.id, s, text, { again: true })];
    });
    expect(nudgeWords(roundOf([r, ...twice] as ReturnType<typeof tapes>), "mm").act).toBe("slide");
  });
  it("that do not go with the sides say so instead of a push", () => {
    const round = roundOf(tapes((s) => span(leaning(0), s) + (s === "AC" ? 50 : 40), ["AC", "BD"]));
    expect(nudgeWords(round, "mm").why).toMatch(/do not go with the sides as drawn/);
  });
  it("five tapes that ask for a large push are a question too; six are an order", () => {
    const five = roundOf(tapes((s) => span(leaning(9), s), ["AB", "BC", "CD", "DA", "AC"]));
    expect(nudgeWords(five, "mm")).toMatchObject({ act: "measure", say: expect.stringMatching(/Read BD first/) });
    expect(nudgeWords(roundOf(tapes((s) => span(leaning(9), s))), "mm").act).toBe("slide");
  });
});

describe("real corners", () => {
  it("are no misread tape: steps and radii of half a millimetre pass, five millimetres do not", () => {
    const off = (mm: number) =>
      roundOf(tapes((s) => span(leaning(0), s) + (s === "AC" ? mm : s === "AB" ? -mm / 4 : 0))).square.fit;
    expect(off(1.2).agree).toBe(true);
    expect(off(8).agree).toBe(false);
  });
});

describe("a point beside the frame", () => {
  const plan = (p: Plan): Plan => ({ ...p, points: [{ id: "P1", x: length("1500"), y: length("300") }] });
  const from = (q: Record<string, Vec2>, corner: string): string =>
    distance(q[corner] as Vec2, { x: 1500, y: 300 }).toFixed(3);
  it("is taped to and compared with where the drawing has it, and is never told to move", () => {
    const q = leaning(0);
    const entries = tapes((s) => span(q, s));
    const id = (entries[0] as { id: string }).id;
    const one = evaluate(job([...entries, read(id, "P1-B", String(Number(from(q, "B")) + 3))], plan)).frameRounds[0];
    expect(one?.general?.apart).toMatchObject([{ offMm: expect.closeTo(3, 2) }]);
    const fixed = ["A", "B", "C"].map((c) => read(id, `P1-${c}`, from(leaning(6), c)));
    const { frameRounds, places } = evaluate(job([...entries, ...fixed], plan));
    const [round] = frameRounds;
    expect(round?.general?.taps.map((t) => t.place)).not.toContain("P1");
    expect(round?.general?.bestFit?.moves.P1).toBeUndefined();
    expect(round && places && placeWords(round, places, "mm").say).not.toMatch(/P1:/);
  });
  it("has a name of its own", () => {
    const named = { ...plan(job([]).plan), points: [{ id: "A", x: length("1"), y: length("1") }] };
    expect(evaluate(job([], () => named as Plan)).places?.points).toEqual({});
  });
});
