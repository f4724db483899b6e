import type { Entry } from "../entrySchema";
import { FORMAT } from "../format";
import type { Plan } from "../planSchema";
import { entryFromFirst, planFromFirst } from "./first";

/** Steps from each format to the next one, in order: the first goes from 1 to 2. */
const PLAN_STEPS: readonly ((raw: unknown) => unknown)[] = [planFromFirst];

const formatOf = (raw: unknown): number => {
  const format = typeof raw === "object" && raw !== null && "format" in raw ? raw.format : undefined;
  return typeof format === "number" ? format : 1;
};

/** A plan of any earlier format as one of today. What is not a plan is handed on as it is, for its schema to refuse. */
export function upgradePlan(raw: unknown): unknown {
  let plan = raw;
  for (let format = formatOf(raw); format >= 1 && format < FORMAT; format++) plan = PLAN_STEPS[format - 1]?.(plan);
  return plan;
}

/** A plan as it was stored: whatever its format, it was checked before it was kept. */
export const storedPlan = (raw: unknown): Plan => upgradePlan(raw) as Plan;

/** Entries of any earlier format as ones of today. @param gateOf gate of a round that is not among them. */
export function upgradeEntries(
  raw: readonly unknown[],
  gateOf: (roundId: string) => string | undefined = () => undefined,
): unknown[] {
  const gates = new Map<string, string>();
  for (const e of raw)
    if (typeof e === "object" && e !== null && "kind" in e && e.kind === "round" && "id" in e && "gate" in e)
      gates.set(String(e.id), String(e.gate));
  return raw.map((e) => entryFromFirst(e, (id) => gates.get(id) ?? gateOf(id)));
}

/** An entry as it was stored: whatever its format, it was checked before it was kept. */
export const storedEntries = (raw: readonly unknown[], gateOf?: (roundId: string) => string | undefined): Entry[] =>
  upgradeEntries(raw, gateOf) as Entry[];
