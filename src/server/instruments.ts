import "server-only";
import { v4 as uuid } from "uuid";
import { type Instrument, instrumentSchema } from "@/core/instruments";
import * as store from "@/store";
import { done, type Outcome, parse, refuse } from "./outcome";

/** Instruments that a shelf holds, whichever way they come onto it. */
export const SHELF_LIMIT = 300;

/** Every instrument on the shelf. */
export const listInstruments = (): Promise<Instrument[]> => store.listInstruments(store.pool());

/** Puts an instrument on the shelf. @param input everything but the id. */
export async function addInstrument(input: unknown): Promise<Outcome<Instrument>> {
  const parsed = parse(instrumentSchema.omit({ id: true }), input);
  if (!parsed.ok) return parsed;
  const shelf = await listInstruments();
  if (shelf.length >= SHELF_LIMIT) return refuse(422, `The shelf is full: ${SHELF_LIMIT} instruments.`);
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
  await store.addInstruments(store.pool(), [instrument]);
  return done(instrument);
}
