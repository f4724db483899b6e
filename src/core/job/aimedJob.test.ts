import { describe, expect, it } from "vitest";
import { job, opened, read } from "../../../tests/support/jobs";
import { simulationText } from "../../formats/simulation";
import { length } from "../units";
import { evaluate } from "./evaluate";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

/** +0/-1.6 on the length. */
const oneSided = (p: Plan): Plan => {
  if (p.limits.kind !== "own") throw new Error("own limits expected");
  return { ...p, limits: { ...p.limits, length: { lower: length("-1.6"), upper: length("0") } } };
};
const of = (j: ReturnType<typeof job>) => evaluate(j, predict(j.plan)?.prediction ?? null);
const line = (e: ReturnType<typeof of>, member: string) => e.cut.find((p) => p.members.includes(member));

describe("limits on one side only", () => {
  it("are aimed at in their middle: cut list, set-up and square alike", () => {
    const [even, aimed] = [of(job([])), of(job([], oneSided))];
    expect(line(aimed, "AB")?.aimMm).toBeCloseTo(-0.8, 9);
    expect(line(aimed, "AB")?.allowanceMm?.value).toBeCloseTo(line(even, "AB")?.allowanceMm?.value ?? 0, 6);
    expect(line(aimed, "AB")?.cutLongPointMm).toBeCloseTo((line(even, "AB")?.cutLongPointMm ?? 0) - 0.8, 6);
    expect(line(aimed, "BC")?.cutLongPointMm).toBeCloseTo(line(even, "BC")?.cutLongPointMm ?? 0, 6);
    expect(aimed.setUp?.targets.AB).toBeCloseTo((even.setUp?.targets.AB ?? 0) - 0.8, 3);
    const told = aimed.prediction?.setUp.targets.find((t) => t.id.kind === "span" && t.id.span === "AB");
    expect(told?.target.value).toBeCloseTo(aimed.setUp?.targets.AB ?? 0, 6);
    const drawing = of(
      job([], (p) => {
        const own = oneSided(p);
        return own.limits.kind === "own" ? { ...own, limits: { ...own.limits, aim: "drawing" } } : own;
      }),
    );
    expect(drawing.setUp?.targets.AB).toBeCloseTo(even.setUp?.targets.AB ?? 0, 6);
    expect(simulationText(job([], oneSided))).toMatch(
      new RegExp(`AB: ${(aimed.setUp?.targets.AB ?? 0).toFixed(1)} mm`),
    );
  });
  it("calls a piece good that is cut to their middle, and sets up for what the saw gave", () => {
    const plan = job([], oneSided).plan;
    const target = line(of(job([], oneSided)), "AB")?.cutLongPointMm ?? 0;
    const cut = opened("cut");
    const pieces = (mm: number) =>
      job([cut, ...["AB", "CD"].map((member) => read(cut.id, { kind: "piece", member }, mm.toFixed(2)))], () => plan);
    const good = of(pieces(target));
    for (const p of good.cutRounds[0]?.asCut.pieces ?? []) expect(Math.abs(p.offMm)).toBeLessThan(0.02);
    const short = of(pieces(target - 2));
    expect(short.setUp?.targets.AB).toBeCloseTo((good.setUp?.targets.AB ?? 0) - 2, 1);
    expect(short.setUp?.targets.BC).toBeCloseTo(good.setUp?.targets.BC ?? 0, 2);
  });
});

describe("a length that must not move", () => {
  it("gets nothing added, on a line of its own, whatever the weld takes", () => {
    const e = of(job([], (p) => ({ ...oneSided(p), fixed: ["AB"] })));
    expect(line(e, "AB")).toMatchObject({ members: ["AB"], fixed: true, aimMm: 0, cutLongPointMm: 1000 });
    expect(line(e, "CD")).toMatchObject({ members: ["CD"], fixed: false });
  });
  it("is what the set-up goes by: no corner is set where its pieces do not reach", () => {
    const e = of(job([], (p) => ({ ...oneSided(p), fixed: ["AB", "CD"] })));
    expect(((e.setUp?.targets.AB ?? 0) + (e.setUp?.targets.CD ?? 0)) / 2).toBeCloseTo(1000, 2);
    const free = of(job([], oneSided));
    expect(e.setUp?.targets.BC).toBeCloseTo(free.setUp?.targets.BC ?? 0, 2);
  });
});
