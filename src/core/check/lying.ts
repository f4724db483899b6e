import { bestThree, type Rest, restOn } from "../bed";
import type { ResolvedFrame } from "../frame";
import { fixed, formatSmall, type UnitPreference } from "../units";
import type { RestPlace } from "./bedVerdict";

/** How the frame lies on the rests as they are. */
export interface Lying {
  rest: Rest;
  /** What a person sees and does, in sentences. */
  say: string[];
  /** Three rests that carry it most safely. */
  best: string[] | null;
}

/** Standard gravity, N/kg. */
const G = 9.80665;
/** With more rests than this a frame is no rigid thing on a few points. */
const MOST_RESTS = 12;
/** A gap or push below this is not worth a word. */
const SEEN_MM = 0.02;

/**
 * How a straight, rigid frame lies on rests of unequal height, whether it rocks, and what its own weight closes once it is
 * welded. Source: statics of rigid work; see support.ts.
 * @param rests places. @param heightsMm height of every rest. @param twistNPerMm stiffness in twist of the finished frame.
 * @returns null when a height is missing, or there are too few or too many rests.
 */
export function lying(
  rests: readonly RestPlace[],
  heightsMm: Readonly<Record<string, number>>,
  frame: ResolvedFrame,
  twistNPerMm: number | null,
  units: UnitPreference,
): Lying | null {
  if (rests.length < 3 || rests.length > MOST_RESTS || rests.some((r) => heightsMm[r.id] === undefined)) return null;
  const heights = rests.map((r) => heightsMm[r.id] as number);
  const weightN = frame.massKg * G;
  const rest = restOn(rests, heights, frame.centreOfMass, weightN);
  const name = (i: number): string => rests[i]?.id ?? "";
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  const say: string[] = [];
  const [first, second] = rest.states;
  const list = (ids: number[]): string => ids.map(name).join(", ");
  if (rest.status === "falls" || !first)
    say.push("Its weight lies outside the rests: move one out before laying it on.");
  else if (rest.status === "steady") say.push("It stands on all rests at once: it does not rock.");
  else if (rest.status === "rocks_freely" && second)
    say.push(`It rocks by itself between ${list(first.contact)} and ${list(second.contact)}.`);
  else {
    const gaps = first.gapsMm.flatMap((g, i) => (g >= SEEN_MM ? [`${name(i)} ${small(g)}`] : []));
    say.push(
      gaps.length > 0
        ? `It stands on ${list(first.contact)}; gaps: ${gaps.join(", ")}.`
        : `It stands on ${list(first.contact)}; the others are within ${small(SEEN_MM)}.`,
    );
    const pushes = rest.pushToRockN.flatMap((n, i) => (Number.isFinite(n) ? [{ i, n }] : []));
    const easiest = pushes.sort((a, b) => a.n - b.n)[0];
    if (easiest && gaps.length > 0) say.push(`A push of ${fixed(easiest.n / G, 0)} kg on ${name(easiest.i)} rocks it.`);
  }
  if (twistNPerMm && rests.length >= 4 && rest.status !== "falls")
    say.push(
      `Welded, it is soft enough to close a rock gap of ${small(weightN / (4 * twistNPerMm))} by its own ${fixed(frame.massKg, 0)} kg.`,
    );
  const three = bestThree(rests, frame.centreOfMass);
  return { rest, say, best: three.status === "ok" ? three.rests.map(name) : null };
}
