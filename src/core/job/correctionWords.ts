import type { Stands } from "../check";
import { placesOf } from "../square";
import { formatLength, formatSmall, physical, type UnitPreference } from "../units";
import { CARRIES_CAUTION } from "./cautions";
import type { Correction, CorrectionWay, FirstGo } from "./correction";
import { type Done, READ_ALONE } from "./correctionStand";
import { chanceWords } from "./forecast";
import type { Plan } from "./planSchema";
import type { Remedy } from "./remedies";
import { freeEndsOff, keysOf } from "./remedies/freeEnds";
import { remedyName } from "./remedyWords";

/** A way between two free ends, or two feet. */
const isFree = (key: string): boolean => key.startsWith("mouth ") || key.startsWith("feet ");

/** The place of which a quantity tells what it is off one way; null for others. */
const placeOf = (key: string): string | null => /^place (\S+) (?:right|up)$/.exec(key)?.[1] ?? null;

/** A quantity that a correction moves, as one says it. */
export function correctedQuantity(key: string): string {
  if (key === "square") return "AC less BD";
  if (key === "twist") return "twist";
  if (key.startsWith("angle ")) return `corner ${key.slice("angle ".length)}`;
  if (key.startsWith("straight ")) return `bow of ${key.slice("straight ".length)}`;
  if (key.startsWith("flush ")) return `step at ${key.slice("flush ".length)}`;
  if (key.startsWith("level ")) return `level along ${key.slice("level ".length)}`;
  const place = placeOf(key);
  if (place) return `place ${place}`;
  if (isFree(key)) return key.replace("-", " to ");
  return `side ${key}`;
}

const isSlope = (key: string): boolean => key.startsWith("level ");
const isSize = (key: string): boolean => /^[A-D]{2}$/.test(key);

const small = (mm: number, units: UnitPreference): string =>
  formatSmall(mm, units, { decimals: units === "mm" ? 1 : 0 });

/** A value of a quantity with what it may be off by, 95 %. */
function valueWords(key: string, { value, u }: { value: number; u: number }, units: UnitPreference): string {
  if (key.startsWith("angle ")) return `${value.toFixed(2)}° ± ${(2 * u).toFixed(2)}°`;
  if (isSlope(key)) return `${physical("slope", value, units)} ± ${physical("slope", 2 * u, units)}`;
  const size =
    isSize(key) || isFree(key)
      ? formatLength(value, units === "mm" ? "mm" : "inch-decimal", { decimals: units === "mm" ? 1 : 0 }).text
      : small(value, units);
  return `${size} ± ${small(2 * u, units)}`;
}

/** What the amount of a push is of. */
const OF: Partial<Record<Remedy["id"]["do"], string>> = {
  rack: "AC less BD",
  recut: "AC less BD",
  untwist: "twist",
  press: "bow",
  spread: "the mouth",
  legs: "the way between them",
  shim: "shim at the most",
  grind: "metal",
  trim: "the end",
};

/** How much of a remedy, in words. */
export function amountWords(remedy: Remedy, amount: number, units: UnitPreference): string {
  const { id } = remedy;
  if (id.do === "swing") return `${small(amount, units)} at ${id.place}`;
  if (remedy.counts === "mm") return `${small(amount, units)} of ${OF[id.do] ?? "it"}`;
  return id.do === "peen" ? "once over" : amount === 1 ? "one" : `${amount}`;
}

/** A way out in a line: what is done, in order. */
export const correctionWayWords = (
  correction: Pick<Correction, "remedies" | "structure">,
  way: CorrectionWay,
  units: UnitPreference,
): string =>
  way.steps.length === 0
    ? "Leave it as it is"
    : way.steps
        .map(({ remedy, amount }) => {
          const own = correction.remedies.find((r) => r.option.id === remedy);
          return own ? `${remedyName(own.id, correction.structure)} (${amountWords(own, amount, units)})` : remedy;
        })
        .join(", then: ");

/** How far a place is off, of what it is off either way. */
function placeOff(place: string, of: Readonly<Record<string, { value: number; u: number }>>) {
  const [right, up] = keysOf(place).map((key) => of[key]);
  return right && up ? { value: Math.hypot(right.value, up.value), u: Math.max(right.u, up.u) } : null;
}

/** A change of less than this share of what is allowed is not told. */
const TOLD_SHARE = 0.1;

/** What a way leaves of everything that it moves; of a place as far as it is off. */
export function leavesNow({ quantities }: Correction, way: CorrectionWay, units: UnitPreference): string[] {
  const told = Object.entries(quantities).flatMap(([key, stands]) => {
    const leaves = way.leaves[key];
    return leaves ? [{ key, stands, leaves, place: placeOf(key) }] : [];
  });
  const lines = told.flatMap(({ key, stands, leaves, place }) => {
    const { low, high, u } = stands;
    const allowed = low !== null && high !== null ? (high - low) / 2 : 0;
    const [now, then] = place ? [placeOff(place, quantities), placeOff(place, way.leaves)] : [stands, leaves];
    if (!now || !then || Math.abs(then.value - now.value) <= Math.max(u / 5, TOLD_SHARE * allowed)) return [];
    const what = place ? `${place}, from where it belongs` : correctedQuantity(key);
    return [`${what}: ${valueWords(key, now, units)} now, likely ${valueWords(key, then, units)} after`];
  });
  return [...new Set(lines)];
}

/** What to do, and why, in two sentences made of the numbers that bear them. */
export function correctionAdvice(correction: Correction, units: UnitPreference): { say: string; why: string } {
  const { advice, ways, doNothing, anewMin } = correction;
  const [best] = ways;
  const { aside } = correction;
  const which = aside.length > 0 ? "all others that were read" : "all limits that were read";
  const now = `As it is, ${which} are kept ${chanceWords(doNothing)}.`;
  if (advice === "leave it" && aside.length > 0)
    return {
      say: `Not kept, and moved by no remedy that is worked out here: ${aside.join(", ")}.`,
      why: `${now} What is done about the rest is said below; else agree on it with whoever takes it.`,
    };
  if (advice === "leave it" || !best)
    return {
      say: "Leave it.",
      why: `${now} ${doNothing >= 0.95 ? "Nothing that is done to it makes that better." : "No remedy that is known here makes that better by two in 100."}`,
    };
  if (advice === "make it anew")
    return {
      say: "Agree on it with whoever takes it, or make it anew.",
      why: `${now} ${best.steps.length === 0 ? "No remedy that is known here makes that better by two in 100." : `The best that is known here brings that to ${chanceWords(best.chance)}: ${correctionWayWords(correction, best, units)}.`} Made anew it takes about ${anewMin} minutes (15 a joint, own judgement).`,
    };
  return {
    say: `${correctionWayWords(correction, best, units)}.`,
    why: `${now} After it ${chanceWords(best.chance)}, in about ${best.effortMin} minutes; loosened before adjusted, the smallest first, read after each.`,
  };
}

/** What is read before anything else is done, after a remedy. */
export function readAgainWords({ entry: { remedy } }: Done): string {
  switch (READ_ALONE[remedy.do]) {
    case "level":
      return "Read the level again, both ways, before anything else.";
    case "flush":
      return "Read the step again before anything else.";
    default:
      return "Read the frame again, in a new round, before anything else.";
  }
}

/** How something is pushed, in words. */
function pushWords({ id }: Remedy): string {
  switch (id.do) {
    case "rack":
      return `draw ${id.long} in`;
    case "spread":
    case "legs":
      return id.way === "apart" ? `push ${id.from} and ${id.to} apart` : `draw ${id.from} and ${id.to} together`;
    case "swing":
      return id.way === "toward"
        ? `draw ${id.place} across toward ${id.by}`
        : `push ${id.place} across, away from ${id.by}`;
    case "untwist":
      return `press ${id.high[0]} and ${id.high[1]} down together`;
    default:
      return "press the bow in";
  }
}

/** Thinner shims there are none. Source: common practice, no source. */
const LEAST_SHIM_MM = 0.05;

/** What to do now with one remedy: how far to go, what comes back, how hard. */
export function goWords(go: FirstGo, units: UnitPreference): string[] {
  const { remedy, amount, springback, wanted, goes, quantity } = go;
  const before = goes === 0 ? "first" : "next";
  const per = isSlope(quantity)
    ? physical("slope", wanted, units)
    : quantity.startsWith("angle ")
      ? `${wanted.toFixed(2)}°`
      : small(wanted, units);
  const place = placeOf(quantity);
  // What a free end keeps of a push; what comes of it once the whole is laid over the drawing anew is less.
  const kept = remedy.id.do === "swing" && remedy.push ? small(wanted * remedy.push.mmPerUnit, units) : null;
  const wants = kept
    ? `${kept} of it is to stay at ${place}`
    : place
      ? `${place} is to come nearer to where it belongs by ${per}`
      : `${correctedQuantity(quantity)} is to change by ${per}`;
  if (remedy.push && springback)
    return [
      `${before === "first" ? "First" : "Next"}, ${pushWords(remedy)} by ${small(amount, units)} beyond where it stands, let go, read again: ${wants}.`,
      `Of that about ${small(springback.likely, units)} comes back (nine in ten ${small(springback.low, units)} to ${small(springback.high, units)}): it hangs on a yield stress that nobody knows, so the first push may leave nothing. It overshoots in one of twenty.`,
      `About ${physical("force", remedy.push.forceN / 1000, units)}.`,
    ];
  if (remedy.push)
    return [
      `Pull it ${small(amount, units)} past where it stands ${before}, weld it there, let go, read again: ${wants}; the rest springs back.`,
      `About ${physical("force", remedy.push.forceN / 1000, units)}.`,
    ];
  if (remedy.id.do === "trim")
    return [`Mark ${small(amount, units)} back from the end, square across, saw it off, read again.`];
  if (remedy.id.do === "grind")
    return [`Grind ${small(amount, units)} off ${before}, lay an edge across, go on until it is inside: ${wants}.`];
  if (remedy.places) {
    const under = remedy.places
      .map(({ at, share }) => ({ at, mm: share * amount }))
      .filter(({ mm }) => mm >= LEAST_SHIM_MM);
    return [
      `${before === "first" ? "First" : "Next"}: ${under.map(({ at, mm }) => `${small(mm, units)} under ${at}`).join(", ")}. Read the level again: ${wants}.`,
    ];
  }
  return [
    `${remedy.counts === "pieces" ? (amount === 1 ? "One" : amount) : small(amount, units)} ${before}, let it cool, read again: ${wants}.`,
  ];
}

/** What else can be done about limits that no remedy here moves; and who decides. */
export function besidesWords(correction: Correction, plan: Plan): string[] {
  const { aside, quantities } = correction;
  const named = (part: string): boolean => aside.some((a) => a.toLowerCase().includes(part));
  const isOut = ({ value, low, high }: Stands): boolean =>
    (low !== null && value < low) || (high !== null && value > high);
  const sizes = Object.entries(quantities).filter(([key, stands]) => isSize(key) && isOut(stands));
  const caution = CARRIES_CAUTION[plan.carries];
  const short = freeEndsOff(correction.structure, placesOf(correction.structure), quantities).filter(
    ({ place, longMm }) => -longMm > Math.max(...keysOf(place).map((k) => quantities[k]?.high ?? 0)),
  );
  return [
    ...(named("gap") ? ["Gap: fill it, or cut the joint and fit it again."] : []),
    ...(sizes.length > 0
      ? [
          "A side that is too long can be ground at its ends, one that is too short cannot: a hole may be slotted, or whoever takes the frame agrees to it.",
        ]
      : []),
    ...short.map(
      ({ place, longMm }) =>
        `${place} stands ${small(-longMm, plan.units)} short of where it belongs: what is too short is pieced out, or whoever takes the frame agrees to it.`,
    ),
    ...(caution ? [`${caution} What is bent or heated on it is decided by whoever answers for it.`] : []),
  ];
}
