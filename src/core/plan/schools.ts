import type { Structure } from "../frame";
import { acrossAndAround } from "./acrossAndAround";
import { allHeld } from "./allHeld";
import { cornersThenField } from "./cornersThenField";
import { hingeFirst } from "./hingeFirst";
import { jointByJoint } from "./jointByJoint";
import { keptReasons } from "./keptReasons";
import type { OrderChoice } from "./orderSchema";
import { outsideFirst } from "./outsideFirst";
import { ownOrder } from "./ownOrder";
import type { SchoolId, TackSchoolId, WeldSchoolId } from "./schoolIds";
import { skip } from "./skip";
import { type LiesOn, type Step, stepKey, turned, type Up } from "./step";
import type { StepId } from "./stepSchema";
import { strengthFirst } from "./strengthFirst";
import { inTurn, stagesOf } from "./subAssemblies";
import { twoHalves } from "./twoHalves";
import { liesFirst, USUAL_ORDER } from "./usualOrder";
import { turnedOver, type Workpiece, workpiece } from "./workpiece";

/** An established order: a pure sorter of steps over the joints of a frame. */
interface School {
  /** @param up how the frame lies when this part begins. */
  order: (work: Workpiece, up: Up) => Step[];
  /** Why it has nothing to say of a frame; null where it has. */
  notFor?: (work: Workpiece) => string | null;
}

/** Whether the corners of what is worked are posts, on which its sides land. */
const onPosts = ({ structure: { quad } }: Workpiece): boolean => quad !== null && Object.keys(quad.posts).length > 0;

const TACKING: Record<TackSchoolId, School> = {
  "hinge first": { order: hingeFirst },
  "outside first": { order: outsideFirst },
  "two halves": {
    order: twoHalves,
    notFor: (work) =>
      work.ring
        ? null
        : onPosts(work)
          ? "It wants a ring of four members joined to each other, and those of this frame land on posts."
          : "It wants a ring of four members, and this frame has none.",
  },
  "all held": { order: allHeld },
};

const WELDING: Record<WeldSchoolId, School> = {
  "across and around": { order: acrossAndAround },
  "strength first": { order: strengthFirst },
  "corners then field": {
    order: cornersThenField,
    notFor: (work) =>
      work.corners.length === 0
        ? onPosts(work)
          ? "It begins at corners of one joint each: those of this frame are posts."
          : "It begins at corners: this frame has none."
        : work.branches.length === 0
          ? "Nothing lies between the corners of this frame."
          : null,
  },
  "joint by joint": { order: jointByJoint },
  skip: { order: skip },
};

const schoolOf = (id: SchoolId): School => (id in TACKING ? TACKING[id as TackSchoolId] : WELDING[id as WeldSchoolId]);

const saysOf = (id: SchoolId, work: Workpiece): boolean => (schoolOf(id).notFor?.(work) ?? null) === null;

/** Why a school has nothing to say of a frame; null where it has. */
export const notForFrame = (id: SchoolId, structure: Structure): string | null =>
  schoolOf(id).notFor?.(workpiece(structure)) ?? null;

/** An order of work with the schools that made it, or that it was begun from. */
export interface Order {
  by: OrderChoice["by"];
  tack: TackSchoolId;
  weld: WeldSchoolId;
  /** Sub-assemblies as one frame. */
  together?: true | undefined;
  /** Cut and set once more when all is tacked. */
  cutAndSet?: true | undefined;
  /** Its underside up to begin with. */
  bottomUp?: true | undefined;
  steps: Step[];
}

/** An order with these steps instead of its own: somebody's own, begun from its schools. */
export const ownChoice = ({ tack, weld, bottomUp }: Omit<Order, "steps">, steps: readonly StepId[]): OrderChoice => ({
  by: "own",
  tack,
  weld,
  ...(bottomUp ? { bottomUp } : {}),
  steps: [...steps],
});

/** An order by what it does, in a word: two that weld the same in the same order are one. Skip lays the beads of across and around. */
export const orderKey = (choice: OrderChoice): string =>
  choice.by === "schools"
    ? `${choice.tack}/${choice.weld === "skip" ? "across and around" : choice.weld}${choice.together ? "/together" : ""}${choice.cutAndSet ? "/cut" : ""}${choice.bottomUp ? "/bottom up" : ""}`
    : `${choice.bottomUp ? "bottom up/" : ""}${choice.steps.map((s) => `${stepKey(s)}${s.do === "measure" && s.cut ? "/cut" : ""}`).join()}`;

/** Whether a frame may be laid down bottom up to begin with: not where sub-assemblies are set on each other. */
export const canLieBottomUp = (structure: Structure, { by, ...choice }: OrderChoice): boolean =>
  structure.groups.length === 0 || (by === "schools" && "together" in choice && choice.together === true);

/** Whether all can be cut and set once more when it is tacked: not where sub-assemblies are cold before the next is set on. */
export const canCutAndSet = (structure: Structure, { by, ...choice }: OrderChoice): boolean =>
  by === "schools" && (structure.groups.length === 0 || ("together" in choice && choice.together === true));

/** The last time that an order measures before its first bead, what holds the frame off is cut, it is set, and tacked again. */
function cutAndSet(order: Order, wished: boolean): Order {
  const bead = order.steps.findIndex((s) => s.id.do === "bead");
  const at = order.steps.findLastIndex((s, i) => s.gate === "tacked" && (bead < 0 || i < bead));
  if (!wished || at < 0) return order;
  return {
    ...order,
    cutAndSet: true,
    steps: order.steps.map((s, i) =>
      i === at && s.id.do === "measure"
        ? { ...s, id: { ...s.id, cut: true }, closes: true, why: { kind: "cut and set" } }
        : s,
    ),
  };
}

const begun = new WeakMap<Structure, Map<string, Step[]>>();

/** The steps of the schools that somebody's own order was begun from; kept, since a search asks for those of one frame thousands of times. */
function begunFrom(structure: Structure, on: LiesOn, choice: OrderChoice): Step[] {
  const { tack, weld } = choice;
  const bottomUp = choice.bottomUp === true && canLieBottomUp(structure, choice);
  const known = begun.get(structure) ?? new Map<string, Step[]>();
  begun.set(structure, known);
  const key = [on, tack, weld, bottomUp].join("/");
  const steps = known.get(key) ?? orderOfWork(structure, on, tack, weld, bottomUp).steps;
  known.set(key, steps);
  return steps;
}

/** The whole order for a frame, as it was chosen. @param on what it is built on. */
export const chosenOrder = (structure: Structure, on: LiesOn, choice: OrderChoice = USUAL_ORDER): Order =>
  choice.by === "schools"
    ? cutAndSet(
        {
          ...orderOfWork(
            choice.together ? { ...structure, groups: [] } : structure,
            on,
            choice.tack,
            choice.weld,
            choice.bottomUp && canLieBottomUp(structure, choice),
          ),
          together: choice.together,
        },
        choice.cutAndSet === true && canCutAndSet(structure, choice),
      )
    : {
        by: choice.by,
        tack: choice.tack,
        weld: choice.weld,
        bottomUp: choice.bottomUp,
        steps: keptReasons(
          ownOrder(structure, on, choice.steps, liesFirst(choice.bottomUp)),
          begunFrom(structure, on, choice),
        ),
      };

/**
 * The whole order for a frame: tacking, then welding as the frame lies by then; sub-assemblies one after the other.
 * @param on what it is built on. @param bottomUp whether it lies on its other side to begin with: then everything is laid so.
 */
export function orderOfWork(
  structure: Structure,
  on: LiesOn = "surface",
  tack: TackSchoolId = "hinge first",
  weld: WeldSchoolId = "across and around",
  bottomUp = false,
): Order {
  const stages = stagesOf(structure, on).map((s) => (bottomUp ? { ...s, work: turnedOver(s.work) } : s));
  const parts = stages.map(({ work, ...stage }) => {
    // A part of which a school has nothing to say is worked by the usual one.
    const first = TACKING[saysOf(tack, work) ? tack : USUAL_ORDER.tack].order(work, "top");
    const second = WELDING[saysOf(weld, work) ? weld : USUAL_ORDER.weld].order(work, first.at(-1)?.up ?? "top");
    return { ...stage, steps: [...first, ...second] };
  });
  const isWorked = (id: SchoolId): boolean => stages.some(({ work }) => saysOf(id, work));
  return {
    by: "schools",
    tack: isWorked(tack) ? tack : USUAL_ORDER.tack,
    weld: isWorked(weld) ? weld : USUAL_ORDER.weld,
    ...(bottomUp ? { bottomUp: true as const } : {}),
    steps: bottomUp ? inTurn(parts).map((s) => ({ ...s, up: turned(s.up) })) : inTurn(parts),
  };
}
