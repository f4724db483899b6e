import { SPANS, type Span } from "../geometry";
import { combine, correctedMm, type Instrument, readingUncertainty, uOfLimit, uOfResolution } from "../instruments";
import { REAL_CORNERS_MM, type SpanReading, type Tape } from "../square";
import { type Length, lengthParts, type Slant, slantMmPerM } from "../units";
import type { Entry, How, ReadingEntry, RoundEntry, Taken } from "./entrySchema";
import { inTime } from "./inTime";
import { isAlong, quantityKey } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

/** What stands of one quantity: the last reading, and those that are averaged with it. */
export interface Standing<V> {
  key: string;
  id: string;
  what: QuantityId;
  how: How | undefined;
  taken: Taken | undefined;
  instrumentId: string;
  value: V;
  /** All that count, oldest first; the last is this one. */
  repeats: (ReadingEntry & { value: V })[];
}

/** A round with what stands in it. */
export interface Round {
  round: RoundEntry;
  /** 1, 2, 3 … within its gate, of the frame or of one sub-assembly. */
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
    taken: last.taken,
    instrumentId: last.instrumentId,
    value: last.value as V,
    repeats: entries as (ReadingEntry & { value: V })[],
  };
}

/** What counts of one quantity in one round, oldest first, and which of all entries changed it last. */
interface Counting {
  list: ReadingEntry[];
  changedBy: number;
}

/** @param entries of one job, as they came. @returns its rounds, by when they were begun; in each the newest reading stands. */
export function roundsOf(entries: readonly Entry[]): Round[] {
  const rounds = new Map<string, { round: Round; counting: Map<string, Counting> }>();
  const count = new Map<string, number>();
  const sorted = inTime(entries);
  // A round is there before its readings, whatever the clocks of two devices say.
  for (const entry of sorted)
    if (entry.kind === "round") {
      const gate = `${entry.gate}/${entry.part ?? ""}`;
      const number = (count.get(gate) ?? 0) + 1;
      count.set(gate, number);
      const round = { round: entry, number, readings: new Map(), slants: new Map(), all: [] };
      rounds.set(entry.id, { round, counting: new Map() });
    }
  for (const [i, entry] of sorted.entries())
    if (entry.kind === "reading") {
      const own = rounds.get(entry.roundId);
      if (!own) continue;
      own.round.all.push(entry);
      const key = keyOf(entry);
      const now = own.counting.get(key) ?? { list: [], changedBy: i };
      own.counting.set(key, now);
      now.changedBy = i;
      if (entry.value === null) now.list.pop();
      else if (entry.again) now.list.push(entry);
      else now.list = [entry];
    }
  return [...rounds.values()].map(({ round, counting }) => {
    // What was changed last comes last.
    for (const [key, { list }] of [...counting].sort(([, a], [, b]) => a.changedBy - b.changedBy)) {
      const last = list.at(-1)?.value;
      if (!last) continue;
      if ("slant" in last) round.slants.set(key, standing<Slant>(list));
      else round.readings.set(key, standing<Length>(list));
    }
    return round;
  });
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
  /** New in this reading besides what the instrument brings, mm (1 sigma). */
  uMm: number;
}

/** A distance between marks set in from the corners, brought to the corners themselves. @param mm as taped. */
export type ToCorners = (what: QuantityId, mm: number, setInMm: number) => { mm: number; uTimes: number };

/**
 * A length with all that was done besides reading it: leaves that go and do not, a block added, marks set in.
 * Source: what lies between two bounds has u = width / sqrt(12) (JCGM 100:2008, 4.3.7); each leaf brings its own error.
 */
function takenMm(
  r: ReadingEntry & { value: Length },
  instrument: Instrument,
  warmth: number,
  toCorners: ToCorners | null,
): One {
  const { plus, setIn, notAt } = r.taken ?? {};
  const goes = correctedMm(instrument, r.value.mm, r.value);
  const not = notAt ? correctedMm(instrument, notAt.mm, notAt) : goes;
  const leaves = notAt ? lengthParts(r.value.text, r.value.unit).length : 1;
  const uMm = Math.hypot(uOfResolution(not - goes), Math.sqrt(leaves - 1) * uOfLimit(instrument.zeroMm));
  const mm = (goes + not) / 2 / warmth + (plus?.mm ?? 0);
  const at = setIn && toCorners?.(r.what, mm, setIn.mm);
  if (!at) return { mm, instrument, uMm };
  return { mm: at.mm, instrument, uMm: Math.sqrt(at.uTimes ** 2 - 1) * readingUncertainty(instrument).uMm };
}

/** Readings of one instrument: the mean; a spread that is wider than handling counts, a step is never averaged away. */
function meanOfOne(list: readonly One[]): { mm: number; uMm: number } {
  const [first] = list as [One, ...One[]];
  const n = list.length;
  const mm = list.reduce((s, r) => s + r.mm, 0) / n;
  const { uMm } = readingUncertainty(first.instrument);
  const own = Math.hypot(...list.map((r) => r.uMm)) / Math.sqrt(n);
  if (n === 1) return { mm, uMm: Math.hypot(uMm, own) };
  const ends = first.instrument.kind === "tape" || first.instrument.kind === "rule" ? Math.SQRT2 : 1;
  const step = ends * uOfResolution(first.instrument.resolutionMm);
  const scatter = Math.sqrt(list.reduce((s, r) => s + (r.mm - mm) ** 2, 0) / (n - 1));
  const handling = Math.sqrt(Math.max(0, uMm ** 2 - step ** 2));
  return { mm, uMm: Math.hypot(step, own, Math.max(handling, scatter) / Math.sqrt(n)) };
}

/** A slope over one metre, or an angle as the arc that it spans at one metre, mm. */
const slantMm = (value: Slant, what: QuantityId): number =>
  what.kind === "angle" ? (1000 * value.value * Math.PI) / 180 : slantMmPerM(value);

/**
 * What a quantity is taken for: one reading, the mean of several with one instrument, or of several instruments weighted by what
 * is known of each.
 * @returns null when its instrument is not on the shelf.
 */
export function meanOf(
  of: Standing<Length> | Standing<Slant>,
  instruments: readonly Instrument[],
  { warmerK, alphaPerK }: Warmth = NO_WARMTH,
  toCorners: ToCorners | null = null,
): Mean | null {
  const read = of.repeats.flatMap((r): One[] => {
    const instrument = instruments.find((i) => i.id === r.instrumentId);
    if (!instrument || !r.value) return [];
    if ("slant" in r.value) return [{ mm: correctedMm(instrument, slantMm(r.value, r.what)), instrument, uMm: 0 }];
    // The work is longer by what it is hotter: what it will measure cold is less.
    return [takenMm(r as ReadingEntry & { value: Length }, instrument, 1 + alphaPerK * warmerK, toCorners)];
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

/**
 * Means of every length and slant of a round, by key.
 * @param toCorners for a frame with corners: how what was read between marks set in from them is brought to them.
 */
export function meansOf(
  round: Round,
  instruments: readonly Instrument[],
  alphaPerK = 0,
  toCorners: ToCorners | null = null,
): Map<string, Mean> {
  const warmth = { warmerK: round.round.warmerK ?? 0, alphaPerK };
  return new Map(
    [...round.readings.values(), ...round.slants.values()].flatMap((s) => {
      // Only what is laid along the work is longer on hot work.
      const mean = meanOf(s, instruments, isAlong(s.what) ? warmth : NO_WARMTH, toCorners);
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
    const { mm, uMm } = mean;
    spans[span] = { mm, uMm, realMm: REAL_CORNERS_MM, ...(mean.tape ? { tape: mean.tape.id } : {}) };
    if (mean.tape) tapes[mean.tape.id] = { uZeroMm: mean.tape.uZeroMm, uScale: mean.tape.uScale };
  }
  return { spans, tapes };
}

/** Largest independent uncertainty among the named quantities, mm: heights of one instrument share their zero. */
export const uOfHeights = (means: ReadonlyMap<string, Mean>, names: readonly string[]): number =>
  names.reduce((largest, name) => Math.max(largest, means.get(name)?.uMm ?? 0), 0);
