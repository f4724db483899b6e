import {
  type Clash,
  type DrawnFrame,
  fromRectangle,
  type Placed,
  rectangleProblems,
  resolveStructure,
  type Structure,
  structureProblems,
} from "../frame";
import { type Order, orderOfWork } from "../plan";
import type { Problem } from "../units";
import type { Plan } from "./planSchema";

/** What a plan builds, worked out once for every plan. However it was entered, everything after reads this. */
interface Built {
  problems: Problem[];
  /** The frame as members; null while the sizes of a rectangle have errors. */
  members: DrawnFrame | null;
  /** Null while the frame has errors. */
  structure: Structure | null;
  order: Order | null;
  /** Members on their lines, errors or not: what can be drawn. */
  drawn: { structure: Structure; clashes: Clash[]; placed: Map<string, Placed> } | null;
}

const KNOWN = new WeakMap<object, Built>();
const isBroken = (problems: readonly Problem[]): boolean => problems.some((p) => p.severity === "error");

/** A plan's frame as members. The one place that asks how a frame was entered. */
function membersOf({ frame, units }: Pick<Plan, "frame" | "units">): {
  members: DrawnFrame | null;
  problems: Problem[];
} {
  if (frame.by === "members") return { members: frame.drawn, problems: [] };
  const problems = rectangleProblems(frame.sizes);
  return { members: isBroken(problems) ? null : fromRectangle(frame.sizes, units), problems };
}

function build(plan: Pick<Plan, "frame" | "units">): Built {
  const { members, problems } = membersOf(plan);
  if (!members) return { problems, members, structure: null, order: null, drawn: null };
  const drawn = resolveStructure(members);
  const found = [...problems, ...structureProblems(members, drawn)];
  const structure = isBroken(found) ? null : drawn.structure;
  return { problems: found, members, structure, order: structure && orderOfWork(structure), drawn };
}

/** @param plan of which only `frame` and `units` count. */
export function builtOf(plan: Pick<Plan, "frame" | "units">): Built {
  const known = KNOWN.get(plan.frame) ?? build(plan);
  KNOWN.set(plan.frame, known);
  return known;
}

/** Length and width over all, mm, for lists; of the sizes that were typed while nothing can be drawn. */
export function overallSizeMm(plan: Pick<Plan, "frame" | "units">): [number, number] {
  const drawn = builtOf(plan).drawn?.structure;
  return drawn
    ? [drawn.high[0] - drawn.low[0], drawn.high[1] - drawn.low[1]]
    : [plan.frame.sizes.length.mm, plan.frame.sizes.width.mm];
}
