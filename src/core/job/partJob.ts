import type { Structure, StructureJoint } from "../frame";
import { measuredParts } from "../plan";
import { builtOf } from "./built";
import type { Entry, RoundEntry } from "./entrySchema";
import type { Job } from "./jobSchema";
import { partPlan } from "./partPlan";
import type { Plan } from "./planSchema";
import type { TickId } from "./tickId";

/** A sub-assembly that is measured by itself, by its id, and what it is called. */
export interface OwnPart {
  id: string;
  name: string;
}

/** Plans of parts that were made: the same plan gives the same object, so that what was worked out of it is found again. */
const KNOWN = new WeakMap<Plan, Map<string, Plan | null>>();

/** Sub-assemblies of a plan that have something to measure of their own, in the order in which they are joined. */
export function ownParts(plan: Plan): OwnPart[] {
  const { structure } = builtOf(plan);
  return structure ? measuredParts(structure).map(({ id, name }) => ({ id, name })) : [];
}

/** What a round was of where that is not the frame: the name of its sub-assembly, or its id where the frame has it no more; null for the frame. */
export function partName({ frame }: Plan, { part }: Pick<RoundEntry, "part">): string | null {
  if (part === undefined) return null;
  return (frame.by === "members" && frame.drawn.groups.find((g) => g.id === part)?.name) || part;
}

/** The plan of a sub-assembly where it stands in the whole. @returns null for one that has nothing to measure of its own. */
function planOf(plan: Plan, id: string): Plan | null {
  const { structure } = builtOf(plan);
  const part = structure && measuredParts(structure).find((p) => p.id === id);
  return part ? partPlan(plan, part.members, part.name, "in place") : null;
}

function keptPlan(plan: Plan, id: string): Plan | null {
  const known = KNOWN.get(plan) ?? new Map<string, Plan | null>();
  KNOWN.set(plan, known);
  const found = known.get(id);
  if (found !== undefined) return found;
  const made = planOf(plan, id);
  known.set(id, made);
  return made;
}

const between = ({ a, b, along }: StructureJoint): string => `${[a, b].sort().join("/")}/${along?.nth ?? ""}`;

/** What joints of the whole are called in a part: its corners are lettered anew. */
export function jointsInPart(whole: Structure, part: Structure): Map<string, string> {
  const inPart = new Map(part.joints.map((j) => [between(j), j.id]));
  return new Map(
    whole.joints.flatMap((j) => {
      const id = inPart.get(between(j));
      return id === undefined ? [] : [[j.id, id] as const];
    }),
  );
}

/** A tick of the whole as it counts for a part; null where it does not. */
function tickInPart(step: TickId, joints: ReadonlyMap<string, string>): TickId | null {
  if (step.do !== "tack" && step.do !== "bead") return null;
  const joint = joints.get(step.joint);
  return joint === undefined ? null : { ...step, joint };
}

/**
 * A sub-assembly as a job of its own, where it stands in the whole: its rounds, their readings, and what was tacked and welded of it. Its
 * corners are lettered for itself.
 * @param id of the sub-assembly. @returns null for one that has nothing to measure of its own.
 */
export function partJob(job: Job, id: string): Job | null {
  const plan = keptPlan(job.plan, id);
  const [whole, part] = [builtOf(job.plan).structure, plan && builtOf(plan).structure];
  if (!plan || !whole || !part) return null;
  const joints = jointsInPart(whole, part);
  const own = new Set(job.entries.flatMap((e) => (e.kind === "round" && e.part === id ? [e.id] : [])));
  const entries = job.entries.flatMap((e): Entry[] => {
    if (e.kind === "round") {
      const { part: of, ...round } = e;
      return of === id ? [round] : [];
    }
    if (e.kind === "reading") return own.has(e.roundId) ? [e] : [];
    const step = e.kind === "tick" ? tickInPart(e.step, joints) : null;
    return e.kind === "tick" && step ? [{ ...e, step }] : [];
  });
  return { ...job, plan, entries };
}
