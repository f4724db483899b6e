import { heldMechanics, loadSteps } from "../plan";
import { remedyEffects } from "../shrink";
import { formatSmall, type UnitPreference } from "../units";
import { builtOf } from "./built";
import { factorsOf } from "./factorsOf";
import { heldOf } from "./held";
import type { Plan } from "./planSchema";
import { beadDeeds } from "./remedies";
import { weldOf } from "./settings";

/** What grinding its flush faces does to a frame, mm: change of what it is held to. */
export interface GrindMoves {
  faces: number;
  moves: { what: string; mm: number }[];
}

/** Share of a bead's pull that goes with what is ground off above the face: likely, and what is not excluded. Source: own judgement. */
export const GROUND_OFF = { likely: 0.3, low: 0.1, high: 0.5 } as const;

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

/** The same in words. */
export function grindWords({ faces, moves }: GrindMoves, units: UnitPreference): string[] {
  const mm = (x: number): string => formatSmall(x, units, { decimals: units === "mm" ? 2 : 1 });
  const ends = (x: number): string => {
    const [low, high] = [(x * GROUND_OFF.low) / GROUND_OFF.likely, (x * GROUND_OFF.high) / GROUND_OFF.likely];
    return `${mm(Math.min(low, high))} to ${mm(Math.max(low, high))}`;
  };
  return moves.length === 0
    ? [`What ${faces} ground faces do to this frame is not told: it has no corners A to D. Read it again.`]
    : moves.map(({ what, mm: by }) => `${what} moves by about ${mm(by)} (${ends(by)}) as ${faces} faces are ground.`);
}
