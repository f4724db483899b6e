import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan, sized } from "../../../tests/support/plans";
import type { Structure } from "../frame";
import { drain } from "../numeric";
import { heldMechanics, loadSteps } from "../plan";
import { gapStiffness } from "../shrink";
import { length } from "../units";
import { FACTORS, PROCESSES } from "../weld";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { jointFitAdvice, readGaps, withFilled, withShut } from "./jointFit";
import { jointFit } from "./jointFitting";
import { newPlan } from "./plan";
import { type Plan, planSchema } from "./planSchema";
import { predict } from "./predict";
import { frameKey } from "./predictable";
import { weldOf } from "./settings";

const base = newPlan("x", "mm");
const structureOf = (plan: Plan): Structure => builtOf(plan).structure as Structure;
const jobOf = (plan: Plan): Job => ({ id: "x", version: 1, plan, entries: [], instruments: [] }) as unknown as Job;
const heats = (plan: Plan): Map<string, number> => {
  const { structure, order } = builtOf(plan);
  return new Map(
    loadSteps(structure as Structure, weldOf(plan), order?.steps ?? []).flatMap((s) =>
      s.do === "bead" ? [[s.id, s.heatJPerMm ?? 0] as const] : [],
    ),
  );
};

describe("a gap that is filled", () => {
  it("takes more heat at its own joint alone: its section times what the deposit takes", () => {
    const plan = withFilled(base, { joint: "B", mm: 1.2 });
    const [before, after] = [heats(base), heats(plan)];
    for (const [id, heat] of after) {
      const more = id.startsWith("bead/B/") ? PROCESSES.MAG.depositJPerMm3 * 1.2 * 3 : 0;
      expect(heat - (before.get(id) ?? 0), id).toBeCloseTo(more, 9);
    }
    expect(planSchema.safeParse(plan).success).toBe(true);
    expect(frameKey(plan)).not.toBe(frameKey(base));
    expect(frameKey(withShut(plan, "B"))).toBe(frameKey(base));
    // On one face alone it is that face's bead.
    const one = heats(withFilled(base, { joint: "B", mm: 1.2, faces: [{ line: "inside", mm: 1.2 }] }));
    expect([...one].filter(([id, heat]) => heat !== before.get(id)).map(([id]) => id)).toEqual(["bead/B/inside"]);
  });
  it("is filled face by face where it differs: one that is wider on top turns the frame out of its plane, one that is even does not", () => {
    const faces = (top: number, bottom: number) =>
      withFilled(base, {
        ...{ joint: "B", mm: Math.max(top, bottom) },
        faces: [
          { line: "top" as const, mm: top },
          { line: "bottom" as const, mm: bottom },
        ],
      });
    const one = heats(faces(1, 0.2));
    const before = heats(base);
    const more = (line: string): number => (one.get(`bead/B/${line}`) ?? 0) - (before.get(`bead/B/${line}`) ?? 0);
    expect(more("top") / more("bottom")).toBeCloseTo(5, 6);
    expect(more("inside")).toBe(0);
    expect(planSchema.safeParse(faces(1, 0.2)).success).toBe(true);
    const lift = (plan: Plan): number =>
      predict(plan)?.prediction.outcomes.find((o) => o.id.kind === "twist")?.nominal ?? Number.NaN;
    const plain = lift(base);
    const [up, even, down] = [faces(1.5, 0.1), faces(0.8, 0.8), faces(0.1, 1.5)].map((p) => lift(p) - plain) as [
      number,
      number,
      number,
    ];
    expect(Math.abs(even)).toBeLessThan(0.5 * Math.abs(up));
    expect(Math.sign(up)).toBe(-Math.sign(down));
  });
  it("counts what is beyond the gap that was planned", () => {
    const planned = sized(base, { gap: length("1") });
    const more = (mm: number) =>
      (heats(withFilled(planned, { joint: "A", mm })).get("bead/A/top") ?? 0) - (heats(planned).get("bead/A/top") ?? 0);
    expect(more(0.6)).toBe(0);
    expect(more(1.5)).toBeCloseTo(PROCESSES.MAG.depositJPerMm3 * 0.5 * 3, 9);
  });
  it("leans a frame of which one joint stands open", () => {
    const square = (plan: Plan): number =>
      predict(plan)?.prediction.outcomes.find((o) => o.id.kind === "square")?.nominal ?? Number.NaN;
    const plain = square(base);
    const one = square(withFilled(base, { joint: "A", mm: 1.5 }));
    expect(Math.abs(one - plain)).toBeGreaterThan(0.1);
  });
  it("is read where a gap was measured, at the newest that counts", () => {
    const mean = (at: string, mm: number) => ({ what: { kind: "gap", at }, mm });
    const round = (...means: ReturnType<typeof mean>[]) =>
      ({ means: new Map(means.map((m) => [m.what.at, m])) }) as never;
    const joints = { A: "A", M1AB: "M1/AB" };
    expect(readGaps([round(mean("A", 1.5), mean("M1AB", 0.4)), round(mean("A", 0))], joints)).toEqual([
      { joint: "M1/AB", mm: 0.4 },
    ]);
    expect(readGaps([round(mean("X", 1))], joints)).toEqual([]);
  });
});

describe("what is done about a gap", () => {
  const advised = (mm: number, plan = base) => {
    const structure = structureOf(plan);
    const fit = drain(jointFit(jobOf(plan), { joint: "B", mm }, 60));
    return { fit, ...jointFitAdvice(structure, fit, 0.8, "mm") };
  };
  it("is told with the numbers that bear it: what it moves, both chances, the force that shuts it", () => {
    const { fit, words } = advised(1.5);
    const all = words.join(" ");
    const [filled, shut] = [fit.filled, fit.shut].map(
      (o) => o.shape.find((s) => s.id.kind === "square")?.estimate.value ?? 0,
    ) as [number, number];
    expect(Math.abs(filled - shut)).toBeGreaterThan(0.05);
    expect(all).toContain(`${Math.abs(filled - shut).toFixed(2)}`);
    // 35 J/mm3 of filler and the heat balance: 0.9 x 3.33e-3 x 35 = 0.105 mm of closing for each mm of gap.
    expect(fit.closesMm / 1.5).toBeCloseTo(0.105, 3);
    expect(all).toMatch(/closes about 0\.16\smm more/);
    expect(all).toMatch(/filled: .+; shut: /);
    expect(all).toMatch(/over the 0\.8\smm that a joint may stand open/);
    expect(fit.stiffness?.frameNPerMm).toBeGreaterThan(1);
    expect(fit.stiffness?.jointNPerMm).toBeGreaterThan(fit.stiffness?.frameNPerMm ?? 0);
  });
  it("is nothing where it is small", () => {
    const { advice, words } = advised(0.2);
    expect(advice).toBe("leave");
    expect(words.join(" ")).not.toMatch(/over the/);
  });
  it("a stiffer frame is harder to draw shut, whatever its shape", () => {
    const stiffness = (plan: Plan, joint: string): number => {
      const structure = structureOf(plan);
      return (
        drain(gapStiffness(structure, heldMechanics(structure).mechanics, FACTORS, joint, 10))?.frameNPerMm ??
        Number.NaN
      );
    };
    for (const name of ["rectangle", "ladder", "stand", "gate leaf"]) {
      const thin = drawnPlan(started(name, {}, squareTube(40, 2)));
      const thick = drawnPlan(started(name, {}, squareTube(40, 4)));
      const joint = structureOf(thin).joints[0]?.id ?? "";
      expect(stiffness(thick, joint), name).toBeGreaterThan(1.3 * stiffness(thin, joint));
    }
  });
});
