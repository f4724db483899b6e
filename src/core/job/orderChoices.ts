import {
  canCutAndSet,
  chosenOrder,
  notForFrame,
  type OrderChoice,
  type Step,
  type StepId,
  stepKey,
  TACK_SCHOOLS,
  USUAL_ORDER,
  WELD_SCHOOLS,
  workpiece,
} from "../plan";
import { builtOf } from "./built";
import { evaluationContext } from "./evaluationContext";
import type { Job } from "./jobSchema";
import { type Bead, classesOf, liesUp } from "./orderMoves";
import { tickedInTurn } from "./tickedInTurn";

/** Whether an order cuts and sets the frame once more when it is tacked. */
export const isCutAndSet = (choice: OrderChoice): boolean =>
  choice.by === "schools" ? choice.cutAndSet === true : choice.steps.some((s) => s.do === "measure" && s.cut === true);

/** A pair of schools, cut and set once more when all is tacked, or not; null where it cannot be. */
export function withCut(job: Job, choice: OrderChoice, cut: boolean): OrderChoice | null {
  const { structure } = builtOf(job.plan);
  if (choice.by !== "schools" || !structure || doneOf(job).isTacked) return null;
  const { cutAndSet: _, ...without } = choice;
  if (!cut) return without;
  return canCutAndSet(structure, choice) ? { ...without, cutAndSet: true } : null;
}

/** What is done already: beads in the order in which they were ticked, and whether tacking began. */
function doneOf(job: Job): { beads: Bead[]; isTacked: boolean } {
  const { ticked } = evaluationContext(job, null);
  const beads = new Map(
    job.entries.flatMap((e) => (e.kind === "tick" && e.step.do === "bead" ? [[stepKey(e.step), e.step] as const] : [])),
  );
  return {
    beads: tickedInTurn(job, ticked).flatMap((k) => beads.get(k) ?? []),
    isTacked: [...ticked].some((k) => /^(tack|bead)\//.test(k)),
  };
}

/**
 * Orders by every pair of schools that has something to say of the frame; skip lays the same beads as across and around. What is tacked
 * is tacked: then they differ in their beads alone, and those that are welded come first.
 */
export function schoolChoices(job: Job): OrderChoice[] {
  const { structure, on } = builtOf(job.plan);
  if (!structure) return [];
  const { beads, isTacked } = doneOf(job);
  const current = job.plan.order ?? USUAL_ORDER;
  const isCut = isCutAndSet(current);
  /** What is tacked already, as it was planned; null while nothing is. */
  const tacked = isTacked ? tackingOf(chosenOrder(structure, on, current).steps) : null;
  const up = liesUp(workpiece(structure, on));
  const goneOn = (choice: OrderChoice): OrderChoice => {
    const isAsPlanned = beads.length === 0 && (tacked === null || current.by === "schools");
    if (isAsPlanned || structure.groups.length > 0) return choice;
    const steps = chosenOrder(structure, on, choice).steps;
    const done = new Set(beads.map(stepKey));
    const rest = beadsOf(steps).filter((b) => !done.has(stepKey(b)));
    return { ...choice, by: "computed", steps: laid(tacked ?? tackingOf(steps), [...beads, ...rest], up) };
  };
  const fits = (id: (typeof TACK_SCHOOLS)[number] | (typeof WELD_SCHOOLS)[number]) =>
    notForFrame(id, structure) === null;
  return TACK_SCHOOLS.filter((t) => (isTacked ? t === current.tack : fits(t))).flatMap((tack) =>
    WELD_SCHOOLS.filter((w) => w !== "skip" && fits(w)).flatMap((weld): OrderChoice[] => {
      // Cut and set as planned: the other way is compared for the best of them.
      const cut = isCut ? { cutAndSet: true as const } : {};
      const apart = goneOn({ by: "schools", tack, weld, ...(structure.groups.length > 0 ? {} : cut) });
      return structure.groups.length > 0 ? [apart, { by: "schools", tack, weld, together: true, ...cut }] : [apart];
    }),
  );
}

const beadsOf = (steps: readonly Step[]): Bead[] => steps.flatMap((s) => (s.id.do === "bead" ? [s.id as Bead] : []));

/** The tacking of an order: what comes before its first bead, but for what belongs to welding. */
function tackingOf(steps: readonly Step[]): Step[] {
  const first = steps.findIndex((s) => s.id.do === "bead");
  return steps.slice(0, first < 0 ? steps.length : first).filter((s) => s.part === "tack");
}

/** An order of beads as steps: turned over where a face wants it, cooled before it is turned, and cold at the end. */
function laid(tacking: readonly Step[], beads: readonly Bead[], up: (b: Bead) => "top" | "bottom" | null): StepId[] {
  let lies = tacking.at(-1)?.up ?? "top";
  let turns = 0;
  const steps: StepId[] = tacking.map((s) => s.id);
  for (const bead of beads) {
    const wants = up(bead);
    if (wants && wants !== lies) {
      if (turns === 0 && steps.at(-1)?.do === "bead") steps.push({ do: "wait", until: "touch" });
      turns++;
      steps.push({ do: "flip", part: "weld", nth: turns });
      lies = wants;
    }
    steps.push(bead);
  }
  steps.push({ do: "wait", until: "cold" }, { do: "release" }, { do: "measure", gate: "cold", nth: 1 });
  return steps;
}

/** What a search moves: the beads that are not welded yet, behind the tacks of an order. */
export interface BeadSpace {
  beads: Bead[];
  /** Face class of each, by its key. */
  classes: ReadonlyMap<string, string>;
  /** The whole order with the beads so. */
  choiceOf: (beads: readonly Bead[]) => OrderChoice;
}

/** @param job without errors. @param start whose tacks stay, and whose beads the search begins with. */
export function beadSpace(job: Job, start: OrderChoice): BeadSpace {
  const { structure, on } = builtOf(job.plan);
  if (!structure) throw new RangeError("The frame has errors.");
  const work = workpiece(structure, on);
  const up = liesUp(work);
  const { steps } = chosenOrder(structure, on, start);
  const tacking = tackingOf(steps);
  const { beads: done } = doneOf(job);
  const isDone = new Set(done.map(stepKey));
  return {
    // Sub-assemblies keep their order: there a search has nothing to move.
    beads: structure.groups.length > 0 ? [] : beadsOf(steps).filter((b) => !isDone.has(stepKey(b))),
    classes: classesOf(work),
    choiceOf: (beads) => ({
      by: "computed",
      tack: start.tack,
      weld: start.weld,
      steps: laid(tacking, [...done, ...beads], up),
    }),
  };
}
