import { joiningOrder, type Structure } from "../frame";
import { CORNERS } from "../geometry";
import { Groups } from "../numeric";
import type { Step } from "./step";

/** What of a frame a step is about. */
export interface PartOfStep {
  /** What is turned over as one: the frame, or those of its sub-assemblies that are joined by then. */
  what: string;
  massKg: number;
  /** Whether it has corners A to D to be measured. */
  ring: boolean;
}

export const wholeFrame = ({ massKg, quad }: Pick<Structure, "massKg" | "quad">): PartOfStep => ({
  what: "the frame",
  massKg,
  ring: quad !== null,
});

/** Steps in stretches, each up to where a sub-assembly is cold. */
function stretches(steps: readonly Step[]): Step[][] {
  const out: Step[][] = [[]];
  for (const s of steps) {
    out.at(-1)?.push(s);
    if (s.why.kind === "sub-assembly cold") out.push([]);
  }
  return out;
}

/** Steps between whose stretches' ends no corner of the ring is worked: they measure what is set on it, not the ring. The cold frame is measured whole. */
function besideTheRing({ quad }: Structure, steps: readonly Step[]): Set<Step> {
  if (!quad) return new Set();
  const corners = new Set(CORNERS.map((c) => quad.joints[c]));
  return new Set(
    stretches(steps).flatMap((part) => {
      const isWorked = (s: Step): boolean => s.joint !== null;
      if (!part.some(isWorked) || part.some((s) => s.joint !== null && corners.has(s.joint))) return [];
      return part.filter((s) => s.gate !== "cold");
    }),
  );
}

/**
 * What each step of an order is about, by its key. Of a frame with sub-assemblies a turn is of the one that was worked last, with what it is
 * joined to by then; of the first where nothing was worked yet.
 */
export function partsOfSteps(structure: Structure, steps: readonly Step[]): Map<string, PartOfStep> {
  const whole = wholeFrame(structure);
  const groups = joiningOrder(structure);
  if (groups.length === 0) return new Map(steps.map((s) => [s.key, whole]));
  const beside = besideTheRing(structure, steps);
  const together = new Groups(structure.members.map((m) => m.id));
  for (const { members } of groups) for (const m of members) together.join(members[0] ?? m, m);
  const joints = new Map(structure.joints.map((j) => [j.id, j]));
  let at = groups[0]?.members[0] ?? "";
  const turned = (): Pick<PartOfStep, "what" | "massKg"> => {
    const parts = groups.filter(({ members }) => together.of(members[0] ?? "") === together.of(at));
    return parts.length === groups.length
      ? whole
      : { what: parts.map((p) => p.name).join(" and "), massKg: parts.reduce((sum, p) => sum + p.massKg, 0) };
  };
  return new Map(
    steps.map((step) => {
      const joint = step.joint === null ? undefined : joints.get(step.joint);
      if (joint) {
        together.join(joint.a, joint.b);
        at = joint.a;
      }
      return [step.key, { ...turned(), ring: whole.ring && !beside.has(step) }];
    }),
  );
}
