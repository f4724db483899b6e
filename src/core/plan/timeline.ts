import type { Structure } from "../frame";
import {
  COLD_RISE_K,
  coolingJoint,
  type HeatPulse,
  interpassRiseK,
  riseK,
  secondsUntil,
  TOUCH_RISE_K,
  type Weld,
} from "../weld";
import { loadSteps } from "./loadSteps";
import type { Step } from "./step";
import type { StepId } from "./stepSchema";

/** What handling takes, s (own judgement, for one person at a bench). */
export const HANDLING_S = {
  hold: 600,
  release: 120,
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
  return handling[id.do as "hold" | "release" | "flip" | "measure"] ?? 0;
};

/** What a weld puts into its joint. */
interface Heat {
  joint: string;
  energyJ: number;
  arcS: number;
}

/** Heat of every tack and bead of an order, by its key. */
function heats(structure: Structure, weld: Weld, steps: readonly Step[]): Map<string, Heat> {
  const lengths = new Map<string, number>(
    structure.joints.flatMap((j) => j.faces.map((f) => [`${j.id}/${f.line}`, f.lengthMm] as const)),
  );
  return new Map(
    loadSteps(structure, weld, steps, []).flatMap((s): [string, Heat][] => {
      if (s.do !== "tack" && s.do !== "bead") return [];
      const step = steps.find((x) => x.key === s.id);
      const lengthMm = s.do === "tack" ? s.lengthMm : (lengths.get(`${step?.joint}/${step?.line}`) ?? 0);
      return [[s.id, { joint: s.joint, energyJ: (s.heatJPerMm ?? 0) * lengthMm, arcS: lengthMm / weld.travelMmPerS }]];
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

/** How long an order takes, as it is planned. */
export interface Timeline {
  /** When each step begins and how long it takes, s, by its key. */
  steps: ReadonlyMap<string, { atS: number; takesS: number }>;
  totalS: number;
  /** With the arc on. */
  arcS: number;
  /** Of waiting for steel to cool. */
  waitS: number;
}

/**
 * Times of an order: arc by length over travel, cooling by what was welded until then, handling by what is usual.
 * @param weld settings without errors. @param handling of whoever works here; what is usual when left out.
 */
export function timelineOf(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  handling: Handling = HANDLING_S,
): Timeline {
  const heat = heats(structure, weld, steps);
  const pulses = new Map<string, HeatPulse[]>();
  const times = new Map<string, { atS: number; takesS: number }>();
  let now = 0;
  let arcS = 0;
  let waitS = 0;
  for (const step of steps) {
    let takesS = 0;
    const own = heat.get(step.key);
    if (own) {
      takesS = handling.move + own.arcS;
      arcS += own.arcS;
      pulses.set(own.joint, [...(pulses.get(own.joint) ?? []), { atS: now + takesS, energyJ: own.energyJ }]);
    } else if (step.waitsFor) {
      takesS = lastToCool(structure, pulses, now, step.waitsFor)?.seconds ?? 0;
      waitS += takesS;
    } else takesS = handlingS(step.id, handling);
    times.set(step.key, { atS: now, takesS });
    now += takesS;
  }
  return { steps: times, totalS: now, arcS, waitS };
}

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
  const limitK = Math.min(
    ...structure.members.filter((m) => m.id === joint.a || m.id === joint.b).map((m) => interpassRiseK(m.material)),
  );
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

/** A time as one says it: minutes up to an hour and a half, then hours. */
export function timeWords(seconds: number): string {
  const minutes = Math.max(1, Math.round(seconds / 60));
  if (minutes < 90) return `${minutes} min`;
  const quarter = Math.round(minutes / 15) / 4;
  return `${Math.floor(quarter)} h${quarter % 1 === 0 ? "" : ` ${60 * (quarter % 1)} min`}`;
}
