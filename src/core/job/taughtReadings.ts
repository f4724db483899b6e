import { outcomeKey, type SimulatedOutcome } from "../shrink";
import type { Places } from "../square";
import type { FrameRound } from "./frameRound";
import { wayParts } from "./placeForecast";
import { quantityKey, quantityWords, spanOf } from "./quantityId";
import type { Mean } from "./rounds";

/** A pair of rounds between which only tacks or beads, and nothing by hand, moved the frame. */
export interface Between {
  from: FrameRound;
  to: FrameRound;
  /** Steps that lie between them, by their keys: first excluded, last included; null for the beginning, and the end. */
  fromKey: string | null;
  toKey: string | null;
}

/** A pair of rounds by the steps that lie between them: after `begin`, up to `end`. */
export interface Span extends Between {
  begin: number;
  end: number;
}

/** A share by which a factor is moved to find what hangs on it. */
export const STEP = 0.1;
/** Simulations: as the tables say, with one factor moved in each, and with what differs from bead to bead alone. */
export const RUNS = ["table", "longitudinal", "filletClosing", "tackHeat", "gap", "joint", "beads"] as const;
export type Run = (typeof RUNS)[number];
/** One reading from gate to gate, with what hangs on each factor. */
export interface Taught {
  what: string;
  from: string;
  to: string;
  change: number;
  /** New in the two readings, and what both share with others of the pair, as rows of standard uncertainty, mm. */
  u: number;
  shared: { tape: string; zeroMm: number; scaleMm: number }[];
  /** By the tables, and per unit of each factor's logarithm, mm. */
  all: number;
  longitudinal: number;
  filletClosing: number;
  tackHeat: number;
  gap: number;
  joint: number;
  /** In each draw of what differs from bead to bead, without its mean. */
  draws: number[];
}

/** What a reading is of: so much of each of some outcomes. */
type Parts = readonly { key: string; by: number }[];
const whole = (key: string): Parts => [{ key, by: 1 }];

/**
 * The outcomes that a reading is of; null for one that is not predicted. A straightedge is laid where a member bows most.
 * @param moved how far the tables say that an outcome goes between the two readings, mm; null where they tell nothing of it.
 */
function partsOf(mean: Mean, moved: (key: string) => number | null, places: Places): Parts | null {
  const { what } = mean;
  if (what.kind === "straightness") {
    const [bow, lift] = (["bow", "lift"] as const).map((kind) => outcomeKey({ kind, member: what.at })) as [
      string,
      string,
    ];
    return whole(Math.abs(moved(bow) ?? 0) >= Math.abs(moved(lift) ?? 0) ? bow : lift);
  }
  if (what.kind !== "distance") return null;
  const span = spanOf(what);
  if (span) return whole(outcomeKey({ kind: "span", span }));
  // A mouth may have been taped either way.
  const [from, to] = [what.from, what.to].sort() as [string, string];
  const told = (["mouth", "feet"] as const).map((kind) => outcomeKey({ kind, from, to }));
  const free = told.find((key) => moved(key) !== null);
  if (free) return whole(free);
  const ways = wayParts(places, what.from, what.to);
  return ways ? ways.map(({ by, ...way }) => ({ key: outcomeKey({ kind: "place", ...way }), by })) : null;
}

const CORNER_HEIGHTS = (["A", "B", "C", "D"] as const).map((at) => quantityKey({ kind: "height", at }));

/** An outcome with how much of it counts. */
interface Part {
  of: SimulatedOutcome;
  by: number;
}

/** Change of outcomes together between two steps in the nominal frame. */
const between = (parts: readonly Part[], begin: number, end: number): number =>
  parts.reduce((sum, { of, by }) => sum + by * ((of.after[end] ?? 0) - (begin >= 0 ? (of.after[begin] ?? 0) : 0)), 0);

/** The same in every draw, its mean taken off. */
function scatterBetween(parts: readonly Part[], from: string | undefined, to: string | undefined): number[] {
  const all = parts.map(({ of, by }) => {
    const since = from === undefined ? of.draws : of.from[from]?.draws;
    const until = to === undefined ? undefined : of.from[to]?.draws;
    return Array.from(since ?? [], (v, d) => by * (v - (until?.[d] ?? 0))).slice(1);
  });
  const count = Math.min(...all.map((d) => d.length));
  const sums = Array.from({ length: count }, (_, d) => all.reduce((s, draws) => s + (draws[d] ?? 0), 0));
  const mean = sums.reduce((s, v) => s + v, 0) / count;
  return sums.map((v) => v - mean);
}

/** Readings of a pair of rounds, each with what it changed by and what hangs on each factor. */
export function readingsOf(
  pair: Span,
  runs: Record<Run, SimulatedOutcome[]>,
  ids: readonly string[],
  places: Places,
): Taught[] {
  const { begin, end } = pair;
  const found = new Map(RUNS.map((run) => [run, new Map(runs[run].map((o) => [outcomeKey(o.id), o]))]));
  const partsIn = (run: Run, parts: Parts): Part[] =>
    parts.flatMap(({ key, by }) => {
      const of = found.get(run)?.get(key);
      return of ? [{ of, by }] : [];
    });
  const of = (parts: Parts, base: Pick<Taught, "what" | "from" | "to" | "change" | "u" | "shared">): Taught[] => {
    const table = partsIn("table", parts);
    // Of a way both ends must be told.
    if (table.length < parts.length) return [];
    const all = between(table, begin, end);
    const per = (run: Run, unit: number): number => (between(partsIn(run, parts), begin, end) - all) / unit;
    const isWhole = end === ids.length - 1;
    return [
      {
        ...base,
        all,
        longitudinal: per("longitudinal", STEP),
        filletClosing: per("filletClosing", STEP),
        tackHeat: per("tackHeat", STEP),
        gap: per("gap", Math.log(1 + STEP)),
        joint: per("joint", Math.log(1 + STEP)),
        draws: scatterBetween(
          partsIn("beads", parts),
          begin < 0 ? undefined : ids[begin],
          isWhole ? undefined : ids[end],
        ),
      },
    ];
  };
  const gates = { from: pair.from.round.gate, to: pair.to.round.gate };
  const moved = (key: string): number | null => {
    const outcome = found.get("table")?.get(key);
    return outcome ? between([{ of: outcome, by: 1 }], begin, end) : null;
  };
  const out = [...pair.to.means].flatMap(([name, last]): Taught[] => {
    const first = pair.from.means.get(name);
    const parts = partsOf(last, moved, places);
    if (!first || !parts) return [];
    // One tape for both: its zero and scale error drop out of the difference.
    const one = first.tape !== null && first.tape.id === last.tape?.id;
    const tapes = one ? [] : [first, last].flatMap((m) => (m.tape ? [{ ...m.tape, mm: m.mm }] : []));
    // A gap under an edge tells no way: it is taken to open the way that welding bows the member.
    const [sole] = parts;
    const sign = last.what.kind === "straightness" && sole ? Math.sign(moved(sole.key) ?? 0) : 1;
    return of(parts, {
      what: quantityWords(last.what),
      ...gates,
      change: sign * (last.mm - first.mm),
      u: Math.hypot(first.uMm, last.uMm),
      shared: tapes.map((t) => ({ tape: t.id, zeroMm: t.uZeroMm, scaleMm: t.uScale * t.mm })),
    });
  });
  const [before, after] = [pair.from.twist, pair.to.twist];
  if (before && after && CORNER_HEIGHTS.every((n) => pair.from.means.has(n)))
    out.push(
      ...of(whole(outcomeKey({ kind: "twist" })), {
        what: "Twist, A and C above B and D",
        ...gates,
        change: after.twistMm - before.twistMm,
        u: Math.hypot(before.uTwistMm, after.uTwistMm),
        shared: [],
      }),
    );
  return out;
}
