import "server-only";
import { type TestBead, testBeadSchema } from "@/core/weld";
import * as store from "@/store";
import { done, type Outcome, parse, refuse } from "./outcome";
import { type Caller, signed } from "./who";

/** Beads that a shop may log, and how many of the newest are told. */
export const BEAD_LIMIT = 20_000;
const TOLD = 500;

/** The newest test beads of the shop. */
export const listTestBeads = (who: Caller): Promise<TestBead[]> => store.listTestBeads(store.pool(), who.shopId, TOLD);

/** Logs a test bead; sent twice it is logged once. */
export async function addTestBead(who: Caller, input: unknown): Promise<Outcome<TestBead>> {
  const parsed = parse(testBeadSchema, input);
  if (!parsed.ok) return parsed;
  if ((await store.countTestBeads(store.pool(), who.shopId)) >= BEAD_LIMIT)
    return refuse(422, `The log is full: ${BEAD_LIMIT} test beads.`);
  const bead = { ...parsed.value, origin: signed(who, parsed.value.origin) };
  await store.addTestBead(store.pool(), who.shopId, bead);
  return done(bead);
}
