import { heldMechanics, loadSteps } from "../plan";
import { remedyEffects } from "../shrink";
import { builtOf } from "./built";
import { factorsOf } from "./factorsOf";
import { GROUND_OFF, type GrindMoves } from "./grindWords";
import { heldOf } from "./held";
import type { Plan } from "./planSchema";
import { beadDeeds } from "./remedies";
import { weldOf } from "./settings";

const SAID: Record<string, string> = { square: "AC less BD", twist: "twist" };

/** What grinding does, in the mechanics of the finished frame: each ground bead gives back a share of its contraction. */
export function* grindMoves(plan: Plan): Generator<number, GrindMoves> {
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new RangeError("The frame has errors.");
  const { mechanics, by } = heldMechanics(structure, on, heldOf(structure, plan));
  const isGround = (joint: string, face: string): boolean =>
    structure.joints.some((j) => j.id === joint && j.faces.some((f) => f.line === face && f.care === "grind flush"));
  const ground = beadDeeds(structure, loadSteps(structure, weldOf(plan), order.steps, by)).filter((d) =>
    isGround(d.joint, d.face),
  );
  const effects = yield* remedyEffects(structure, mechanics, factorsOf(plan), ground);
  const sum = (key: string): number => [...effects.values()].reduce((s, e) => s - GROUND_OFF.likely * (e[key] ?? 0), 0);
  const keys = structure.quad ? ["square", "twist"] : [];
  return {
    faces: ground.length,
    moves: keys.map((key) => ({ what: SAID[key] ?? key, mm: sum(key) })),
  };
}
