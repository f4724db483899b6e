import type { EndName, FaceLine, Structure } from "../frame";
import { finishedFrame, LowRankRun, type ModelMember, NO_DRAWS, type StructureMechanics } from "../mechanics";
import { add3, cross3, norm3, partOf, scale3, sparseDot, sub3, unit3, type Vec3 } from "../numeric";
import { NOMINAL_JOINTS, type ShrinkFactors, type WeldedModel, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compilingLoads } from "./compileSteps";
import { frameOutcomes, frameOutputs } from "./frameOutcomes";
import { readied } from "./nominalRun";
import { outcomeKey } from "./outcomeId";
import { outcomeAt } from "./outcomes";
import type { Outputs } from "./outputs";
import type { SimulationStep } from "./simulationSteps";

/** Something that is done to a finished frame, by so much that its effect can be scaled. */
export type UnitDeed = { id: string } & (
  | { do: "bead"; joint: string; line: FaceLine; share: number; heatJPerMm: number }
  /** A member kinked at a place along it, the way of a bow along the bed or up: by 1 mrad. */
  | { do: "kink"; member: string; alongMm: number; way: "bow" | "lift" }
  /** Two joints, or free ends of members, pulled towards each other by 1 N. */
  | { do: "pull"; from: PullAt; to: PullAt }
);

/** What a strap is laid round. */
export type PullAt = { joint: string } | { member: string; end: EndName };

/** What each deed does to each outcome of the frame, by the outcome's key; flatness, which is no sum, is left out. */
export type UnitEffects = ReadonlyMap<string, Readonly<Record<string, number>>>;

/** Turn of one kink, rad. */
export const KINK_RAD = 1e-3;

/**
 * What deeds do to a finished frame, each by itself, all of it elastic: the frame with every face welded, or with some of one joint's cut.
 * A generator: yields the share done.
 * @param open lines that do not hold.
 */
export function* remedyEffects(
  structure: Structure,
  mechanics: StructureMechanics,
  factors: ShrinkFactors,
  deeds: readonly UnitDeed[],
  open: readonly { joint: string; line: FaceLine }[] = [],
): Generator<number, UnitEffects> {
  const model = weldedModel(mechanics.frame);
  const isOpen = (joint: string, line: FaceLine): boolean => open.some((o) => o.joint === joint && o.line === line);
  const welded = model.joints.flatMap((joint) =>
    joint.faces.kind.lines
      .filter((line) => !isOpen(joint.id, line))
      .map((line): SimulationStep => ({ id: `${joint.id}/${line}`, do: "bead", joint: joint.id, line, closingMm: 0 })),
  );
  const made = deeds.map((deed) => deedStep(structure, model, mechanics, deed));
  const plan = yield* partOf(
    compilingLoads(new CompileCache(model, factors), [...welded, ...made.map((m) => m.step)]),
    0,
    0.8,
  );
  const outputs = frameOutputs(structure, mechanics.joints)(model);
  const outcomes = frameOutcomes(structure, mechanics.joints)(model, outputs).filter((o) => !o.unsigned);
  // What is done to a finished frame is worked out elastic: nothing yields, and what was open is shut.
  const movedBy = finishedFrame(plan, welded.length);
  const effects = new Map<string, Record<string, number>>();
  for (const [i, { step, local }] of made.entries()) {
    const moved = movedBy(welded.length + i);
    const change = Float64Array.from(outputs.rows, (row) => sparseDot(row, moved));
    local?.(outputs, change);
    effects.set(step.id, Object.fromEntries(outcomes.map((o) => [outcomeKey(o.id), outcomeAt(o, change, 0)])));
    yield 0.8 + (0.2 * i) / made.length;
  }
  return effects;
}

/** A deed as a step, and what it does within a member besides: what nodes do not show. */
interface Made {
  step: SimulationStep;
  local?: (outputs: Outputs, change: Float64Array) => void;
}

const beadStep = ({ id, joint, line, share, heatJPerMm }: Extract<UnitDeed, { do: "bead" }>): SimulationStep => ({
  id,
  do: "bead",
  joint,
  line,
  share,
  heatJPerMm,
});

function deedStep(structure: Structure, model: WeldedModel, mechanics: StructureMechanics, deed: UnitDeed): Made {
  switch (deed.do) {
    case "bead":
      return { step: beadStep(deed) };
    case "pull": {
      const [p, q] = [deed.from, deed.to].map((at) => {
        if ("member" in at) {
          const nodes = model.members.get(at.member)?.nodes ?? [];
          const node = nodes[at.end === "from" ? 0 : nodes.length - 1];
          return { member: at.member, point: model.nodes[node]?.point ?? "" };
        }
        const joint = structure.joints.find((j) => j.id === at.joint);
        return { member: joint?.a ?? "", point: mechanics.joints.get(at.joint)?.a ?? "" };
      });
      const way = unit3(
        sub3(model.nodes[model.nodeOf(q.member, q.point)].at, model.nodes[model.nodeOf(p.member, p.point)].at),
      );
      return {
        step: {
          id: deed.id,
          do: "load",
          ...p,
          wrench: [...way, 0, 0, 0],
          and: { ...q, wrench: [...scale3(way, -1), 0, 0, 0] },
        },
      };
    }
    case "kink":
      return kinked(model, deed);
  }
}

/**
 * A member turned by a kink within one of its elements: nodal forces K u0 of the free shape u0, whose nodes then move as the frame lets
 * them; within the element the free shape less its cubic is added. Source: initial strain in beam elements (any text).
 */
function kinked(model: WeldedModel, deed: Extract<UnitDeed, { do: "kink" }>): Made {
  const member = model.members.get(deed.member) as ModelMember;
  const [x, y, z] = member.axes;
  // A bow along local y turns about z, one along z about -y.
  const turn: Vec3 = deed.way === "bow" ? scale3(z, KINK_RAD) : scale3(y, -KINK_RAD);
  const iMm4 = deed.way === "bow" ? member.section.izMm4 : member.section.iyMm4;
  let start = 0;
  let at = 0;
  for (let i = 0; i + 1 < member.nodes.length; i++) {
    const long = norm3(sub3(model.nodes[member.nodes[i + 1]].at, model.nodes[member.nodes[i]].at));
    at = i;
    if (deed.alongMm <= start + long || i + 2 === member.nodes.length) break;
    start += long;
  }
  const [from, to] = [model.nodes[member.nodes[at]], model.nodes[member.nodes[at + 1]]];
  const long = norm3(sub3(to.at, from.at));
  const s = Math.min(long, Math.max(0, deed.alongMm - start));
  const arm = cross3(turn, x);
  // Shift and turn of the far end, the near one held.
  const shift = scale3(arm, long - s);
  const k = (model.frame.material.eMPa * iMm4) / long ** 3;
  const force = add3(scale3(shift, 12 * k), scale3(arm, -6 * long * k));
  const moment = (share: number): Vec3 =>
    add3(scale3(cross3(x, shift), -6 * long * k), scale3(turn, share * long ** 2 * k));
  const step: SimulationStep = {
    id: deed.id,
    do: "load",
    member: deed.member,
    point: from.point,
    wrench: [...scale3(force, -1), ...moment(2)],
    and: { member: deed.member, point: to.point, wrench: [...force, ...moment(4)] },
  };
  return {
    step,
    local: (outputs, change) => {
      const middle = outputs.points.find((p) => p.id === `${deed.member}/${at}-${at + 1}`);
      if (!middle) return;
      // Free shape at the middle, less what the cubic through the free ends has there.
      const free = scale3(arm, Math.max(0, long / 2 - s));
      const cubic = add3(scale3(shift, 0.5), scale3(arm, -long / 8));
      for (let i = 0; i < 3; i++) change[middle.first + i] = change[middle.first + i] + free[i] - cubic[i];
    },
  };
}

/**
 * What one more bead over each of some seams does to a frame that was welded in an order: lines that yielded while it was welded stand at
 * their yield force, so that one more bead closes less than the first. Each by itself, from where the order ended.
 */
export function* moreBeads(
  structure: Structure,
  mechanics: StructureMechanics,
  factors: ShrinkFactors,
  steps: readonly SimulationStep[],
  deeds: readonly Extract<UnitDeed, { do: "bead" }>[],
): Generator<number, UnitEffects> {
  const joints = { ...NOMINAL_JOINTS, gapMm: factors.gap.value };
  const done = steps.length;
  const made = deeds.map(beadStep);
  const { model, plan, outputs, condensed } = yield* partOf(
    readied(mechanics.frame, [...steps, ...made], factors, joints, frameOutputs(structure, mechanics.joints), "drawn"),
    0,
    0.5,
  );
  const run = new LowRankRun(condensed, NO_DRAWS);
  const first = plan.stepOf.findIndex((s) => s >= done);
  const worked = first === -1 ? plan.actions.length : first;
  for (let a = 0; a < worked; a++) {
    run.forward(plan, a, a + 1);
    yield 0.5 + (0.3 * a) / worked;
  }
  run.forgetMovement();
  const kept = run.snapshot(worked);
  const outcomes = frameOutcomes(structure, mechanics.joints)(model, outputs).filter((o) => !o.unsigned);
  const effects = new Map<string, Record<string, number>>();
  for (let i = worked; i < plan.actions.length; i++) {
    // Each as if it alone came after the order: one more bead leaves a welded joint's stiffness as it is.
    const own = {
      ...plan,
      actions: [...plan.actions.slice(0, worked), plan.actions[i]],
      stepOf: [...plan.stepOf.slice(0, worked), plan.stepOf[i]],
    };
    run.restore(kept);
    run.forward(own, worked, worked + 1);
    const change = run.gather();
    effects.set(
      plan.steps[plan.stepOf[i]]?.id ?? "",
      Object.fromEntries(outcomes.map((o) => [outcomeKey(o.id), outcomeAt(o, change, 0)])),
    );
    yield 0.8 + (0.2 * (i - worked)) / (plan.actions.length - worked);
  }
  return effects;
}
