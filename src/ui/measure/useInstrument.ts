import { useState } from "react";
import { type QuantityId, quantityKey, type Round } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { shelfOf } from "./InstrumentPicker";
import type { Quantity } from "./quantities";

/**
 * The instrument in hand: what was picked for this kind of quantity, else what read its kind last, in the round or before it,
 * else what read anything here last, else what the stage begins with, else the kind that is named first for the quantity. What is picked
 * for heights is no pick for lengths.
 */
export function useInstrument(
  round: Round | null,
  quantity: Quantity | null,
  quantities: readonly Quantity[],
  firstInstrument: string,
): { instrument: string; pick: (id: string) => void } {
  const { job } = useJob("job");
  const [picked, setPicked] = useState<Partial<Record<QuantityId["kind"], string>>>({});
  const kind = quantity?.what.kind ?? "distance";
  const shelf = shelfOf(job.instruments, quantity?.kinds);
  const fits = (id: string | undefined): id is string => id !== undefined && shelf.some((i) => i.id === id);
  const mine = new Set(quantities.map((q) => quantityKey(q.what)));
  const inRound = round?.all ?? [];
  const before = job.entries.flatMap((e) => (e.kind === "reading" && mine.has(quantityKey(e.what)) ? [e] : []));
  const candidates = [
    picked[kind],
    inRound.findLast((e) => e.what.kind === kind && fits(e.instrumentId))?.instrumentId,
    before.findLast((e) => e.what.kind === kind && fits(e.instrumentId))?.instrumentId,
    ...Object.values(picked),
    inRound.findLast((e) => fits(e.instrumentId))?.instrumentId,
    firstInstrument,
    ...(quantity?.kinds ?? []).map((kind) => shelf.find((i) => i.kind === kind)?.id),
  ];
  return {
    instrument: candidates.find(fits) ?? shelf[0]?.id ?? firstInstrument,
    pick: (id) => setPicked({ ...picked, [kind]: id }),
  };
}
