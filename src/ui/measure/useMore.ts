import { useState } from "react";
import { type FrameRound, type QuantityId, quantityKey } from "@/core/job";
import type { Places } from "@/core/square";
import { useJob } from "../job/JobProvider";
import { frameQuantity, type Quantity } from "./quantities";

/** What is read besides the usual: whatever the round holds already, and what was put on the list on this screen. */
export function useMore(
  round: FrameRound | null,
  places: Places | null,
  usual: ReadonlySet<string>,
): { more: Quantity[]; add: (what: QuantityId) => void } {
  const { units } = useJob("units");
  const [added, setAdded] = useState<readonly QuantityId[]>([]);
  const held = round ? [...round.readings.values(), ...round.slants.values()].map((s) => s.what) : [];
  const wanted = new Map([...held, ...added].map((what) => [quantityKey(what), what]));
  return {
    more: places
      ? [...wanted].flatMap(([key, what]) => (usual.has(key) ? [] : (frameQuantity(what, places, round, units) ?? [])))
      : [],
    add: (what) => setAdded((list) => [...list.filter((q) => quantityKey(q) !== quantityKey(what)), what]),
  };
}
