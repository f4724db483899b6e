import "server-only";
import { v4 as uuid } from "uuid";
import { type Instrument, instrumentSchema } from "@/core/units";
import * as store from "@/store";
import { done, type Outcome, parse, refuse } from "./outcome";

const SHELF_LIMIT = 300;

/** Every instrument on the shelf. */
export const listInstruments = (): Promise<Instrument[]> => store.listInstruments(store.pool());

/** Puts an instrument on the shelf. @param input everything but the id. */
export async function addInstrument(input: unknown): Promise<Outcome<Instrument>> {
  const parsed = parse(instrumentSchema.omit({ id: true }), input);
  if (!parsed.ok) return parsed;
  if ((await listInstruments()).length >= SHELF_LIMIT)
    return refuse(422, `The shelf is full: ${SHELF_LIMIT} instruments.`);
  const instrument = { id: uuid(), ...parsed.value };
  await store.addInstruments(store.pool(), [instrument]);
  return done(instrument);
}
