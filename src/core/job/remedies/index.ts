import { remedyKey, type Stands } from "../../check";
import { MATERIALS, type Structure } from "../../frame";
import { DIAGONALS, ends } from "../../geometry";
import { norm3, partOf, sub3 } from "../../numeric";
import { heldMechanics, loadSteps } from "../../plan";
import { moreBeads, type PullAt, remedyEffects, type UnitDeed } from "../../shrink";
import { builtOf } from "../built";
import { factorsOf } from "../factorsOf";
import { heldOf } from "../held";
import type { Plan } from "../planSchema";
import { weldOf } from "../settings";
import { beadDeeds } from "./beadDeeds";
import { grind } from "./grind";
import { heated, heatedRoots } from "./heated";
import { moreBead, peening } from "./moreBead";
import { press } from "./press";
import { pushable } from "./pushable";
import { rack } from "./rack";
import { recut } from "./recut";
import { type Offered, type Remedy, type RemedyContext, tubeOf } from "./remedy";
import { shims } from "./shims";
import { openingPulls, spread } from "./spread";
import { swing, swingPulls } from "./swing";
import { trim } from "./trim";
import { untwist } from "./untwist";

export { beadDeeds } from "./beadDeeds";
export type { Remedy } from "./remedy";

/** Remedies of a frame, and why others are not among them. */
export interface RemedyChoice {
  remedies: Remedy[];
  refused: string[];
}

/** Kinds that need nothing but the frame; those that push its quadrilateral come besides. */
const KINDS: readonly ((context: RemedyContext) => Offered)[] = [
  moreBead,
  peening,
  press,
  heated,
  spread,
  swing,
  heatedRoots,
];
const PUSHES = [rack, untwist] as const;
/** Kinds that neither heat nor bend it. */
const COLD = [shims, grind, trim] as const;

/** Corners pulled towards each other, along either diagonal. */
const diagonalPulls = ({ quad }: Structure): UnitDeed[] =>
  quad
    ? DIAGONALS.map((id) => {
        const [from, to] = ends(id).map((c) => ({ joint: quad.joints[c] })) as [PullAt, PullAt];
        return { id, do: "pull", from, to };
      })
    : [];

/**
 * Remedies for what stands outside its limits, each with what it does to every quantity: in the mechanics of this frame, as it is welded.
 * A generator: yields the share done.
 * @throws RangeError when the plan has errors.
 */
export function* remedyOptions(
  plan: Plan,
  quantities: Readonly<Record<string, Stands>>,
): Generator<number, RemedyChoice> {
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new RangeError("The frame has errors.");
  const soft = structure.members.find((m) => MATERIALS[m.material].heatSoftens);
  const cold = COLD.map((kind) => kind({ plan, structure, quantities }));
  if (soft)
    return choiceOf([
      ...cold,
      {
        offers: [],
        refused: [
          `${MATERIALS[soft.material].label} loses strength when it is heated, and cracks when it is bent back: no bead, no heat, no press. Soft, aligned and hardened again by whoever may do it, or made anew.`,
        ],
      },
    ]);
  const { mechanics, by } = heldMechanics(structure, on, heldOf(structure, plan));
  const factors = factorsOf(plan);
  const steps = loadSteps(structure, weldOf(plan), order.steps, by);
  const beads = beadDeeds(structure, steps);
  const bowed = structure.members.filter((m) => quantities[`straight ${m.id}`] !== undefined && tubeOf(m));
  const kinks = bowed.flatMap((m): UnitDeed[] =>
    (["bow", "lift"] as const).map((way) => ({
      id: `${m.id} ${way}`,
      do: "kink",
      member: m.id,
      alongMm: norm3(sub3(m.to, m.from)) / 2,
      way,
    })),
  );
  const pulls = [
    ...diagonalPulls(structure),
    ...openingPulls(structure, quantities),
    ...swingPulls(structure, quantities),
  ];
  const deeds = [...beads, ...kinks, ...pulls];
  const elastic = yield* partOf(remedyEffects(structure, mechanics, factors, deeds), 0, 0.35);
  const more = yield* partOf(moreBeads(structure, mechanics, factors, steps, beads), 0.35, 0.35);
  const context: RemedyContext = { plan, structure, mechanics, factors, quantities, beads, bowed, elastic, more };
  const found: Offered[] = [...KINDS.map((kind) => kind(context)), ...cold];
  const sides = quantities.square || quantities.twist ? pushable(context) : null;
  if (sides && "why" in sides) found.push({ offers: [], refused: [sides.why] });
  else if (sides) for (const push of PUSHES) found.push(push(context, sides));
  found.push(yield* partOf(recut(context, pulls), 0.7, 0.3));
  return choiceOf(found);
}

/** What is offered by all kinds together, each with its word; what changes nothing that is judged is none. */
const choiceOf = (found: readonly Offered[]): RemedyChoice => ({
  refused: found.flatMap((f) => f.refused),
  remedies: found
    .flatMap((f) => f.offers)
    .filter((o) => Object.keys(o.option.effect).length > 0)
    .map((o) => ({ ...o, option: { id: remedyKey(o.id), ...o.option } })),
});
