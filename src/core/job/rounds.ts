import { SPANS, type Span } from "../frame";
import type { SpanReading, Tape } from "../square";
import { fullUncertainty, type Instrument, readingUncertainty } from "../units";
import type { Entry, ReadingEntry, RoundEntry } from "./entrySchema";

/** A round with what stands in it. */
export interface Round {
  round: RoundEntry;
  /** 1, 2, 3 … within its gate. */
  number: number;
  /** Latest reading of each quantity, withdrawn ones left out. */
  readings: Map<string, ReadingEntry & { value: NonNullable<ReadingEntry["value"]> }>;
  /** Every reading ever entered in it, in order. */
  all: ReadingEntry[];
}

/** @param entries of one job, in order. @returns its rounds, in order. */
export function roundsOf(entries: readonly Entry[]): Round[] {
  const rounds = new Map<string, Round>();
  const count = new Map<string, number>();
  for (const entry of entries) {
    if (entry.kind === "round") {
      const number = (count.get(entry.gate) ?? 0) + 1;
      count.set(entry.gate, number);
      rounds.set(entry.id, { round: entry, number, readings: new Map(), all: [] });
    } else if (entry.kind === "reading") {
      const round = rounds.get(entry.roundId);
      if (!round) continue;
      round.all.push(entry);
      if (entry.value === null) round.readings.delete(entry.what);
      else round.readings.set(entry.what, { ...entry, value: entry.value });
    }
  }
  return [...rounds.values()];
}

/** Taped spans of a round with their uncertainties; readings of one instrument share its zero and scale error. */
export function spansOf(
  round: Round,
  instruments: readonly Instrument[],
): { spans: Partial<Record<Span, SpanReading>>; tapes: Record<string, Tape> } {
  const spans: Partial<Record<Span, SpanReading>> = {};
  const tapes: Record<string, Tape> = {};
  for (const span of SPANS) {
    const reading = round.readings.get(span);
    const instrument = reading && instruments.find((i) => i.id === reading.instrumentId);
    if (!reading || !instrument) continue;
    const u = readingUncertainty(instrument);
    spans[span] = { mm: reading.value.mm, uMm: u.uMm, tape: instrument.id };
    tapes[instrument.id] = { uZeroMm: u.uZeroMm, uScale: u.uScale };
  }
  return { spans, tapes };
}

/** Largest independent uncertainty among the named readings, mm: heights of one instrument share their zero. */
export function uOfHeights(round: Round, names: readonly string[], instruments: readonly Instrument[]): number {
  return names.reduce((largest, name) => {
    const instrument = instruments.find((i) => i.id === round.readings.get(name)?.instrumentId);
    return instrument ? Math.max(largest, readingUncertainty(instrument).uMm) : largest;
  }, 0);
}

/** Everything that one reading may be off by, mm (1 sigma). */
export function uOfReading(round: Round, what: string, instruments: readonly Instrument[]): number {
  const reading = round.readings.get(what);
  const instrument = instruments.find((i) => i.id === reading?.instrumentId);
  return reading && instrument ? fullUncertainty(readingUncertainty(instrument), reading.value.mm) : 0;
}
