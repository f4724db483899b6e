import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rectangle } from "../../../tests/support/plans";
import { CORNER_WAYS } from "../frame/frameWords";
import { norm3, sub3 } from "../numeric";
import { type Step, stepsInWords } from "../plan";
import { outcomeKey } from "../shrink";
import { length } from "../units";
import { builtOf } from "./built";
import { newPlan } from "./plan";
import { predict } from "./predict";

/** A rectangle of any size with rungs, its corners made in any way, worked by two schools. */
const worked = fc
  .record({
    lengthMm: fc.integer({ min: 600, max: 2600 }),
    widthMm: fc.integer({ min: 400, max: 1400 }),
    faceMm: fc.constantFrom(30, 40, 60),
    wallMm: fc.constantFrom(2, 3, 4),
    corners: fc.constantFrom(...CORNER_WAYS),
    rungs: fc.integer({ min: 0, max: 2 }),
    tack: fc.constantFrom("hinge first" as const, "outside first" as const),
    weld: fc.constantFrom("across and around" as const, "strength first" as const),
  })
  .map(({ lengthMm, widthMm, faceMm, wallMm, corners, rungs, tack, weld }) => {
    const mm = (v: number) => length(String(v));
    const sizes = rectangle({
      length: mm(lengthMm),
      width: mm(widthMm),
      section: { profile: null, face: mm(faceMm), depth: mm(faceMm), wall: mm(wallMm) },
      corners,
      cross: Array.from({ length: rungs }, (_, i) => ({
        id: `M${i + 1}`,
        at: mm(Math.round((lengthMm * (i + 1)) / (rungs + 1))),
      })),
    });
    return {
      ...newPlan("x", "mm"),
      frame: { by: "sizes" as const, sizes },
      order: { by: "schools" as const, tack, weld },
    };
  });

describe("the reason that a step is told with is true of the frame, by the forecast's own numbers", () => {
  it("which way a corner pulls, what takes back, what lies across", () => {
    const told = new Set<string>();
    fc.assert(
      fc.property(worked, (plan) => {
        const { structure, order } = builtOf(plan);
        const found = predict(plan);
        if (!structure || !order || !found) throw new Error("no forecast");
        const { ids, outcomes } = found.replay;
        const by = new Map(outcomes.map((o) => [outcomeKey(o.id), o.after]));
        /** What a step did to a quantity in the likely frame. */
        const did = (key: string, step: Step | undefined): number => {
          const i = ids.lastIndexOf(step?.key ?? "");
          const after = by.get(key);
          if (!after || i < 0) throw new Error(`no ${key} at ${step?.key}`);
          return (after[i] ?? 0) - (after[i - 1] ?? 0);
        };
        const { steps } = order;
        const words = stepsInWords(structure, steps);
        const corners = Object.values(structure.quad?.joints ?? {});
        const at = (joint: string | null) => structure.joints.find((j) => j.id === joint)?.at ?? [0, 0, 0];
        const earlier = (step: Step, is: (s: Step) => boolean): Step | undefined =>
          steps.slice(0, steps.indexOf(step)).find((s) => s.joint === step.joint && is(s));
        for (const step of steps) {
          const { why } = step;
          const say = `${step.key}: ${words.get(step.key)?.why}`;
          const firstAt = (joint: string) => steps.find((s) => s.id.do === "tack" && s.joint === joint);
          const isCorner = corners.includes(step.joint ?? "");
          if (isCorner) told.add(why.kind);
          if (why.kind === "pulls alike")
            expect(did("square", step) * did("square", firstAt(why.joint)), say).toBeGreaterThan(0);
          if (why.kind === "pulls against")
            for (const joint of why.joints)
              expect(did("square", step) * did("square", firstAt(joint)), say).toBeLessThan(0);
          if (why.kind === "locks" && isCorner) {
            const key = outcomeKey({
              kind: "angle",
              corner: words.get(step.key)?.say.match(/Tack ([A-D]),/)?.[1] as "A",
            });
            expect(did(key, step) * did(key, firstAt(step.joint ?? "")), say).toBeLessThan(0);
          }
          if (why.kind === "second takes back" && isCorner) {
            const other = earlier(step, (s) => s.id.do === "bead" && s.why.kind === "face all round");
            expect(did("twist", step) * did("twist", other), say).toBeLessThan(0);
          }
          if (why.kind === "opposes the other side") {
            told.add(why.kind);
            const other = earlier(step, (s) => s.id.do === step.id.do && ["plus", "minus"].includes(s.line ?? ""));
            expect(did("square", step) * did("square", other), say).toBeLessThan(0);
          }
          if (why.kind === "every side holds") {
            const faces = structure.joints.find((x) => x.id === step.joint)?.faces ?? [];
            const isTacked = (line: string): boolean =>
              earlier(step, (s) => s.id.do === "tack" && s.line === line) !== undefined;
            const open = faces.filter((f) => f.line !== step.line && !isTacked(f.line)).map((f) => f.line);
            expect(open, say).toEqual([]);
          }
          if (why.kind === "across from")
            expect(norm3(sub3(at(step.joint), at(why.joint))), say).toBeGreaterThan(
              Math.max(...corners.map((c) => norm3(sub3(at(c), at(why.joint))))) - 2,
            );
        }
      }),
      { numRuns: 14, seed: 11 },
    );
    expect([...told]).toEqual(
      expect.arrayContaining([
        "pulls alike",
        "pulls against",
        "locks",
        "second takes back",
        "every side holds",
        "across from",
      ]),
    );
  }, 120_000);
});
