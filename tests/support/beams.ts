import { type BeamJoint, type BeamMaterial, type BeamSection, type MechanicalFrame, plainRun } from "@/core/mechanics";
import type { Vec3 } from "@/core/numeric";
import { CompileCache, compileLoads, type SimulationStep } from "@/core/shrink";
import { FACTORS, type JointFactors, NOMINAL_JOINTS, type WeldedModel, weldedModel } from "@/core/weld";

export const STEEL: BeamMaterial = {
  eMPa: 210_000,
  nu: 0.3,
  yieldMPa: 355,
  alphaPerK: 12e-6,
  heatJPerMm3K: 3.6e-3,
};

/** A tube with sharp corners. */
export function tube(w: number, h = w, t = 3): BeamSection {
  const second = (a: number, b: number) => (a * b ** 3 - (a - 2 * t) * (b - 2 * t) ** 3) / 12;
  return {
    shape: "tube",
    widthMm: w,
    heightMm: h,
    wallMm: t,
    areaMm2: w * h - (w - 2 * t) * (h - 2 * t),
    iyMm4: second(w, h),
    izMm4: second(h, w),
    jMm4: (2 * t * ((w - t) * (h - t)) ** 2) / (w + h - 2 * t),
  };
}

export const frameOf = (
  points: Record<string, Vec3>,
  members: [id: string, points: string[]][],
  joints: BeamJoint[] = [],
  supports: MechanicalFrame["supports"] = [],
  section: BeamSection = tube(50),
): MechanicalFrame => ({
  material: STEEL,
  points,
  members: members.map(([id, at]) => ({ id, section, points: at })),
  joints,
  supports,
});

export const FIXED = ["x", "y", "z", "rx", "ry", "rz"] as const;

export const load = (
  member: string,
  point: string,
  wrench: readonly [number, number, number, number, number, number],
): SimulationStep => ({ id: `load ${member} ${point}`, do: "load", member, point, wrench });

/** All four beads of a joint, without any contraction. */
export const connect = (joint: BeamJoint): SimulationStep[] =>
  (joint.kind === "tee" || joint.kind === "lap"
    ? (["plus", "minus", "top", "bottom"] as const)
    : (["inside", "outside", "top", "bottom"] as const)
  ).map((line) => ({ id: `connect ${joint.id} ${line}`, do: "bead", joint: joint.id, line, closingMm: 0 }));

/** Movement of every freedom after all steps, by the plain path. */
export function movement(
  frame: MechanicalFrame,
  steps: readonly SimulationStep[],
  stiffness: JointFactors = NOMINAL_JOINTS,
  limited = false,
): { model: WeldedModel; u: Float64Array; at: (member: string, point: string) => number[] } {
  const model = weldedModel(frame, stiffness);
  const u = plainRun(compileLoads(new CompileCache(model, FACTORS), steps), limited).movements.at(-1) as Float64Array;
  return {
    model,
    u,
    at: (member, point) => [...u.subarray(6 * model.nodeOf(member, point), 6 * model.nodeOf(member, point) + 6)],
  };
}
