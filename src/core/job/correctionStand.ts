import type { Stands } from "../check";
import { CORNERS, type Corner } from "../geometry";
import { degrees } from "../numeric";
import { outcomeKey } from "../shrink";
import type { Places } from "../square";
import type { CorrectedEntry } from "./entrySchema";
import { sizeOutcome } from "./forecast";
import type { FrameRound } from "./frameRound";
import { inTime } from "./inTime";
import type { Job } from "./jobSchema";
import { placesRead } from "./placeForecast";
import { fullU } from "./rounds";

/** What a correction is judged by, as it was read; by one word each, which the effects of remedies go by. */
export interface Standing {
  quantities: Record<string, Stands>;
  /** Limits that are not kept and that no remedy here moves, by their names. */
  aside: string[];
}

/** The reading that a limit is judged by, member by member or joint by joint. */
const READ_AS = { straight: "straightness", flush: "flush", level: "level" } as const;

/** Flatness that four corners do not explain is left as it is. */
const zoneOfTwist = (twistMm: number): number => Math.abs(twistMm) / 2;

/**
 * What a place is off, to the right and up, each for itself: of the circle in which it may lie, the larger has what the smaller leaves, the
 * smaller as much as both together. As it stands, both are within theirs when the place is within its limit, and only then.
 */
function placeStanding(round: FrameRound, places: Places, upperMm: number): Record<string, Stands> {
  const read = placesRead(round, places) ?? {};
  const judged = places.beyond.length > 0 ? places.beyond : Object.keys(read);
  const bothMm = upperMm * Math.SQRT1_2;
  return Object.fromEntries(
    judged.flatMap((place) => {
      const off = read[place];
      if (!off) return [];
      const [right, up] = [Math.abs(off.right.value), Math.abs(off.up.value)];
      const larger = right > up ? "right" : "up";
      const rest = Math.sqrt(upperMm ** 2 - Math.min(right, up, bothMm) ** 2);
      return (["right", "up"] as const).map((way) => {
        const most = way === larger ? rest : bothMm;
        return [outcomeKey({ kind: "place", place, way }), { ...off[way], low: -most, high: most }];
      });
    }),
  );
}

/**
 * Quantities that limits are set on, signed, so that a remedy can be seen to pass nought: sides, AC less BD, corners, twist for flatness,
 * places by what they are off either way, bows, steps and slopes one by one.
 */
export function standingOf(round: FrameRound, places: Places): Standing {
  const quantities: Record<string, Stands> = {};
  const aside: string[] = [];
  for (const { limit, measured } of round.verdicts) {
    const { upper, lower } = limit;
    if (!measured) continue;
    switch (limit.kind) {
      case "size":
        quantities[outcomeKey(sizeOutcome(limit))] = { ...measured, low: lower, high: upper };
        break;
      case "diagonal":
        if (upper !== null) quantities.square = { ...measured, low: -upper, high: upper };
        break;
      case "corner": {
        const { square } = round;
        if (!square?.angleDeg || upper === null) break;
        const most = degrees(Math.atan(upper / 1000));
        for (const c of CORNERS) {
          const { value, u } = square.angleDeg[c];
          quantities[`angle ${c}`] = { value: value - square.drawnDeg[c as Corner], u, low: -most, high: most };
        }
        break;
      }
      case "flat": {
        if (upper === null) break;
        // Read otherwise than by its four corners it is judged, and nothing here moves it.
        if (!round.twist) {
          if (measured.value > upper) aside.push(limit.label);
          break;
        }
        const { twistMm, uTwistMm } = round.twist;
        const held = limit.flatBy === "held";
        const rest = held ? 0 : Math.max(0, measured.value - zoneOfTwist(twistMm));
        const most = held ? upper : Math.max(0, 2 * (upper - rest));
        quantities.twist = { value: twistMm, u: uTwistMm, low: -most, high: most };
        break;
      }
      case "place":
        if (upper !== null) Object.assign(quantities, placeStanding(round, places, upper));
        break;
      case "straight":
      case "flush":
      case "level":
        for (const { what, mm, ...mean } of round.standing.values())
          if (what.kind === READ_AS[limit.kind] && upper !== null)
            quantities[`${limit.kind} ${what.at}`] = {
              // Which way a slope goes is read with it; of a bow or a step its size alone.
              value: limit.kind === "level" ? mm : Math.abs(mm),
              u: fullU({ what, mm, ...mean }),
              low: -upper,
              high: upper,
            };
        break;
      default:
        if (measured.value > (upper ?? Number.POSITIVE_INFINITY)) aside.push(limit.label);
    }
  }
  // A reading without any uncertainty would make a chance of nought or one.
  for (const q of Object.values(quantities)) q.u = Math.max(q.u, LEAST_U);
  return { quantities, aside };
}
const LEAST_U = 0.01;

/** Something that was done, with how the frame stood before it and after. */
export interface Done {
  entry: CorrectedEntry;
  before: Standing["quantities"] | null;
  /** Null until it was read again. */
  after: Standing["quantities"] | null;
}

/** Corrections in their order, each with the cold rounds that were read before and after it. */
export function doneOf(job: Job, rounds: readonly FrameRound[], places: Places): Done[] {
  const stood = (round: FrameRound | undefined): Standing["quantities"] | null =>
    round ? standingOf(round, places).quantities : null;
  const cold = rounds.filter((r) => r.round.gate === "cold" && r.readings.size + r.slants.size > 0);
  const all = inTime(job.entries).flatMap((e) => (e.kind === "corrected" ? [e] : []));
  return all.map((entry, i) => {
    const next = all[i + 1]?.at ?? null;
    const isAfter = (at: string): boolean => at > entry.at && (next === null || at <= next);
    const before = cold.findLast((r) => r.round.at <= entry.at);
    const anew = cold.find((r) => isAfter(r.round.at));
    const kind = READ_ALONE[entry.remedy.do];
    const same = kind && before?.all.some((r) => r.what.kind === kind && isAfter(r.at)) ? before : undefined;
    // Read once more in the same round, what stood before it is no longer told apart.
    return anew || !same
      ? { entry, before: stood(before), after: stood(anew) }
      : { entry, before: null, after: stood(same) };
  });
}

/** What moves nothing else is read again by itself, in the round that is there. */
export const READ_ALONE: Partial<Record<CorrectedEntry["remedy"]["do"], "level" | "flush">> = {
  shim: "level",
  grind: "flush",
};
