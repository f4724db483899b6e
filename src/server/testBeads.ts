import "server-only";
import { type TestBead, testBeadSchema } from "@/core/weld";
import * as store from "@/store";
import { done, type Outcome, parse, refuse } from "./outcome";

/** Beads that a shop may log, and how many of the newest are told. */
const LOG_LIMIT = 20_000;
const TOLD = 500;

/** The newest test beads of the shop. */
export const listTestBeads = (): Promise<TestBead[]> => store.listTestBeads(store.pool(), TOLD);

/** Logs a test bead; sent twice it is logged once. */
export async function addTestBead(input: unknown): Promise<Outcome<TestBead>> {
  const parsed = parse(testBeadSchema, input);
  if (!parsed.ok) return parsed;
  if ((await store.countTestBeads(store.pool())) >= LOG_LIMIT)
    return refuse(422, `The log is full: ${LOG_LIMIT} test beads.`);
  await store.addTestBead(store.pool(), parsed.value);
  return done(parsed.value);
}
