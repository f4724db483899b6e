import { SPANS } from "@/core/geometry";
import { type Instrument, SHELF } from "@/core/instruments";
import {
  type Entry,
  evaluate as evaluateWith,
  type Job,
  newPlan,
  type Plan,
  type QuantityId,
  type ReadingEntry,
  spanId,
} from "@/core/job";
import type { Gate } from "@/core/plan";
import { length } from "@/core/units";

let n = 0;
const id = () => `00000000-0000-4000-9000-${String(++n).padStart(12, "0")}`;
/** What every entry has. */
export const base = () => ({ id: id(), at: "2026-11-24T08:00:00.000Z", origin: "test" });
const plan = newPlan("Measured", "mm");
/** A job with these entries, its plan changed where a test says so. */
export const job = (
  entries: Entry[],
  change: (p: Plan) => Plan = (p) => p,
  instruments: Instrument[] = [...SHELF],
): Job => ({
  id: id(),
  createdAt: "2026-11-24T08:00:00.000Z",
  version: 1,
  plan: change(plan),
  instruments,
  entries,
});
/** Everything that a job says, without its prediction. */
export const evaluate = (j: Job) => evaluateWith(j, null);
/** A round that is begun. */
export const opened = (
  gate: "bed" | "dry fit" | "tacked" | "cold" | "cut",
  warmerK?: number,
): Extract<Entry, { kind: "round" }> => ({
  kind: "round",
  ...base(),
  gate,
  method: "heights",
  ...(warmerK === undefined ? {} : { warmerK }),
});
/** A quantity by the short word that tests use: a side or diagonal, `zA` a height, `R1` a rest. */
export function quantity(word: string): QuantityId {
  const span = SPANS.find((s) => s === word);
  if (span) return spanId(span);
  const [, of, start, end] = /^(\w+)\|(\w+)-(\w+)$/.exec(word) ?? [];
  if (of && start && end) return { kind: "offset", of, from: start, to: end };
  const [, from, at, to] = /^(\w+)\^(\w+)\^(\w+)$/.exec(word) ?? [];
  if (from && at && to) return { kind: "angle", from, at, to };
  const [, p, q] = /^(\w+)-(\w+)$/.exec(word) ?? [];
  if (p && q) return { kind: "distance", from: p, to: q };
  if (word === "r" || /^r[A-D]$/.test(word)) return { kind: "rock", held: (word[1] as "A") ?? null };
  if (/^R\d/.test(word)) return { kind: "rest", rest: word };
  const letters = { z: "height", f: "flush", g: "gap", s: "straightness", e: "edge", l: "level" } as const;
  const kind = letters[word[0] as keyof typeof letters];
  return kind ? { kind, at: word.slice(1) } : { kind: "piece", member: word };
}

/** One reading of a round. */
export const read = (
  roundId: string,
  what: string | QuantityId,
  text: string | null,
  more: Partial<ReadingEntry> = {},
  instrumentId = "tape-100",
): ReadingEntry => ({
  kind: "reading",
  ...base(),
  roundId,
  instrumentId,
  what: typeof what === "string" ? quantity(what) : what,
  value: text === null ? null : length(text),
  ...more,
});
/** A slope as it is typed, mm per metre. */
export const slope = (text: string): ReadingEntry["value"] => ({ value: Number(text), text, slant: "mm/m" });
/** An angle as it is typed, degrees. */
export const angle = (text: string): ReadingEntry["value"] => ({ value: Number(text), text, slant: "deg" });

/** A round with readings in mm, by the short words of their quantities. */
export function round(gate: Gate, values: Readonly<{ [word: string]: string }>, instrumentId = "tape-100"): Entry[] {
  const r = { kind: "round" as const, ...base(), gate, method: "heights" as const };
  return [r, ...Object.entries(values).map(([word, text]) => read(r.id, word, text, {}, instrumentId))];
}

/** Six tapes of a square frame of 1000 by 600, half a millimetre large. */
export const SQUARE = { AB: "1000.5", BC: "600.5", CD: "1000.5", DA: "600.5", AC: "1167", BD: "1167" };
