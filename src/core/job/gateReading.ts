import type { Limit } from "../check";
import type { Structure } from "../frame";
import { partsOfSteps, type Step } from "../plan";
import type { FrameRound } from "./frameRound";

/** Limits that hold before welding as well as after. */
export const AT_ANY_GATE: readonly Limit["kind"][] = ["gap", "flush", "straight"];

/** How a step that asks for readings stands. */
export interface GateReading {
  /** `unread` until the shape is known; `failed` when what was read is outside its limit. */
  state: "unread" | "read" | "failed";
  round: FrameRound | null;
  /** Why it failed, in the verdict's words; empty otherwise. */
  why: string;
}

/** What a measuring step measures, and the how many'th time at its gate. */
interface Measuring {
  /** The sub-assembly that is measured by itself; null for the frame. */
  of: string | null;
  nth: number;
}

/** What was found of an order: it is asked of every step of it. */
const KNOWN = new WeakMap<readonly Step[], Map<string, Measuring>>();

/** Of every measuring step of an order, by its key, what it measures. */
export function measuring(structure: Structure, steps: readonly Step[]): Map<string, Measuring> {
  const known = KNOWN.get(steps);
  if (known) return known;
  const parts = structure.groups.length > 0 ? partsOfSteps(structure, steps) : null;
  const count = new Map<string, number>();
  const found = new Map(
    steps.flatMap(({ id, key }): [string, Measuring][] => {
      if (id.do !== "measure") return [];
      if (!parts) return [[key, { of: null, nth: id.nth }]];
      const of = parts.get(key)?.of ?? null;
      const nth = (count.get(`${id.gate}/${of}`) ?? 0) + 1;
      count.set(`${id.gate}/${of}`, nth);
      return [[key, { of, nth }]];
    }),
  );
  KNOWN.set(steps, found);
  return found;
}

/** An order with what stands ticked, and what was read meanwhile. */
interface ReadSoFar {
  structure: Structure | null;
  steps: readonly Step[];
  ticked: ReadonlySet<string>;
  frameRounds: readonly FrameRound[];
  /** Rounds of sub-assemblies by themselves, by their ids. */
  parts: ReadonlyMap<string, readonly FrameRound[]>;
}

/**
 * How a measuring step stands by the newest round of its gate: what was nudged is read again in another. The second
 * measuring of a gate counts once everything before it is ticked; until then its rounds belong to the first.
 * @returns null for a step that asks for no readings.
 */
export function gateReading(
  step: Step,
  { structure, steps, ticked, frameRounds, parts }: ReadSoFar,
): GateReading | null {
  const { id } = step;
  if (id.do !== "measure" || !structure) return null;
  const { of, nth } = measuring(structure, steps).get(step.key) ?? { of: null, nth: id.nth };
  const rounds = of === null ? frameRounds : (parts.get(of) ?? []);
  const before = steps.slice(0, Math.max(0, steps.indexOf(step)));
  const reached = nth === 1 || before.every((s) => s.joint === null || ticked.has(s.key));
  const round = (reached && rounds.findLast((r) => r.round.gate === id.gate && r.number >= nth)) || null;
  const shape = round?.verdicts.find((v) => v.limit.id === (structure.quad ? "square" : "place"));
  // Without a limit on its shape a frame is read when its shape is known.
  const isKnown = shape
    ? shape.result !== null
    : Boolean((!round?.square?.bySides && round?.square?.corners) || round?.general?.farthest);
  // Cold, every limit has to be read.
  const known = isKnown && (id.gate !== "cold" || round?.overall !== "not measured");
  const judged = round?.verdicts.filter((v) => id.gate === "cold" || v === shape || AT_ANY_GATE.includes(v.limit.kind));
  const failed = judged?.find((v) => v.result?.verdict === "fail");
  if (failed) return { state: "failed", round, why: `${failed.limit.label}: ${failed.why}` };
  if ((round?.square ?? round?.general)?.fit.agree === false)
    return { state: "failed", round, why: "The readings contradict each other: one is misread. Measure again." };
  return { state: known ? "read" : "unread", round, why: "" };
}
