import {
  fromRectangle,
  type ResolvedFrame,
  rectangleIn,
  rectangleProblems,
  resolveFrame,
  resolveStructure,
  type Structure,
  structureProblems,
} from "../frame";
import type { Problem } from "../units";
import type { Plan } from "./planSchema";

/** What a plan builds, worked out once for every plan. */
export interface Built {
  problems: Problem[];
  /** Null while the frame has errors. */
  structure: Structure | null;
  /** The rectangle that is squared and levelled; null while there are errors, and for frames that have none. */
  frame: ResolvedFrame | null;
  /** Members on their lines, errors or not: what can be drawn. */
  drawn: ReturnType<typeof resolveStructure> | null;
}

const KNOWN = new WeakMap<object, Built>();

/** @param plan of which only `frame`, `free` and `units` count. */
export function builtOf(plan: Plan): Built {
  const key = plan.free ?? plan.frame;
  const known = KNOWN.get(key);
  if (known) return known;
  const built = plan.free ? buildFree(plan.free) : buildRectangle(plan);
  KNOWN.set(key, built);
  return built;
}

/** Length and width over all, mm, for lists. */
export function overallSizeMm(plan: Plan): [number, number] {
  const drawn = plan.free && builtOf(plan).drawn?.structure;
  return drawn
    ? [drawn.high[0] - drawn.low[0], drawn.high[1] - drawn.low[1]]
    : [plan.frame.length.mm, plan.frame.width.mm];
}

function buildFree(free: NonNullable<Plan["free"]>): Built {
  const drawn = resolveStructure(free);
  const problems = structureProblems(free, drawn);
  const broken = problems.some((p) => p.severity === "error");
  return {
    problems,
    structure: broken ? null : drawn.structure,
    frame: broken ? null : rectangleIn(drawn.structure),
    drawn,
  };
}

function buildRectangle(plan: Plan): Built {
  const problems = rectangleProblems(plan.frame);
  if (problems.some((p) => p.severity === "error")) return { problems, structure: null, frame: null, drawn: null };
  const drawn = resolveStructure(fromRectangle(plan.frame, plan.units));
  return { problems, structure: drawn.structure, frame: resolveFrame(plan.frame), drawn };
}
