import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { demoJobs } from "../../../script/lib/demo-jobs";
import { drawn } from "../../../tests/support/drawnFrames";
import { evaluate, opened, read } from "../../../tests/support/jobs";
import { rectangle } from "../../../tests/support/plans";
import { onThreeRests } from "../bed";
import { type DrawnFrame, fromRectangle, type Rectangle, rectangleProblems, type Structure } from "../frame";
import { SPANS } from "../geometry";
import { SHELF } from "../instruments";
import type { Vec3 } from "../numeric";
import { outcomeKey } from "../shrink";
import { length } from "../units";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { newPlan } from "./plan";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

/** Predicted once for each plan: one is held against several others. */
const known = new WeakMap<Plan, ReturnType<typeof predict>>();
function predictionOf(plan: Plan) {
  if (!known.has(plan)) known.set(plan, predict(plan));
  return known.get(plan)?.prediction;
}

const bySizes = (plan: Plan, sizes: Rectangle): Plan => ({ ...plan, frame: { by: "sizes", sizes } });
const byMembers = (plan: Plan, sizes: Rectangle, frame: DrawnFrame): Plan => ({
  ...plan,
  frame: { by: "members", sizes, drawn: frame },
});
const built = (plan: Plan): Structure => {
  const { structure } = builtOf(plan);
  if (!structure) throw new Error("cannot be built");
  return structure;
};

/** The same frame as a person would draw it: centre lines round the ring, rungs from centre line to centre line. */
function byHand(s: Rectangle): DrawnFrame {
  const half = s.section.face.mm / 2;
  const z = s.section.depth.mm / 2;
  const [l, w] = [s.length.mm, s.width.mm];
  const at = (x: number, y: number): Vec3 => [x, y, z];
  const [a, b, c, d] = [at(half, half), at(l - half, half), at(l - half, w - half), at(half, w - half)];
  const rungs = Object.fromEntries(
    s.cross.map((m): [string, [Vec3, Vec3]] => [m.id, [at(m.at.mm, half), at(m.at.mm, w - half)]]),
  );
  return drawn({ AB: [a, b], BC: [b, c], CD: [c, d], DA: [d, a], ...rungs }, [
    {
      id: "S1",
      shape: "tube",
      profile: s.section.profile,
      width: s.section.face,
      height: s.section.depth,
      wall: s.section.wall,
      material: s.material,
    },
  ]);
}

/** Everything that two plans say of one frame agrees. */
function agree(one: Plan, two: Plan, name: string): void {
  const job = (plan: Plan): Job => {
    const r = opened("dry fit");
    const cold = opened("cold");
    const quad = built(one).quad;
    const taped = (id: string, stretch: number) =>
      SPANS.map((span) => {
        const [p, q] = [quad?.corners[span[0] as "A"], quad?.corners[span[1] as "B"]];
        const mm = Math.hypot((p?.x ?? 0) - (q?.x ?? 0), (p?.y ?? 0) - (q?.y ?? 0));
        return read(id, span, (mm + (span === "AC" ? stretch : 0.5)).toFixed(1));
      });
    const heights = ["zA", "zB", "zC", "zD"].map((w, i) => read(cold.id, w, i === 0 ? "0.6" : "0", {}, "feeler"));
    return {
      id: "00000000-0000-4000-9000-000000000000",
      createdAt: "2026-11-24T08:00:00.000Z",
      version: 1,
      plan,
      instruments: [...SHELF],
      entries: [r, ...taped(r.id, 4), cold, ...taped(cold.id, 1), ...heights],
    };
  };
  const [p, q] = [predictionOf(one), predictionOf(two)];
  expect(
    q?.outcomes.map((o) => outcomeKey(o.id)),
    name,
  ).toEqual(p?.outcomes.map((o) => outcomeKey(o.id)));
  for (const [i, o] of (p?.outcomes ?? []).entries())
    for (const part of ["value", "low", "high"] as const)
      expect(
        Math.abs((q?.outcomes[i]?.estimate[part] ?? Number.NaN) - o.estimate[part]),
        `${name}: ${outcomeKey(o.id)} ${part}`,
      ).toBeLessThan(1e-7);
  const [e, f] = [evaluate(job(one)), evaluate(job(two))];
  expect(f.steps, name).toEqual(e.steps);
  const pieces = (x: typeof e) =>
    x.cut.map((c) => [c.members, c.quantity, c.longPointMm.toFixed(6), c.shortPointMm.toFixed(6), c.sawDeg, c.cuts]);
  expect(pieces(f), name).toEqual(pieces(e));
  const three = (plan: Plan) =>
    onThreeRests(
      plan.bed.rests.map((r) => ({ id: r.id, x: r.x.mm, y: r.y.mm })),
      built(plan),
    );
  const [bed, bed2] = [three(one), three(two)];
  expect(bed2?.rests, name).toEqual(bed?.rests);
  expect(bed2?.sagMm ?? 0, name).toBeCloseTo(bed?.sagMm ?? 0, 9);
  const square = (x: typeof e) =>
    x.frameRounds.map((r) => [
      r.square?.shearMmPerM?.value.toFixed(6),
      r.square?.nudges.map((n) => [n.side, n.shiftMm.toFixed(6)]),
      r.verdicts.map((v) => [v.limit.id, v.result?.verdict ?? null, v.measured?.value.toFixed(6)]),
    ]);
  expect(square(f), name).toEqual(square(e));
  expect(f.summary, name).toEqual(e.summary);
  expect(e.cold?.verdicts.length, name).toBeGreaterThan(3);
}

describe("same frame, same answer", () => {
  it("for the demo jobs' rectangles: by sizes, drawn on from them, and drawn by hand", () => {
    for (const { job } of demoJobs()) {
      const { sizes } = job.plan.frame;
      const one = bySizes(job.plan, sizes);
      agree(one, byMembers(job.plan, sizes, fromRectangle(sizes, job.plan.units)), `${job.plan.name}, drawn on`);
    }
  }, 60_000);
  it("for twenty ladders, whatever their sizes", () => {
    const plan = newPlan("ladder", "mm");
    const ladder = fc.record({
      long: fc.integer({ min: 500, max: 3600 }),
      wide: fc.integer({ min: 400, max: 1600 }),
      half: fc.integer({ min: 10, max: 30 }),
      depth: fc.integer({ min: 10, max: 40 }),
      wall: fc.constantFrom("2", "3", "4"),
      rungs: fc.integer({ min: 0, max: 5 }),
    });
    fc.assert(
      fc.property(ladder, ({ long, wide, half, depth, wall, rungs }) => {
        const sizes = rectangle({
          length: length(String(long)),
          width: length(String(wide)),
          section: {
            profile: null,
            face: length(String(2 * half)),
            depth: length(String(2 * depth)),
            wall: length(wall),
          },
          cross: Array.from({ length: rungs }, (_, i) => ({
            id: `M${i + 1}`,
            at: length(String(Math.round((long * (i + 1)) / (rungs + 1)))),
          })),
        });
        fc.pre(rectangleProblems(sizes).every((p) => p.severity !== "error"));
        const one = bySizes(plan, sizes);
        agree(one, byMembers(plan, sizes, fromRectangle(sizes, "mm")), `${long}×${wide}, drawn on`);
        agree(one, byMembers(plan, sizes, byHand(sizes)), `${long}×${wide}, by hand`);
      }),
      { numRuns: 20, seed: 10 },
    );
  }, 300_000);
});
