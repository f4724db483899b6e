import { usePathname, useSearchParams } from "next/navigation";
import { useState } from "react";
import type { Round } from "@/core/job";
import { useWakeLock } from "../parts/useWakeLock";

/** What a measuring stage shows: its rounds, the one in sight, and the quantity that was picked in it. */
export interface Rounds<R extends Round> {
  current: R | null;
  /** A new round is about to be begun. */
  fresh: boolean;
  /** Shows a round (null: a new one) and keeps it in the address, so that reload and back return to it. */
  show: (id: string | null) => void;
  picked: string | null;
  pick: (name: string | null) => void;
}

/** @param rounds the rounds of one stage, in order. Keeps the screen awake while they are read. */
export function useRounds<R extends Round>(rounds: readonly R[]): Rounds<R> {
  useWakeLock();
  const pathname = usePathname();
  const asked = useSearchParams().get("round");
  const fresh = asked === "new" || rounds.length === 0;
  const current = fresh ? null : (rounds.find((r) => r.round.id === asked) ?? rounds.at(-1) ?? null);
  const at = current?.round.id ?? "new";
  // What was picked belongs to one round: another starts with its own next reading.
  const [picked, setPicked] = useState<{ round: string; name: string | null }>({ round: at, name: null });
  return {
    current,
    fresh,
    show: (id) => window.history.pushState(null, "", `${pathname}?round=${id ?? "new"}`),
    picked: picked.round === at ? picked.name : null,
    pick: (name) => setPicked({ round: at, name }),
  };
}
