import {
  allJoints,
  brokenHolds,
  canCutAndSet,
  chosenOrder,
  heldBack,
  type LaidBy,
  layEnd,
  layWelds,
  notForFrame,
  type OrderChoice,
  type Step,
  type StepId,
  stepKey,
  TACK_SCHOOLS,
  turned,
  type Up,
  USUAL_ORDER,
  WELD_SCHOOLS,
  type WeldId,
  type Workpiece,
  workpiece,
} from "../plan";
import { seamId } from "../weld";
import { builtOf } from "./built";
import { evaluationContext } from "./evaluationContext";
import type { Job } from "./jobSchema";
import { classesOf, liesUp } from "./orderMoves";
import { tickedInTurn } from "./tickedInTurn";

/** Whether an order cuts and sets the frame once more when it is tacked. */
export const isCutAndSet = (choice: OrderChoice): boolean =>
  choice.by === "schools" ? choice.cutAndSet === true : choice.steps.some((s) => s.do === "measure" && s.cut === true);

/** A pair of schools, cut and set once more when all is tacked, or not; null where it cannot be. */
export function withCut(job: Job, choice: OrderChoice, cut: boolean): OrderChoice | null {
  const { structure } = builtOf(job.plan);
  if (choice.by !== "schools" || !structure || doneOf(job).isTacked) return null;
  const { cutAndSet: _, ...without } = choice;
  const other = cut ? { ...without, cutAndSet: true as const } : without;
  const { steps } = chosenOrder(structure, builtOf(job.plan).on, other);
  const isKept =
    brokenHolds(
      steps.map((s) => s.id),
      job.plan.holds ?? [],
    ).length === 0;
  return isKept && (!cut || canCutAndSet(structure, choice)) ? other : null;
}

interface Done {
  /** Beads in the order in which they were ticked. */
  beads: WeldId[];
  /** Whether tacking began. */
  isTacked: boolean;
}
/** A comparison asks it for each of its orders. */
const DONE = new WeakMap<Job, Done>();

/** What is done already. */
function doneOf(job: Job): Done {
  const known = DONE.get(job) ?? foundDone(job);
  DONE.set(job, known);
  return known;
}

function foundDone(job: Job): Done {
  const { ticked } = evaluationContext(job, null);
  const beads = new Map(
    job.entries.flatMap((e) => (e.kind === "tick" && e.step.do === "bead" ? [[stepKey(e.step), e.step] as const] : [])),
  );
  return {
    beads: tickedInTurn(job, ticked).flatMap((k) => beads.get(k) ?? []),
    isTacked: [...ticked].some((k) => /^(tack|bead)\//.test(k)),
  };
}

const beadsOf = (steps: readonly Step[]): WeldId[] => steps.flatMap((s) => (s.id.do === "bead" ? [s.id] : []));

/** The tacking of an order: what comes before its first bead, but for what belongs to welding. */
function tackingOf(steps: readonly Step[]): Step[] {
  const first = steps.findIndex((s) => s.id.do === "bead");
  return steps.slice(0, first < 0 ? steps.length : first).filter((s) => s.part === "tack");
}

/** The tacking of an order in three: up to where the error is closed, or the frame was looked at dry; the tacks behind; the gate at the end. */
function tackingInThree(steps: readonly Step[]): { head: Step[]; tacks: WeldId[]; tail: Step[] } {
  const tacking = tackingOf(steps);
  const from =
    1 + tacking.findLastIndex((s) => s.gate === "dry fit" || (s.closes && !(s.id.do === "measure" && s.id.cut)));
  const to = 1 + tacking.findLastIndex((s) => s.id.do === "tack");
  return {
    head: tacking.slice(0, from),
    tacks: tacking.slice(from, Math.max(from, to)).flatMap((s) => (s.id.do === "tack" ? [s.id] : [])),
    tail: tacking.slice(Math.max(from, to)),
  };
}

/** What welds of a job are laid by, on a frame. */
function laidBy(job: Job, work: Workpiece, mostTurns: number | null): LaidBy {
  const { hands, holds } = job.plan;
  return { up: liesUp(work), mostTurns: hands?.overhead ? mostTurns : null, holds: holds ?? [] };
}

/**
 * Orders by every pair of schools that has something to say of the frame; skip lays the same beads as across and around. What is tacked
 * is tacked: then they differ in their beads alone, and those that are welded come first. Where a school breaks a hold, its welds wait.
 */
export function schoolChoices(job: Job): OrderChoice[] {
  const { structure, on } = builtOf(job.plan);
  if (!structure) return [];
  const { beads, isTacked } = doneOf(job);
  const current = job.plan.order ?? USUAL_ORDER;
  const isCut = isCutAndSet(current);
  // As planned lies as planned: a search tries the other side.
  const bottomUp = current.bottomUp && structure.groups.length === 0 ? { bottomUp: true as const } : {};
  const holds = job.plan.holds ?? [];
  /** What is tacked already, as it was planned; null while nothing is. */
  const tacked = isTacked ? tackingOf(chosenOrder(structure, on, current).steps) : null;
  const by = laidBy(job, workpiece(structure, on), null);
  const goneOn = (choice: OrderChoice): OrderChoice => {
    const steps = chosenOrder(structure, on, choice).steps;
    const isAsPlanned = beads.length === 0 && (tacked === null || current.by === "schools");
    const isHeld = brokenHolds(
      steps.map((s) => s.id),
      holds,
    );
    if ((isAsPlanned && isHeld.length === 0) || structure.groups.length > 0) return choice;
    const done = new Set(beads.map(stepKey));
    const rest = heldBack(
      beadsOf(steps).filter((b) => !done.has(stepKey(b))),
      holds,
    );
    const start = tacked ? standing(tacked) : laidTacks(steps, by);
    return {
      by: "computed",
      tack: choice.tack,
      weld: choice.weld,
      ...bottomUp,
      steps: layEnd(layWelds(start, "weld", [...beads, ...rest], by).steps),
    };
  };
  const fits = (id: (typeof TACK_SCHOOLS)[number] | (typeof WELD_SCHOOLS)[number]) =>
    notForFrame(id, structure) === null;
  return TACK_SCHOOLS.filter((t) => (isTacked ? t === current.tack : fits(t))).flatMap((tack) =>
    WELD_SCHOOLS.filter((w) => w !== "skip" && fits(w)).flatMap((weld): OrderChoice[] => {
      // Cut and set as planned: the other way is compared for the best of them.
      const cut = { ...(isCut ? { cutAndSet: true as const } : {}), ...bottomUp };
      const apart = goneOn({ by: "schools", tack, weld, ...(structure.groups.length > 0 ? {} : cut) });
      return structure.groups.length > 0 ? [apart, { by: "schools", tack, weld, together: true, ...cut }] : [apart];
    }),
  );
}

/** Steps as they are, and how the frame lies after them. */
const standing = (steps: readonly Step[]): { steps: StepId[]; lies: Up } => ({
  steps: steps.map((s) => s.id),
  lies: steps.at(-1)?.up ?? "top",
});

/** The tacking of an order, with these tacks instead of those behind where the error is closed; its own, held back, when left out. */
function laidTacks(steps: readonly Step[], by: LaidBy, own?: readonly WeldId[]): { steps: StepId[]; lies: Up } {
  const { head, tacks, tail } = tackingInThree(steps);
  const wanted = heldBack(own ?? tacks, by.holds);
  const isSame = wanted.length === tacks.length && wanted.every((t, i) => stepKey(t) === stepKey(tacks[i] as WeldId));
  if (isSame && by.holds.length === 0) return standing(tackingOf(steps));
  const laid = layWelds(standing(head), "tack", wanted, by);
  return { steps: [...laid.steps, ...tail.map((s) => s.id)], lies: laid.lies };
}

/** A member is level when its way is this near to level. */
const LEVEL = 0.1;

/** What a search moves. */
export interface Moving {
  /** Tacks behind where the error is closed. */
  tacks: readonly WeldId[];
  /** Beads that are not welded yet. */
  beads: readonly WeldId[];
  /** Underside up to begin with. */
  bottomUp: boolean;
}

/** What a search may move, and what it may not. */
export interface WeldSpace {
  start: Moving;
  /** Tacks that may be put in besides: of every face that gets a bead, but for those that stay where they are. None once tacking began. */
  places: readonly WeldId[];
  /** How many tacks of each joint stay where they are. */
  kept: ReadonlyMap<string, number>;
  /** The same with the frame on its other side to begin with, and what looked up and down changed over; null where it may not lie so. */
  over: ((moving: Moving) => Moving) | null;
  /** Face class of each weld, by the key of its face's first bead. */
  classes: ReadonlyMap<string, string>;
  /** The whole order with them so. */
  choiceOf: (moving: Moving) => OrderChoice;
}

/** @param job without errors. @param start whose welds the search begins with. @param mostTurns how often the frame may be turned over. */
export function weldSpace(job: Job, start: OrderChoice, mostTurns: number): WeldSpace {
  const { structure, on } = builtOf(job.plan);
  if (!structure) throw new RangeError("The frame has errors.");
  const work = workpiece(structure, on);
  const by = laidBy(job, work, mostTurns);
  const { steps } = chosenOrder(structure, on, start);
  const { beads: done, isTacked } = doneOf(job);
  const isDone = new Set(done.map(stepKey));
  // Sub-assemblies keep their order: there a search has nothing to move.
  const isFixed = structure.groups.length > 0;
  const { head, tacks } = tackingInThree(steps);
  const stay = head.flatMap((s) => (s.id.do === "tack" ? [s.id] : []));
  const kept = new Map<string, number>();
  for (const { joint } of stay) kept.set(joint, 1 + (kept.get(joint) ?? 0));
  const staying = new Set(stay.map(stepKey));
  const places = structure.joints.flatMap((j) =>
    j.faces.flatMap((f): WeldId[] => {
      const tack = { do: "tack" as const, joint: j.id, line: f.line };
      return f.bead && !staying.has(stepKey(tack)) ? [tack] : [];
    }),
  );
  // Only a flat frame that nobody began lies as well on its other side.
  const mayLieOver = !isFixed && !isTacked && structure.members.every((m) => Math.abs(m.axes[0][2]) < LEVEL);
  const across = new Map(
    allJoints(work).flatMap(({ joint, up, down }) =>
      up && down
        ? [
            [seamId({ joint: joint.id, line: up.line }), down.line] as const,
            [seamId({ joint: joint.id, line: down.line }), up.line] as const,
          ]
        : [],
    ),
  );
  const other = (weld: WeldId): WeldId => ({ ...weld, line: across.get(seamId(weld)) ?? weld.line });
  return {
    start: {
      tacks: isFixed || isTacked ? [] : tacks,
      beads: isFixed ? [] : beadsOf(steps).filter((b) => !isDone.has(stepKey(b))),
      bottomUp: start.bottomUp === true,
    },
    over: mayLieOver
      ? ({ tacks: own, beads, bottomUp }) => ({ tacks: own.map(other), beads: beads.map(other), bottomUp: !bottomUp })
      : null,
    places: isFixed || isTacked ? [] : places,
    kept,
    classes: classesOf(work),
    choiceOf: ({ tacks: own, beads, bottomUp }) => {
      const lies = bottomUp === (start.bottomUp === true) ? steps : steps.map((s) => ({ ...s, up: turned(s.up) }));
      const begun = isTacked ? standing(tackingOf(steps)) : laidTacks(lies, by, own);
      const laid = layWelds(begun, "weld", heldBack([...done, ...beads], by.holds), by);
      return {
        by: "computed",
        tack: start.tack,
        weld: start.weld,
        ...(bottomUp ? { bottomUp: true as const } : {}),
        steps: layEnd(laid.steps),
      };
    },
  };
}
