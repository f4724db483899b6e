import "server-only";
import { v4 as uuid } from "uuid";
import type { Instrument } from "@/core/instruments";
import type { Job } from "@/core/job";

/**
 * A file's instrument that goes by an id of this shelf but is another one, or by an id of another shop's shelf, gets an id of its
 * own: readings keep what was known of the instrument that made them.
 * @param given ids that were given so far, by id and card: jobs that come together share them.
 */
export function withOwnInstruments(
  job: Job,
  shelf: readonly Instrument[],
  elsewhere: ReadonlySet<string>,
  given: Map<string, string> = new Map(),
): Job {
  // What a card replaced lies on another shelf: here it would take an instrument away that goes by the same id.
  const plain = ({ replaces: _old, away: _away, ...card }: Instrument): Instrument => card;
  const told = (i: Instrument): string =>
    JSON.stringify(Object.entries(plain(i)).sort(([a], [b]) => a.localeCompare(b)));
  const here = (i: Instrument): Instrument | undefined => shelf.find((s) => s.id === i.id);
  const ids = new Map(
    job.instruments.map((i) => {
      const own = here(i);
      const isAnother = elsewhere.has(i.id) || (own && told(own) !== told(i));
      const key = `${i.id} ${told(i)}`;
      if (isAnother && !given.has(key)) given.set(key, uuid());
      return [i.id, isAnother ? (given.get(key) as string) : i.id];
    }),
  );
  const own = (id: string): string => ids.get(id) ?? id;
  const used = new Set(job.entries.flatMap((e) => (e.kind === "reading" ? [e.instrumentId] : [])));
  return {
    ...job,
    // What nothing was read with is not put on this shelf.
    instruments: job.instruments.filter((i) => used.has(i.id)).map((i) => ({ ...plain(i), id: own(i.id) })),
    entries: job.entries.map((e) => (e.kind === "reading" ? { ...e, instrumentId: own(e.instrumentId) } : e)),
  };
}
