import type { Structure } from "../frame";
import { type UnitPreference, wallWords } from "../units";
import type { Step } from "./step";

/** A wall is thick on a thin one from this ratio on, and thin from this down, mm (common practice, no source). */
const THICK_RATIO = 1.5;
const THIN_MM = 2;

/** What to mind where a tack or bead goes: a thick wall on a thin one, a thin wall at an open edge, a thin wall; null where it is neither. */
export function seamCaution(structure: Structure, step: Step, units: UnitPreference): string | null {
  const joint = structure.joints.find((j) => j.id === step.joint);
  const members = structure.members.filter((m) => m.id === joint?.a || m.id === joint?.b);
  const [thin, thick] = [...members].sort((a, b) => a.properties.wallMm - b.properties.wallMm);
  if (!joint || !thin || !thick) return null;
  const wall = (mm: number): string => wallWords(mm, units);
  const [low, high] = [thin.properties.wallMm, thick.properties.wallMm];
  if (high >= THICK_RATIO * low)
    return `${thick.id} has a wall of ${wall(high)}, ${thin.id} of ${wall(low)}: the arc stays on the thick one, and the pool is let run to the thin one.`;
  if (low > THIN_MM) return null;
  return joint.kind === "mitre" && step.line === "outside"
    ? `An open edge on a wall of ${wall(low)} melts away before the rest is hot: begin off the edge, keep moving, stop short of it.`
    : `A wall of ${wall(low)} burns through soon: keep moving, and let it cool rather than go over it again.`;
}
