import {
  type Clash,
  type DrawnFrame,
  type FoundGap,
  fromRectangle,
  type Placed,
  rectangleProblems,
  resolveStructure,
  type Structure,
  structureProblems,
} from "../frame";
import {
  chosenOrder,
  coveredProblems,
  holdProblems,
  type LiesOn,
  type Order,
  type OrderChoice,
  ownOrderProblems,
  uprightProblems,
  withBars,
} from "../plan";
import type { Problem } from "../units";
import { barsOf } from "./held";
import type { Plan } from "./planSchema";
import { liesOn } from "./restedOn";

/** What a plan builds, worked out once for every plan. However it was entered, everything after reads this. */
type Buildable = Pick<Plan, "frame" | "units" | "bed" | "order" | "held" | "found">;
type Worked = Buildable & Pick<Plan, "hands" | "holds">;

interface Built {
  problems: Problem[];
  /** The frame as members; null while the sizes of a rectangle have errors. */
  members: DrawnFrame | null;
  /** Null while the frame has errors. */
  structure: Structure | null;
  order: Order | null;
  /** What it is built on. */
  on: LiesOn;
  /** Members on their lines, errors or not: what can be drawn. */
  drawn: { structure: Structure; clashes: Clash[]; placed: Map<string, Placed> } | null;
}

/** By what was drawn, and then by the bed that it lies on, the order that was chosen, and what holds it. */
const KNOWN = new WeakMap<
  object,
  { bed: string; order: OrderChoice | undefined; held: Plan["held"]; found: Plan["found"]; built: Built }
>();
const isBroken = (problems: readonly Problem[]): boolean => problems.some((p) => p.severity === "error");

/** A plan's frame as members. The one place that asks how a frame was entered. */
function membersOf({ frame, units }: Pick<Plan, "frame" | "units">): {
  members: DrawnFrame | null;
  problems: Problem[];
} {
  if (frame.by === "members") return { members: frame.drawn, problems: [] };
  const problems = rectangleProblems(frame.sizes, units);
  return { members: isBroken(problems) ? null : fromRectangle(frame.sizes, units), problems };
}

function build(plan: Buildable): Built {
  const { members, problems } = membersOf(plan);
  if (!members) return { problems, members, structure: null, order: null, on: "surface", drawn: null };
  const drawn = resolveStructure(members);
  const found = [...problems, ...structureProblems(members, drawn, plan.units)];
  const structure = isBroken(found) ? null : asFound(drawn.structure, plan.found);
  return { problems: found, members, structure, ...orderOn(structure, plan), drawn };
}

/** The same frame on another bed, in another order, held or fitted otherwise. */
function again(built: Built, found: Plan["found"], plan: Buildable): Built {
  const { structure: before, drawn } = built;
  const structure =
    before === null || drawn === null || found === plan.found ? before : asFound(drawn.structure, plan.found);
  return { ...built, structure, ...orderOn(structure, plan) };
}

/** A gap as it was entered, face by face where it differs. */
function foundGap({ gap, line, faces }: NonNullable<Plan["found"]>[number]): FoundGap {
  if (faces) return { faces: Object.fromEntries(faces.map((f) => [f.line, f.gap.mm])) };
  return line ? { faces: { [line]: gap.mm } } : { round: gap.mm };
}

/** A structure whose joints stand open as they were found. */
function asFound(structure: Structure, found: Plan["found"] = []): Structure {
  if (found.length === 0) return structure;
  const by = new Map(found.map((f) => [f.id, f]));
  return {
    ...structure,
    joints: structure.joints.map((j) => {
      const own = by.get(j.id);
      return own ? { ...j, found: foundGap(own) } : j;
    }),
  };
}

/** @param plan of which only frame, units, and what it lies on count. */
export function builtOf(plan: Buildable): Built {
  const bed = plan.bed.school === "three" ? JSON.stringify(plan.bed.rests) : "";
  const known = KNOWN.get(plan.frame);
  if (known?.bed === bed && known.order === plan.order && known.held === plan.held && known.found === plan.found)
    return known.built;
  const built = known ? again(known.built, known.found, plan) : build(plan);
  KNOWN.set(plan.frame, { bed, order: plan.order, held: plan.held, found: plan.found, built });
  return built;
}

/** The order of a structure on what the plan lays it on. */
function orderOn(structure: Structure | null, plan: Buildable): Pick<Built, "order" | "on"> {
  const on = structure ? liesOn(plan, structure) : "surface";
  return { order: structure && withBars(chosenOrder(structure, on, plan.order), barsOf(structure, plan)), on };
}

/** Length and width over all, mm, for lists; of the sizes that were typed while nothing can be drawn. */
export function overallSizeMm(plan: Buildable): [number, number] {
  const drawn = builtOf(plan).drawn?.structure;
  return drawn
    ? [drawn.high[0] - drawn.low[0], drawn.high[1] - drawn.low[1]]
    : [plan.frame.sizes.length.mm, plan.frame.sizes.width.mm];
}

/** What is wrong with the order that was chosen, on the frame as it is. */
export function orderProblems(plan: Worked): Problem[] {
  const { structure, order: laid } = builtOf(plan);
  const { order, hands = {}, holds = [] } = plan;
  if (!structure || !laid) return [];
  return [
    ...(order && order.by !== "schools"
      ? ownOrderProblems(structure, order.steps, { ...hands, bottomUp: order.bottomUp })
      : []),
    ...coveredProblems(structure, laid.steps),
    ...(hands.noUpright ? uprightProblems(structure, laid.steps) : []),
    ...holdProblems(structure, laid.steps, holds),
  ];
}
