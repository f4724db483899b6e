import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { drawnPlan, sized, sizesPlan } from "../../../tests/support/plans";
import { FINISHES, finishesFor } from "../cut";
import { STARTERS } from "../frame";
import { drain } from "../numeric";
import { builtOf } from "./built";
import { newEntrySchema } from "./entrySchema";
import { finishSteps } from "./finishSteps";
import { grindMoves } from "./grindMoves";
import { GROUND_OFF, grindWords } from "./grindWords";
import type { Plan } from "./planSchema";

const stepsOf = (plan: Plan) => {
  const { structure } = builtOf(plan);
  if (!structure) throw new Error("no frame");
  return finishSteps(plan, structure);
};
const names = (plan: Plan): string[] => stepsOf(plan).map((s) => (s.id.do === "finish" ? s.id.step : ""));

describe("finishing", () => {
  it("has steps that a record takes, each once and in its order, for every starter and every finish", () => {
    for (const { name } of STARTERS)
      for (const finish of FINISHES) {
        const steps = stepsOf({ ...drawnPlan(started(name)), finish });
        expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length);
        for (const s of steps) {
          const entry = {
            ...{ kind: "tick", id: "00000000-0000-4000-9000-000000000001", at: "2026-11-24T08:00:00.000Z" },
            ...{ origin: "test", step: s.id, done: true },
          };
          expect(newEntrySchema.safeParse(entry).success).toBe(true);
          expect(s.minutes).toBeGreaterThanOrEqual(0);
        }
        expect(steps.at(-1)?.id).toEqual({ do: "finish", step: "stand" });
      }
  });
  it("asks for what comes next: marks off and holes checked before zinc, clean before paint, nothing of either when bare", () => {
    const plan = sizesPlan();
    const zinc = names({ ...plan, finish: "zinc dip" });
    expect(zinc.indexOf("marks")).toBeLessThan(zinc.indexOf("dip"));
    expect(zinc.indexOf("vents")).toBeLessThan(zinc.indexOf("dip"));
    expect(zinc.indexOf("dip")).toBeLessThan(zinc.indexOf("after dip"));
    const paint = names({ ...plan, finish: "paint" });
    expect(paint.indexOf("clean")).toBeLessThan(paint.indexOf("paint"));
    const bare = names({ ...plan, finish: "bare" });
    for (const not of ["dip", "paint", "powder", "marks", "clean"]) expect(bare).not.toContain(not);
    const dip = stepsOf({ ...plan, finish: "zinc dip" }).find((s) => s.key === "finish/vents");
    expect(dip?.caution).toMatch(/sealed tube/);
  });
  it("leads a hardened alloy through soft, straight, hard and looked at, each by who may do it; steel not", () => {
    const alloy = names(sized(sizesPlan(), { material: "aluminium 6061" }));
    const route = ["soft", "align", "harden", "proof"].map((s) => alloy.indexOf(s));
    expect(route.every((at, i) => at >= 0 && (i === 0 || at > (route[i - 1] ?? 0)))).toBe(true);
    expect(
      stepsOf(sized(sizesPlan(), { material: "aluminium 6061" })).find((s) => s.key === "finish/harden")?.who,
    ).toMatch(/heat treater/);
    for (const material of ["mild steel", "stainless 304", "aluminium 5083"] as const)
      expect(names(sized(sizesPlan(), { material }))).not.toContain("soft");
  });
  it("says of a metal what is true of it: no rust and no zinc where neither is, no heat tint on steel", () => {
    for (const material of ["stainless 304", "aluminium 5083", "aluminium 6061"] as const) {
      const plan = sized(sizesPlan(), { material });
      const { structure } = builtOf(plan);
      expect(structure && finishesFor(structure)).toEqual(["bare", "paint", "powder"]);
      for (const finish of FINISHES) {
        const steps = stepsOf({ ...plan, finish });
        const words = steps.map((s) => `${s.say} ${s.why} ${s.caution ?? ""}`).join(" ");
        if (finish !== "zinc dip") expect(words.replace("dust of common steel rusts", "")).not.toMatch(/rust|zinc/i);
        expect(names({ ...plan, finish })).not.toContain("dip");
        expect(words.includes("heat tint")).toBe(finish === "bare" && material === "stainless 304");
      }
    }
    const steel = stepsOf({ ...sizesPlan(), finish: "bare" });
    expect(steel.some((s) => /rust/.test(s.why))).toBe(true);
    expect(steel.some((s) => /heat tint/.test(s.say))).toBe(false);
    const baked = stepsOf({ ...sized(sizesPlan(), { material: "aluminium 6061" }), finish: "powder" });
    expect(baked.find((s) => s.key === "finish/powder")?.caution).toMatch(/takes strength/);
  });
  it("grinds what the drawing says, reads it again, and tells what that moves, less than one more bead would", () => {
    const plan = sized(sizesPlan(), { ground: ["top"], cross: [] });
    expect(names(plan)).toContain("grind");
    expect(names(plan)).toContain("read again");
    expect(names(sizesPlan())).not.toContain("grind");
    const told = drain(grindMoves(plan));
    expect(told.faces).toBe(4);
    // Four top faces alike: their pulls on the diagonals cancel, and so do those on the twist of opposite corners.
    for (const m of told.moves) expect(Math.abs(m.mm)).toBeLessThan(0.05);
    expect(GROUND_OFF.low).toBeLessThan(GROUND_OFF.likely);
    expect(grindWords(told, "inch-fraction").join(" ")).not.toMatch(/\bmm\b/);
  });
  it("never asks for millimetres of who works in inches", () => {
    fc.assert(
      fc.property(fc.constantFrom(...FINISHES), fc.constantFrom(...STARTERS.map((s) => s.name)), (finish, name) => {
        const words = stepsOf({ ...drawnPlan(started(name), "inch-fraction"), finish }).map((s) => `${s.say} ${s.why}`);
        expect(words.join(" ")).not.toMatch(/\d\s?mm\b/);
      }),
      { numRuns: 20 },
    );
  });
});
