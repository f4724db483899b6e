import { joiningOrder, quadrilateralOf, type Structure } from "../frame";
import { CORNERS } from "../geometry";
import { Groups } from "../numeric";
import type { Step } from "./step";

/** What of a frame a step is about. */
export interface PartOfStep {
  /** What is turned over as one: the frame, or those of its sub-assemblies that are joined by then. */
  what: string;
  massKg: number;
  /** Whether what is measured has four corners. */
  ring: boolean;
  /** The sub-assembly that is measured by itself, by its id; null where the frame is. */
  of: string | null;
  /** What was set on the rest just before, by its name: where it sits is looked at, too. Null where nothing was. */
  sits: string | null;
}

/** How the frame is called where all of it is meant. */
const THE_FRAME = "the frame";

/** Whether all of a frame stands where a step measures it: nothing is still to be set on it. */
export const isOfWhole = ({ what, sits }: PartOfStep, { gate }: Pick<Step, "gate">): boolean =>
  what === THE_FRAME || sits !== null || gate === "cold";

export const wholeFrame = ({ massKg, quad }: Pick<Structure, "massKg" | "quad">): PartOfStep => ({
  what: THE_FRAME,
  massKg,
  ring: quad !== null,
  of: null,
  sits: null,
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

/** A sub-assembly that is measured by itself. */
interface MeasuredPart {
  id: string;
  name: string;
  members: string[];
  /** Joints within it. */
  own: string[];
  /** Whether it has four corners of its own. */
  ring: boolean;
}

/** Sub-assemblies that have something to measure of their own: not the one that holds the corners of the frame, which is measured as the frame. */
export function measuredParts(structure: Structure): MeasuredPart[] {
  const { quad } = structure;
  return joiningOrder(structure).flatMap(({ id, name, own, members }): MeasuredPart[] => {
    const hasCorners = quad !== null && CORNERS.every((c) => own.includes(quad.joints[c]));
    if (id === "" || own.length === 0 || own.length === structure.joints.length || hasCorners) return [];
    const part = {
      members: structure.members.filter((m) => members.includes(m.id)),
      joints: structure.joints.filter((j) => own.includes(j.id)),
    };
    return [{ id, name, members, own, ring: quadrilateralOf(part) !== null }];
  });
}

/** What is measured between the ends of a stretch: a sub-assembly by itself, or the frame, as it is when something is set on it. The cold frame is measured whole. */
function measuredIn(structure: Structure, steps: readonly Step[]): Map<Step, Pick<PartOfStep, "ring" | "of" | "sits">> {
  const ring = structure.quad !== null;
  const parts = measuredParts(structure);
  const groups = joiningOrder(structure);
  return new Map(
    stretches(steps).flatMap((stretch) => {
      const worked = stretch.flatMap((s) => s.joint ?? []);
      const part = worked.length > 0 && parts.find(({ own }) => worked.every((j) => own.includes(j)));
      const joined = groups.find(({ toRest }) => worked.length > 0 && worked.every((j) => toRest.includes(j)));
      const what = part
        ? { ring: part.ring, of: part.id, sits: null }
        : { ring, of: null, sits: joined ? (joined.id === "" ? "the rest" : joined.name) : null };
      return stretch.flatMap((s) => (s.gate === "cold" ? [] : [[s, what] as const]));
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
  const measured = measuredIn(structure, steps);
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
      const { ring, of, sits } = measured.get(step) ?? whole;
      return [step.key, { ...turned(), ring, of, sits }];
    }),
  );
}
