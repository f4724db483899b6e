import type { Structure, StructureJoint } from "../frame";
import {
  COLD_RISE_K,
  coolingJoint,
  type HeatPulse,
  interpassRiseK,
  type ProcessName,
  processOf,
  riseK,
  seamId,
  secondsUntil,
  settingsBy,
  TOUCH_RISE_K,
  type Weld,
} from "../weld";
import { lengthsOf } from "./laying";
import { loadSteps } from "./loadSteps";
import type { Step } from "./step";
import type { StepId } from "./stepSchema";

/** What handling takes, s (own judgement, for one person at a bench). */
export const HANDLING_S = {
  hold: 600,
  release: 120,
  /** Tacking a bar on, or putting a block in; cutting it off, or knocking it out. */
  brace: 180,
  unbrace: 120,
  flip: 240,
  measure: 240,
  /** Grinding the tacks of a corner through, setting it, tacking it again, measuring. */
  cut: 900,
  /** To the next place, helmet down. */
  move: 20,
} as const;

/** How long handling takes whoever works here, s. */
export type Handling = Readonly<Record<keyof typeof HANDLING_S, number>>;

const handlingS = (id: StepId, handling: Handling): number => {
  if (id.do === "measure" && id.cut) return handling.cut;
  return handling[id.do as "hold" | "release" | "brace" | "unbrace" | "flip" | "measure"] ?? 0;
};

/** What a weld puts into its joint. */
interface Heat {
  joint: string;
  energyJ: number;
  arcS: number;
  process: ProcessName;
  /** Lengths that it is laid in. */
  lengths: number;
}

/** Heat of every tack and bead of an order, by its key. */
function heats(structure: Structure, weld: Weld, steps: readonly Step[]): Map<string, Heat> {
  const long = new Map<string, number>(
    structure.joints.flatMap((j) => j.faces.map((f) => [seamId({ joint: j.id, line: f.line }), f.lengthMm] as const)),
  );
  const byKey = new Map(steps.map((s) => [s.key, s]));
  return new Map(
    loadSteps(structure, weld, steps).flatMap((s): [string, Heat][] => {
      if (s.do !== "tack" && s.do !== "bead") return [];
      const step = byKey.get(s.id);
      if (!step || (step.id.do !== "tack" && step.id.do !== "bead")) return [];
      const { joint, line } = step.id;
      const lengthMm = s.do === "tack" ? s.lengthMm : (long.get(seamId({ joint, line })) ?? 0);
      const { process, travelMmPerS } = settingsBy(weld, processOf(weld, step.id));
      const heat = {
        joint,
        energyJ: (s.heatJPerMm ?? 0) * lengthMm,
        arcS: lengthMm / travelMmPerS,
        process,
        lengths: s.do === "bead" ? lengthsOf(weld, step, lengthMm) : 1,
      };
      return [[s.id, heat]];
    }),
  );
}

/** How long until the last of the joints is cool enough, and which that is; null where nothing is warm. */
function lastToCool(
  structure: Structure,
  pulses: ReadonlyMap<string, readonly HeatPulse[]>,
  fromS: number,
  until: "touch" | "cold",
): { joint: string; seconds: number } | null {
  const rise = until === "touch" ? TOUCH_RISE_K : COLD_RISE_K;
  let last: { joint: string; seconds: number } | null = null;
  for (const joint of structure.joints) {
    const own = pulses.get(joint.id);
    if (!own) continue;
    const seconds = secondsUntil(coolingJoint(structure, joint), own, fromS, rise);
    if (seconds > (last?.seconds ?? 0)) last = { joint: joint.id, seconds };
  }
  return last;
}

/** Who welds: the second where two do. */
export type Welder = 1 | 2;

/** When a step begins and how long it takes, s; of a weld how long the arc burns, and how often one moves to a place. */
export interface StepTime {
  atS: number;
  takesS: number;
  arcS: number;
  moves: number;
  welder: Welder;
}

/** How long an order takes, as it is planned. */
export interface Timeline {
  /** Every step by its key. */
  steps: ReadonlyMap<string, StepTime>;
  totalS: number;
  /** With the arc on, of all welders. */
  arcS: number;
  /** The same by process. */
  arcBy: ReadonlyMap<ProcessName, number>;
  /** Of waiting for steel to cool: as the order says, and for what a joint may have between beads. */
  waitS: number;
  /** Of measuring, cutting and setting. */
  measureS: number;
}

/** Who does the work, and how fast. */
export interface Hands {
  /** Of whoever works here; what is usual when left out. */
  handling?: Handling;
  /** Two weld at different joints at once. */
  welders?: Welder;
}

/**
 * Times of an order: arc by length over travel, cooling by what was welded until then, handling by what is usual. A joint cools to what it
 * may have before its next bead. Where two weld, whoever is free first takes the next weld in the order, never two at one joint at
 * once; what is done to the whole frame waits for both.
 * @param weld settings without errors.
 */
export function timelineOf(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  { handling = HANDLING_S, welders = 1 }: Hands = {},
): Timeline {
  const heat = heats(structure, weld, steps);
  const pulses = new Map<string, HeatPulse[]>();
  const cools = new Map(
    structure.joints.map(
      (j) => [j.id, { cooling: coolingJoint(structure, j), limitK: interpassK(structure, j) }] as const,
    ),
  );
  const times = new Map<string, StepTime>();
  const arcBy = new Map<ProcessName, number>();
  const free: Record<Welder, number> = { 1: 0, 2: welders === 2 ? 0 : Number.POSITIVE_INFINITY };
  const jointFree = new Map<string, number>();
  const all = (): number => Math.max(...Object.values(free).filter(Number.isFinite));
  let waitS = 0;
  let measureS = 0;
  for (const step of steps) {
    const own = heat.get(step.key);
    if (own) {
      const welder: Welder = free[2] < free[1] ? 2 : 1;
      const atS = Math.max(free[welder], jointFree.get(own.joint) ?? 0);
      const before = pulses.get(own.joint) ?? [];
      const joint = cools.get(own.joint);
      const cool = joint ? secondsUntil(joint.cooling, before, atS, joint.limitK) : 0;
      const takesS = cool + own.lengths * handling.move + own.arcS;
      waitS += cool;
      arcBy.set(own.process, (arcBy.get(own.process) ?? 0) + own.arcS);
      pulses.set(own.joint, [...before, { atS: atS + takesS, energyJ: own.energyJ }]);
      times.set(step.key, { atS, takesS, arcS: own.arcS, moves: own.lengths, welder });
      free[welder] = atS + takesS;
      jointFree.set(own.joint, atS + takesS);
      continue;
    }
    const atS = all();
    const takesS = step.waitsFor
      ? (lastToCool(structure, pulses, atS, step.waitsFor)?.seconds ?? 0)
      : handlingS(step.id, handling);
    if (step.waitsFor) waitS += takesS;
    if (step.id.do === "measure") measureS += takesS;
    times.set(step.key, { atS, takesS, arcS: 0, moves: 0, welder: 1 });
    free[1] = atS + takesS;
    if (welders === 2) free[2] = atS + takesS;
  }
  const arcS = [...arcBy.values()].reduce((sum, s) => sum + s, 0);
  return { steps: times, totalS: all(), arcS, arcBy, waitS, measureS };
}

/** How hot a joint may be before its next bead, over the air, K, by its members' material. */
const interpassK = (structure: Structure, joint: StructureJoint): number =>
  Math.min(
    ...structure.members.filter((m) => m.id === joint.a || m.id === joint.b).map((m) => interpassRiseK(m.material)),
  );

/**
 * How long a frame still wants to cool, from when its steps were ticked.
 * @param ticked when each step was ticked, s from whatever `nowS` counts from. @returns null where nothing is too warm.
 */
export function coolsFor(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  ticked: ReadonlyMap<string, number>,
  nowS: number,
  until: "touch" | "cold",
): { joint: string; seconds: number } | null {
  return lastToCool(structure, pulsesOf(structure, weld, steps, ticked), nowS, until);
}

/** How warm a joint is. */
export interface Warmth {
  joint: string;
  /** Over the air, K. */
  riseK: number;
  /** Too hot to touch; warm enough to read long; as cold as the shop. */
  is: "hot" | "warm" | "cold";
}

/**
 * How warm every joint is that something was welded at, hottest first, from when its steps were ticked.
 * @param ticked when each step was ticked, s from whatever `nowS` counts from.
 */
export function warmthOf(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  ticked: ReadonlyMap<string, number>,
  nowS: number,
): Warmth[] {
  const pulses = pulsesOf(structure, weld, steps, ticked);
  return structure.joints
    .flatMap((joint): Warmth[] => {
      const own = pulses.get(joint.id);
      if (!own) return [];
      const rise = riseK(coolingJoint(structure, joint), own, nowS);
      return [{ joint: joint.id, riseK: rise, is: rise > TOUCH_RISE_K ? "hot" : rise > COLD_RISE_K ? "warm" : "cold" }];
    })
    .sort((a, b) => b.riseK - a.riseK);
}

/**
 * How long a joint wants to cool before its next bead goes on, and how hot it may be then, over the air, by its members' material.
 * @param ticked when each step was ticked, s from whatever `nowS` counts from. @returns null where it is cool enough, or the step is no weld.
 */
export function interpassWait(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  step: Step,
  ticked: ReadonlyMap<string, number>,
  nowS: number,
): { seconds: number; limitK: number } | null {
  const joint = structure.joints.find((j) => j.id === step.joint);
  const own = joint && pulsesOf(structure, weld, steps, ticked).get(joint.id);
  if (!joint || !own) return null;
  const limitK = interpassK(structure, joint);
  const seconds = secondsUntil(coolingJoint(structure, joint), own, nowS, limitK);
  return seconds > 0 ? { seconds, limitK } : null;
}

/** Heat that ticked steps put into the joints, when they did. */
function pulsesOf(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  ticked: ReadonlyMap<string, number>,
): Map<string, HeatPulse[]> {
  const pulses = new Map<string, HeatPulse[]>();
  for (const [key, { joint, energyJ }] of heats(structure, weld, steps)) {
    const atS = ticked.get(key);
    if (atS !== undefined) pulses.set(joint, [...(pulses.get(joint) ?? []), { atS, energyJ }]);
  }
  return pulses;
}

/** Arc, cooling and measuring of a time, in words. @param two whether two weld at once. */
export const timeParts = (
  { arcS, waitS, measureS }: Pick<Timeline, "arcS" | "waitS" | "measureS">,
  two: boolean,
): string =>
  [
    `arc ${timeWords(arcS)}${two ? " of both" : ""}`,
    ...(waitS > 0 ? [`cooling ${timeWords(waitS)}`] : []),
    ...(measureS > 0 ? [`measuring ${timeWords(measureS)}`] : []),
  ].join(", ");

/** What a time is made of, in words. @param two whether two weld at once. */
export function timelineWords(time: Timeline, two: boolean): string {
  return `Takes about ${timeWords(time.totalS)}: ${timeParts(time, two)}, the rest handling, for ${two ? "two who weld at different joints at once" : "one person"}.`;
}

/** A time as one says it: minutes up to an hour and a half, then hours. */
export function timeWords(seconds: number): string {
  const minutes = Math.max(1, Math.round(seconds / 60));
  if (minutes < 90) return `${minutes} min`;
  const quarter = Math.round(minutes / 15) / 4;
  return `${Math.floor(quarter)} h${quarter % 1 === 0 ? "" : ` ${60 * (quarter % 1)} min`}`;
}
