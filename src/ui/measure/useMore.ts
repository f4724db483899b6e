import { useState } from "react";
import type { FrameRound } from "@/core/job";
import type { Places } from "@/core/square";
import { frameQuantity, type Quantity } from "./quantities";

/** What is read besides the usual: whatever the round holds already, and what was put on the list on this screen. */
export function useMore(
  round: FrameRound | null,
  places: Places | null,
  usual: ReadonlySet<string>,
): { more: Quantity[]; add: (what: string) => void } {
  const [added, setAdded] = useState<readonly string[]>([]);
  const held = round ? [...round.readings.keys(), ...round.slants.keys()] : [];
  const names = [...new Set([...held, ...added])].filter((what) => !usual.has(what));
  return {
    more: places ? names.flatMap((what) => frameQuantity(what, places, round) ?? []) : [],
    add: (what) => setAdded((list) => (list.includes(what) ? list : [...list, what])),
  };
}
