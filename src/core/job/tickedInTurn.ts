import { inTime } from "./inTime";
import type { Job } from "./jobSchema";
import { tickKey } from "./tickId";

/** Keys of what is ticked, in the order in which it was ticked last. @param ticked what is ticked by now. */
export function tickedInTurn({ entries }: Pick<Job, "entries">, ticked: ReadonlySet<string>): string[] {
  const keys = new Set<string>();
  for (const e of inTime(entries)) {
    if (e.kind !== "tick" || !e.done) continue;
    const key = tickKey(e.step);
    if (!ticked.has(key)) continue;
    keys.delete(key);
    keys.add(key);
  }
  return [...keys];
}
