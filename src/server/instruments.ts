import "server-only";
import { v4 as uuid } from "uuid";
import * as z from "zod";
import { type Instrument, instrumentSchema } from "@/core/instruments";
import * as store from "@/store";
import { done, type Outcome, parse, refuse } from "./outcome";
import type { Caller } from "./who";

/** Instruments that a shelf holds, whichever way they come onto it. */
export const SHELF_LIMIT = 300;

/** Every instrument on the shelf, and what was put away, marked so. */
export const listInstruments = (who: Caller): Promise<Instrument[]> => store.listInstruments(store.pool(), who.shopId);

/** Puts an instrument on the shelf. @param input everything but the id. */
export async function addInstrument(who: Caller, input: unknown): Promise<Outcome<Instrument>> {
  const parsed = parse(instrumentSchema.omit({ id: true, away: true }), input);
  if (!parsed.ok) return parsed;
  const shelf = await listInstruments(who);
  if (shelf.filter((i) => !i.away).length >= SHELF_LIMIT)
    return refuse(422, `The shelf is full: ${SHELF_LIMIT} instruments. Put away what is not used any more.`);
  const { replaces } = parsed.value;
  if (replaces !== undefined) {
    const old = shelf.find((i) => i.id === replaces);
    const wrong = (message: string) => refuse(422, message, [{ path: "replaces", message, severity: "error" }]);
    if (!old) return wrong("The instrument that this card replaces is not on the shelf.");
    if (shelf.some((i) => i.replaces === replaces))
      return wrong(`${old.name} was tested meanwhile: its card has been replaced already. Open the shelf anew.`);
    if (old.kind !== parsed.value.kind) return wrong(`A ${old.kind} cannot become a ${parsed.value.kind}.`);
  }
  const instrument = { id: uuid(), ...parsed.value };
  await store.addInstruments(store.pool(), who.shopId, [instrument]);
  return done(instrument);
}

/** Puts an instrument away, or back onto the shelf: it is not offered any more, and kept for the readings made with it. */
export async function putInstrumentAway(who: Caller, id: string, input: unknown): Promise<Outcome<null>> {
  const parsed = parse(z.strictObject({ away: z.boolean() }), input);
  if (!parsed.ok) return parsed;
  const shelf = await listInstruments(who);
  const found = shelf.find((i) => i.id === id);
  if (!found) return refuse(404, "There is no such instrument on the shelf.");
  const here = shelf.filter((i) => !i.away);
  if (!parsed.value.away && found.away && here.length >= SHELF_LIMIT)
    return refuse(422, `The shelf is full: ${SHELF_LIMIT} instruments.`);
  if (parsed.value.away && here.length <= 1)
    return refuse(422, "One instrument stays on the shelf: without one nothing can be read.");
  await store.putInstrumentAway(store.pool(), who.shopId, id, parsed.value.away);
  return done(null);
}
