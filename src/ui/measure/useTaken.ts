import { useState } from "react";
import { type QuantityId, type Round, spanOf } from "@/core/job";
import type { Length } from "@/core/units";
import { useJob } from "../job/JobProvider";

/** What is done besides reading, as it was typed. */
export interface HowTaken {
  setIn?: Length;
  plus?: Length;
}

/**
 * How lengths are taped here: as it was said on this screen, else as the last length of the round was, else of the job.
 * @returns how, what of it holds for a quantity, and a way to say it anew.
 */
export function useTaken(round: Round | null) {
  const { entries } = useJob("job").job;
  const [said, say] = useState<HowTaken | null>(null);
  const isLast = (e: (typeof entries)[number]) =>
    e.kind === "reading" && e.what.kind === "distance" && e.value !== null;
  const last = round?.all.findLast(isLast) ?? entries.findLast(isLast);
  const { setIn, plus } = (last?.kind === "reading" && last.taken) || {};
  const how: HowTaken = said ?? { ...(setIn ? { setIn } : {}), ...(plus ? { plus } : {}) };
  const of = (what: QuantityId): HowTaken => {
    if (what.kind !== "distance") return {};
    return { ...(how.plus ? { plus: how.plus } : {}), ...(how.setIn && spanOf(what) ? { setIn: how.setIn } : {}) };
  };
  return { how, of, say };
}
