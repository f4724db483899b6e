import { describe, expect, it } from "vitest";
import { round, SQUARE } from "../../../tests/support/jobs";
import { sized } from "../../../tests/support/plans";
import { CORNERS, type Span } from "../geometry";
import { SHELF } from "../instruments";
import { leanNoise, lossOf, predicted } from "../shrink";
import { length } from "../units";
import type { Entry } from "./entrySchema";
import { type Evaluation, evaluate as evaluateWith } from "./evaluate";
import type { Job } from "./jobSchema";
import { newPlan } from "./plan";
import type { Plan } from "./planSchema";
import { predict } from "./predict";
import { CLOSE } from "./tickId";
import { nudgeWords } from "./words";

let n = 0;
const id = () => `00000000-0000-4000-8000-${String(++n).padStart(12, "0")}`;
const base = () => ({ id: id(), at: "2026-11-24T08:00:00.000Z", origin: "test" });
const plan = newPlan("Test frame", "mm");
const evaluate = (j: Job) => evaluateWith(j, predict(j.plan)?.prediction ?? null);
const job = (entries: Entry[] = [], change: (p: Plan) => Plan = (p) => p): Job => ({
  id: id(),
  createdAt: "2026-11-24T08:00:00.000Z",
  version: 1,
  plan: change(plan),
  instruments: [...SHELF],
  entries,
});
const lossOfSide = (e: Evaluation, span: Span): number => {
  const change = e.prediction && predicted(e.prediction, { kind: "span", span });
  return change ? lossOf(change).value : 0;
};

describe("evaluation", () => {
  it("takes a job from frame to closed", () => {
    const stages: string[] = [];
    const entries: Entry[] = [];
    const look = () =>
      stages.push(`${evaluate(job(entries)).summary.stage}: ${evaluate(job(entries)).summary.verdict}`);
    look();
    entries.push(...round("bed", { R1: "0", R2: "0.1", R3: "0", R4: "0.2" }, "height-gauge"));
    look();
    entries.push(...round("dry fit", SQUARE));
    look();
    const first = evaluate(job()).steps[0];
    entries.push({ kind: "tick", ...base(), step: first?.id ?? CLOSE, done: true });
    look();
    entries.push(...round("cold", { AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166", BD: "1166" }));
    look();
    const cold = entries.findLast((e) => e.kind === "round");
    for (const c of CORNERS)
      entries.push({
        kind: "reading",
        ...base(),
        roundId: cold?.id ?? "",
        instrumentId: "feeler",
        what: { kind: "height", at: c },
        value: length(c === "D" ? "0.4" : "0"),
      });
    look();
    entries.push({ kind: "tick", ...base(), step: CLOSE, done: true });
    look();
    entries.push({ kind: "tick", ...base(), step: CLOSE, done: false });
    look();
    expect(stages).toEqual([
      "frame: not measured",
      "bed: pass",
      "square: pass",
      "weld: pass",
      "check: not measured",
      "check: pass",
      "log: pass",
      "check: pass",
    ]);
  });
  it("sets up large by what the weld takes, and nudges toward that", () => {
    const e = evaluate(job(round("dry fit", SQUARE)));
    const loss = lossOfSide(e, "AB");
    expect(loss).toBeGreaterThan(0.1);
    expect(e.setUp?.targets.AB).toBeCloseTo(1000 + loss, 3);
    // Pieces are cut to what is set up: opposite ones alike.
    const pair = ((e.setUp?.targets.AB ?? 0) + (e.setUp?.targets.CD ?? 0)) / 2;
    expect(e.cut[0]?.cutLongPointMm).toBeCloseTo(pair, 9);
    expect(pair).toBeCloseTo(1000 + (loss + lossOfSide(e, "CD")) / 2, 3);
    // The likely lean is a fifth of its band: noise, not aimed at.
    const lean = e.prediction && leanNoise(e.prediction);
    expect(lean?.value).toBeLessThan(-0.1);
    expect(Math.abs(e.setUp?.diagonalDifferenceMm ?? 1)).toBeLessThan(0.1);
  });
  it("holds measured loss against predicted, and says when the tape cannot tell", () => {
    const cold = { AB: "1000.1", BC: "600.1", CD: "1000.1", DA: "600.1", AC: "1166", BD: "1166" };
    const coarse = evaluate(
      job([...round("dry fit", SQUARE, "tape-inch"), ...round("cold", cold, "tape-inch")]),
    ).losses;
    expect(coarse[0]?.measured?.value).toBeCloseTo(0.4, 9);
    expect(coarse[0]?.agrees).toBe("cannot tell");
    const fine = evaluate(job([...round("dry fit", SQUARE, "calliper"), ...round("cold", cold, "calliper")])).losses;
    expect(fine[0]?.agrees).toBe("inside the band");
    expect(evaluate(job(round("dry fit", SQUARE))).losses[0]?.measured).toBeNull();
  });
  it("holds the change of the diagonals and the twist against their bands", () => {
    const cold = { AC: "1166.2", BD: "1166.4", zA: "0.3", zB: "0", zC: "0.3", zD: "0" };
    const shapes = (entries: Entry[]) => Object.fromEntries(evaluate(job(entries)).shapes.map((x) => [x.id, x]));
    const fine = shapes([...round("dry fit", SQUARE, "calliper"), ...round("cold", cold, "calliper")]);
    expect(fine.square?.measured?.value).toBeCloseTo(-0.2 - (Number(SQUARE.AC) - Number(SQUARE.BD)), 9);
    expect(fine.square?.agrees).toBe("inside the band");
    expect(fine.twist?.measured?.value).toBeCloseTo(0.6, 9);
    const far = shapes([
      ...round("dry fit", SQUARE, "calliper"),
      ...round("cold", { ...cold, AC: "1176" }, "calliper"),
    ]);
    expect(far.square?.agrees).toBe("outside the band");
    // Just beyond the band, by less than the tape may be off.
    const just = Number(SQUARE.AC) - Number(SQUARE.BD) + (fine.square?.predicted.high ?? 0) + 0.1;
    const edge = { ...cold, AC: String(Number(cold.BD) + just) };
    const coarse = shapes([...round("dry fit", SQUARE), ...round("cold", edge)]);
    expect(coarse.square?.agrees).toBe("cannot tell");
    expect(shapes(round("dry fit", SQUARE)).square).toMatchObject({ measured: null, agrees: null });
  });
  it("has no frame, cut or steps while the plan cannot be built, and still keeps the rounds of the bed", () => {
    const e = evaluate(job(round("bed", { R1: "0" }, "height-gauge"), (p) => sized(p, { length: length("0") })));
    expect(e).toMatchObject({ structure: null, cut: [], steps: [], limits: [] });
    expect(e.bedRounds).toHaveLength(1);
    expect(e.summary.stage).toBe("bed");
  });
  it("gives a reason instead of a shape for readings that no frame could have", () => {
    const e = evaluate(job(round("dry fit", { ...SQUARE, AC: "2000" })));
    expect(e.frameRounds[0]?.square).toBeNull();
    expect(nudgeWords(e.frameRounds[0] ?? { square: null, impossible: null }, "mm")).toMatchObject({
      act: "measure",
      say: "Read AC again.",
    });
  });
  it("asks for more when three of six are read, and does not move anything on contradicting readings", () => {
    const three = evaluate(job(round("dry fit", { AB: "1000.5", BC: "600.5", AC: "1167" }))).frameRounds[0];
    expect(three && nudgeWords(three, "mm")).toMatchObject({ act: "measure", say: "Read CD, DA, BD." });
    const odd = evaluate(job(round("dry fit", { ...SQUARE, AC: "1180" }))).frameRounds[0];
    expect(odd && nudgeWords(odd, "mm").say).toMatch(/Measure again before/);
    expect(odd?.verdicts.find((v) => v.limit.id === "square")?.result?.verdict).toBe("too close to call");
  });
  it("says the slide with its band and the habit beside it", () => {
    const leaning = job(round("dry fit", { ...SQUARE, AC: "1171", BD: "1163" }));
    const lean = evaluateWith(leaning, null).frameRounds[0];
    const words = lean && nudgeWords(lean, "mm");
    // 8 mm apart on 1000 x 600: slide 8 x 1167 / 2000 = 4.7 mm, the habit says 4.
    expect(words).toMatchObject({ act: "slide", say: "Slide side CD: push corner C toward D by 4.7 mm." });
    expect(words?.why).toMatch(/Half the difference of the diagonals would be 4\.0 mm and leave 14 %/);
    // What the order pulls AC shorter than BD is noise: the slide is that of the drawing.
    expect(nudgeWords(evaluate(leaning).frameRounds[0] ?? { square: null, impossible: null }, "mm").say).toMatch(
      /by 4\.7 mm/,
    );
  });
});
