import { SPANS, type Span } from "../geometry";
import { combine, correctedMm, type Instrument, readingUncertainty, uOfLimit, uOfResolution } from "../instruments";
import type { SpanReading, Tape } from "../square";
import { type Length, type Slant, slantMmPerM } from "../units";
import type { Entry, How, ReadingEntry, RoundEntry } from "./entrySchema";
import { isAlong, quantityKey } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

/** What stands of one quantity: the last reading, and those that are averaged with it. */
export interface Standing<V> {
  key: string;
  id: string;
  what: QuantityId;
  how: How | undefined;
  instrumentId: string;
  value: V;
  /** All that count, oldest first; the last is this one. */
  repeats: (ReadingEntry & { value: V })[];
}

/** A round with what stands in it. */
export interface Round {
  round: RoundEntry;
  /** 1, 2, 3 … within its gate. */
  number: number;
  /** What stands of each length, by `keyOf`; withdrawn ones are left out. */
  readings: Map<string, Standing<Length>>;
  /** What stands of each slope and angle. */
  slants: Map<string, Standing<Slant>>;
  /** Every reading ever entered in it, in order. */
  all: ReadingEntry[];
}

/** Readings with one key are of the same quantity, read the same way. */
export function keyOf({ what, how }: Pick<ReadingEntry, "what" | "how">): string {
  const word = quantityKey(what);
  if (!how) return word;
  switch (how.by) {
    case "height":
      return `${word} height ${how.datum}`;
    case "rod":
      return `${word} rod ${how.setUp}`;
    case "edge":
      return `${word} edge ${how.from} ${how.to}`;
    default:
      return `${word} ${how.by} ${how.from}`;
  }
}

function standing<V>(entries: readonly ReadingEntry[]): Standing<V> {
  const last = entries.at(-1) as ReadingEntry;
  return {
    key: keyOf(last),
    id: last.id,
    what: last.what,
    how: last.how,
    instrumentId: last.instrumentId,
    value: last.value as V,
    repeats: entries as (ReadingEntry & { value: V })[],
  };
}

/** @param entries of one job, in order. @returns its rounds, in order. */
export function roundsOf(entries: readonly Entry[]): Round[] {
  const rounds = new Map<string, Round>();
  const count = new Map<string, number>();
  const lists = new Map<string, ReadingEntry[]>();
  for (const entry of entries) {
    if (entry.kind === "round") {
      const number = (count.get(entry.gate) ?? 0) + 1;
      count.set(entry.gate, number);
      rounds.set(entry.id, { round: entry, number, readings: new Map(), slants: new Map(), all: [] });
    } else if (entry.kind === "reading") {
      const round = rounds.get(entry.roundId);
      if (!round) continue;
      round.all.push(entry);
      const key = keyOf(entry);
      const before = lists.get(`${entry.roundId} ${key}`) ?? [];
      const now = entry.value === null ? before.slice(0, -1) : entry.again ? [...before, entry] : [entry];
      lists.set(`${entry.roundId} ${key}`, now);
      round.readings.delete(key);
      round.slants.delete(key);
      const last = now.at(-1)?.value;
      if (!last) continue;
      if ("slant" in last) round.slants.set(key, standing<Slant>(now));
      else round.readings.set(key, standing<Length>(now));
    }
  }
  return [...rounds.values()];
}

/** Whether an entry still counts in its round. */
export const stillStands = (round: Round, entry: ReadingEntry): boolean => {
  const key = keyOf(entry);
  const list = round.readings.get(key)?.repeats ?? round.slants.get(key)?.repeats ?? [];
  return list.some((r) => r.id === entry.id);
};

/** What a quantity is taken for, everything known of its instruments taken off. mm (slopes and angles: at one metre). */
export interface Mean {
  what: QuantityId;
  mm: number;
  /** New in each reading, averaged. */
  uMm: number;
  /** The tape whose zero and scale all of it shares; null when several instruments were used: then u holds everything. */
  tape: (Tape & { id: string }) | null;
  count: number;
  /** Largest less smallest, mm. */
  spreadMm: number;
  /** Two instruments that disagree more than their uncertainties allow, by name. */
  disagree: [string, string] | null;
}

/** How far a guess of the temperature may be off, +-K (common practice, no source). */
const WARMER_LIMIT_K = 10;

/** Lengthening of work that is hotter than what measures it. */
interface Warmth {
  warmerK: number;
  /** 1/K. */
  alphaPerK: number;
}
const NO_WARMTH: Warmth = { warmerK: 0, alphaPerK: 0 };

interface One {
  mm: number;
  instrument: Instrument;
}

/** Readings of one instrument: the mean; a spread that is wider than handling counts, a step is never averaged away. */
function meanOfOne(list: readonly One[]): { mm: number; uMm: number } {
  const [first] = list as [One, ...One[]];
  const n = list.length;
  const mm = list.reduce((s, r) => s + r.mm, 0) / n;
  const { uMm } = readingUncertainty(first.instrument);
  if (n === 1) return { mm, uMm };
  const ends = first.instrument.kind === "tape" || first.instrument.kind === "rule" ? Math.SQRT2 : 1;
  const step = ends * uOfResolution(first.instrument.resolutionMm);
  const scatter = Math.sqrt(list.reduce((s, r) => s + (r.mm - mm) ** 2, 0) / (n - 1));
  const handling = Math.sqrt(Math.max(0, uMm ** 2 - step ** 2));
  return { mm, uMm: Math.hypot(step, Math.max(handling, scatter) / Math.sqrt(n)) };
}

/** A length, a slope over one metre, or an angle as the arc that it spans at one metre, mm. */
const lengthOf = (value: Length | Slant, what: QuantityId): number => {
  if (!("slant" in value)) return value.mm;
  return what.kind === "angle" ? (1000 * value.value * Math.PI) / 180 : slantMmPerM(value);
};

/**
 * What a quantity is taken for: one reading, the mean of several with one instrument, or of several instruments weighted by what
 * is known of each.
 * @returns null when its instrument is not on the shelf.
 */
export function meanOf(
  of: Standing<Length> | Standing<Slant>,
  instruments: readonly Instrument[],
  { warmerK, alphaPerK }: Warmth = NO_WARMTH,
): Mean | null {
  const read = of.repeats.flatMap((r): One[] => {
    const instrument = instruments.find((i) => i.id === r.instrumentId);
    if (!instrument || !r.value) return [];
    const raw = correctedMm(instrument, lengthOf(r.value, r.what), "slant" in r.value ? "" : r.value.text);
    // The work is longer by what it is hotter: what it will measure cold is less.
    return [{ mm: raw / (1 + alphaPerK * warmerK), instrument }];
  });
  const [first] = read;
  if (!first) return null;
  const uWarm = warmerK === 0 ? 0 : alphaPerK * uOfLimit(WARMER_LIMIT_K);
  const groups = [...new Set(read.map((r) => r.instrument.id))].map((id) => read.filter((r) => r.instrument.id === id));
  const spreadMm = Math.max(...read.map((r) => r.mm)) - Math.min(...read.map((r) => r.mm));
  if (groups.length === 1) {
    const { mm, uMm } = meanOfOne(read);
    const u = readingUncertainty(first.instrument);
    return {
      what: of.what,
      mm,
      uMm,
      tape: { id: first.instrument.id, uZeroMm: u.uZeroMm, uScale: Math.hypot(u.uScale, uWarm) },
      count: read.length,
      spreadMm,
      disagree: null,
    };
  }
  const means = groups.map((g) => {
    const { mm, uMm } = meanOfOne(g);
    const { instrument } = g[0] as One;
    const u = readingUncertainty(instrument);
    return { mm, u: Math.hypot(uMm, u.uZeroMm, Math.hypot(u.uScale, uWarm) * mm), name: instrument.name };
  });
  const all = combine(
    means.map((m) => m.mm),
    means.map((m) => m.u),
  );
  const worst = all.worstPair;
  return {
    what: of.what,
    mm: all.mean,
    uMm: all.uInflated,
    tape: null,
    count: read.length,
    spreadMm,
    disagree: worst && worst.en > 1 ? (worst.pair.map((i) => means[i]?.name ?? "") as [string, string]) : null,
  };
}

/** Everything that a mean may be off by, mm (1 sigma). */
export const fullU = (m: Mean): number => Math.hypot(m.uMm, m.tape?.uZeroMm ?? 0, (m.tape?.uScale ?? 0) * m.mm);

/** Means of every length and slant of a round, by key. */
export function meansOf(round: Round, instruments: readonly Instrument[], alphaPerK = 0): Map<string, Mean> {
  const warmth = { warmerK: round.round.warmerK ?? 0, alphaPerK };
  return new Map(
    [...round.readings.values(), ...round.slants.values()].flatMap((s) => {
      // Only what is laid along the work is longer on hot work.
      const mean = meanOf(s, instruments, isAlong(s.what) ? warmth : NO_WARMTH);
      return mean ? [[s.key, mean] as const] : [];
    }),
  );
}

/** Taped spans of a round with their uncertainties; readings of one instrument share its zero and scale error. */
export function spansOf(means: ReadonlyMap<string, Mean>): {
  spans: Partial<Record<Span, SpanReading>>;
  tapes: Record<string, Tape>;
} {
  const spans: Partial<Record<Span, SpanReading>> = {};
  const tapes: Record<string, Tape> = {};
  for (const span of SPANS) {
    const mean = means.get(span);
    if (!mean) continue;
    spans[span] = mean.tape ? { mm: mean.mm, uMm: mean.uMm, tape: mean.tape.id } : { mm: mean.mm, uMm: mean.uMm };
    if (mean.tape) tapes[mean.tape.id] = { uZeroMm: mean.tape.uZeroMm, uScale: mean.tape.uScale };
  }
  return { spans, tapes };
}

/** Largest independent uncertainty among the named quantities, mm: heights of one instrument share their zero. */
export const uOfHeights = (means: ReadonlyMap<string, Mean>, names: readonly string[]): number =>
  names.reduce((largest, name) => Math.max(largest, means.get(name)?.uMm ?? 0), 0);
