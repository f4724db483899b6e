import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { base, job, opened, read } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import { SIDES } from "../geometry";
import { stepsInWords } from "../plan";
import { builtOf } from "./built";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import { piecesOf } from "./evaluationContext";
import { gateReading, measuring } from "./gateReading";
import { jointsInPart, ownParts, partJob } from "./partJob";
import { predict } from "./predict";
import { recordLines } from "./recordLines";

/** Two frames, the second set in on the first by 60 mm: 880 x 480 outside. */
const STACK = started("two frames stacked", { length: "1000", width: "600", in: "60", rungs: 1 });
const jobOf = (entries: Entry[], drawn: DrawnFrame = STACK) => job(entries, () => drawnPlan(drawn));
const ofUpper = (gate: "dry fit" | "tacked") => ({ ...opened(gate), part: "U2" });
/** Six lengths of a ring. */
const taped = (round: { id: string }, spans: Record<string, string>): Entry[] =>
  Object.entries(spans).map(([span, text]) => read(round.id, span, text));
const SQUARE = { AB: "880", BC: "480", CD: "880", DA: "480", AC: "1002.4", BD: "1002.4" };
const LEANS = { ...SQUARE, AC: "1004.4", BD: "1000.4" };

/** Measuring steps with what they measure and how they stand. */
function gates(entries: Entry[], drawn: DrawnFrame = STACK) {
  const e = evaluate(jobOf(entries, drawn), null);
  if (!e.structure) throw new Error("broken frame");
  const of = measuring(e.structure, e.steps);
  const words = stepsInWords(e.structure, e.steps);
  return e.steps
    .filter((s) => s.gate !== null)
    .map((s) => ({
      say: words.get(s.key)?.say,
      of: of.get(s.key)?.of ?? null,
      state: gateReading(s, e)?.state,
      ticked: e.ticked.has(s.key),
    }));
}

describe("a sub-assembly that is measured by itself", () => {
  it("is asked for by its name at its own gates, as a ring where it is one; the frame's own ring and what joins them stay the frame's", () => {
    expect(ownParts(drawnPlan(STACK))).toEqual([{ id: "U2", name: "upper frame" }]);
    expect(gates([]).map((g) => [g.of, g.say])).toEqual([
      [null, "Measure four sides and both diagonals, dry"],
      [null, "Measure across and close the error while the joints still turn"],
      [null, "Measure again, all tacked"],
      ["U2", "Measure four sides and both diagonals of upper frame, dry"],
      ["U2", "Measure across upper frame and close its error while its joints still turn"],
      ["U2", "Measure upper frame again, all tacked"],
      [null, "Measure four sides and both diagonals, dry, and where upper frame sits"],
      [null, "Measure across, each joint on one tack"],
      [null, "Measure again, all tacked"],
      [null, "Measure cold: four sides and both diagonals, four corner heights"],
    ]);
  });
  it("is read at its own gates alone: its readings do the frame's step no good, and the frame's not its", () => {
    const dry = ofUpper("dry fit");
    const read2 = gates([dry, ...taped(dry, SQUARE)]);
    expect(read2.filter((g) => g.state === "read").map((g) => g.say)).toEqual([
      "Measure four sides and both diagonals of upper frame, dry",
    ]);
    expect(read2.filter((g) => g.ticked)).toHaveLength(1);
    const whole = opened("dry fit");
    const frame = { AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166.2", BD: "1166.2" };
    const first = gates([whole, ...taped(whole, frame)]).filter((g) => g.state === "read");
    expect(first.map((g) => g.say)).toEqual(["Measure four sides and both diagonals, dry"]);
  });
  it("has its own lean found and its own push told, and leaves what is said of the frame as it was", () => {
    const dry = ofUpper("dry fit");
    const own = jobOf([dry, ...taped(dry, LEANS)]);
    const part = partJob(own, "U2");
    if (!part) throw new Error("no such part");
    const e = evaluate(part, null);
    expect(e.structure?.quad).toMatchObject({ lengthMm: 880, widthMm: 480 });
    const [round] = e.frameRounds;
    expect(round?.square?.diagonalDifferenceMm?.value).toBeCloseTo(4, 6);
    expect(Math.abs(round?.square?.nudges[0]?.shiftMm ?? 0)).toBeGreaterThan(1);
    const whole = evaluate(own, null);
    expect(whole.frameRounds).toEqual([]);
    expect(whole.summary).toEqual(evaluate(jobOf([]), null).summary);
    expect(whole.parts.get("U2")?.[0]?.square?.diagonalDifferenceMm?.value).toBeCloseTo(4, 6);
    // Rounds are counted for each by itself, and the record says whose they are.
    const after = opened("dry fit");
    const lines = recordLines(jobOf([dry, ...taped(dry, LEANS), after]), whole.structure, whole.steps);
    expect(lines[0]?.text).toBe("Round 1 of upper frame at the gate: dry fit");
    expect(lines[1]?.detail).toMatch(/^upper frame, dry fit 1, /);
    expect(lines.at(-1)?.text).toBe("Round 1 at the gate: dry fit");
  });
  it("gives way no more once its own joints are tacked, whatever they are called in the order", () => {
    const { steps } = evaluate(jobOf([]), null);
    const { structure } = builtOf(drawnPlan(STACK));
    const upper = new Set(
      structure?.joints.filter((j) => j.a.length === 2 && /^[E-H]/.test(j.a) && j.kind === "mitre").map((j) => j.id),
    );
    expect(upper.size).toBe(4);
    const ticks = steps.flatMap((s): Entry[] =>
      s.id.do === "tack" && upper.has(s.joint ?? "") ? [{ kind: "tick", ...base(), step: s.id, done: true }] : [],
    );
    const dry = ofUpper("tacked");
    const lockedAfter = (n: number): boolean | undefined => {
      const part = partJob(jobOf([...ticks.slice(0, n), dry, ...taped(dry, SQUARE)]), "U2");
      return part ? evaluate(part, null).frameRounds[0]?.locked : undefined;
    };
    // Three hinges are stiff: the first corner that has its second tack locks all four.
    expect([0, 3, 4, 5, ticks.length].map(lockedAfter)).toEqual([false, false, false, true, true]);
  });
  it("is set up as its pieces are cut with the whole, and to the drawing where those are cut as drawn", () => {
    for (const [long, wide, face, units] of [
      ["1000", "600", 40, "mm"],
      ["1800", "700", 25, "inch-fraction"],
    ] as const) {
      const drawn = started("two frames stacked", { length: long, width: wide, in: "60" }, squareTube(face, 2));
      const own = job([], () => ({ ...drawnPlan(drawn), units }));
      const whole = evaluate(own, predict(own.plan)?.prediction ?? null);
      const part = partJob(own, "U2");
      if (!part) throw new Error("no such part");
      const asDrawn = evaluate(part, null);
      expect(asDrawn.setUp).toBeNull();
      const e = evaluate(part, null, piecesOf(whole));
      const { quad } = e.structure ?? {};
      if (!quad || !e.setUp) throw new Error("no set-up");
      for (const side of SIDES) {
        const piece = whole.cut.find((c) => c.members.includes(quad.sides[side]));
        const length = side === "AB" || side === "CD" ? quad.lengthMm : quad.widthMm;
        const added = (piece?.cutLongPointMm ?? Number.NaN) - length;
        expect(added).toBeGreaterThan(0.1);
        // Two of a pair that are cut unequal share what they differ by.
        expect(e.setUp.targets[side] - length).toBeCloseTo(added, 1);
      }
      // It is a rectangle, like its pieces.
      expect(e.setUp.targets.AC).toBeCloseTo(e.setUp.targets.BD, 6);
      const fixed = evaluate({ ...own, plan: { ...own.plan, fixed: whole.structure?.members.map((m) => m.id) } }, null);
      expect(evaluate(part, null, piecesOf(fixed)).setUp).toBeNull();
    }
  });
  it("has every joint between its members under one name of its own, on any stack of any tube", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 500, max: 2500 }),
        fc.integer({ min: 500, max: 1500 }),
        fc.constantFrom(0, 40, 75),
        fc.integer({ min: 0, max: 3 }),
        fc.constantFrom(25, 40, 60),
        (long, wide, inset, rungs, face) => {
          const drawn = started(
            "two frames stacked",
            { length: String(long), width: String(wide), in: String(inset), rungs },
            squareTube(face, 3),
          );
          const part = partJob(jobOf([], drawn), "U2");
          const whole = builtOf(drawnPlan(drawn)).structure;
          const own = part && builtOf(part.plan).structure;
          if (!whole || !own) throw new Error("no such part");
          expect(own.quad?.lengthMm).toBeCloseTo(long - 2 * inset, 6);
          expect(own.quad?.widthMm).toBeCloseTo(wide - 2 * inset, 6);
          const names = jointsInPart(whole, own);
          expect([...names.values()].sort()).toEqual(own.joints.map((j) => j.id).sort());
          // Corner by corner it is the ring that stands there in the whole.
          for (const [id, joint] of names) {
            const [p, q] = [whole.joints.find((j) => j.id === id), own.joints.find((j) => j.id === joint)];
            for (const i of [0, 1, 2]) expect(p?.at[i]).toBeCloseTo(q?.at[i] ?? Number.NaN, 6);
          }
          // And its corners are tacked across, not one beside the other.
          const { steps } = evaluate(jobOf([], drawn), null);
          const first = steps.flatMap((s) => (s.id.do === "tack" ? (names.get(s.joint ?? "") ?? []) : [])).slice(0, 2);
          const at = first.map((id) => own.joints.find((j) => j.id === id)?.at);
          expect(Math.abs((at[0]?.[0] ?? 0) - (at[1]?.[0] ?? 0))).toBeGreaterThan(face);
          expect(Math.abs((at[0]?.[1] ?? 0) - (at[1]?.[1] ?? 0))).toBeGreaterThan(face);
        },
      ),
      { numRuns: 25 },
    );
  });
});
