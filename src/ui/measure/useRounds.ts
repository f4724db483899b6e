import { useState } from "react";
import { keyOf, type Round } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { newRound } from "../job/stages";
import { useAddress } from "../parts/useAddress";
import { useWakeLock } from "../parts/useWakeLock";

/** What a measuring stage shows: its rounds, the one in sight, and the quantity that was picked in it. */
export interface Rounds<R extends Round> {
  current: R | null;
  /** Its id; known at once also for a round that was just begun and is not worked out yet. Null for one still to begin. */
  roundId: string | null;
  /** Keys of what stands in it by the entries themselves: the round as worked out may lag behind a quick hand. */
  stand: ReadonlySet<string>;
  /** A new round is about to be begun. */
  fresh: boolean;
  /** Shows a round (null: a new one) and keeps it in the address, so that reload and back return to it. */
  show: (id: string | null) => void;
  picked: string | null;
  /** @param round the round that it is picked in: the one in sight, unless one was begun in the same moment. */
  pick: (key: string | null, round?: string) => void;
}

/** @param rounds the rounds of one stage, in order. Keeps the screen awake while they are read. */
export function useRounds<R extends Round>(rounds: readonly R[]): Rounds<R> {
  useWakeLock();
  const [asked, move] = useAddress("round");
  // A round that was just begun is in the address before it is worked out: until then it is a fresh one.
  const current = (asked === null ? rounds.at(-1) : rounds.find((r) => r.round.id === asked)) ?? null;
  const { job, part } = useJob("job", "part");
  const { entries } = job;
  // One of a sub-assembly that the frame has no more is not read on.
  const begun = asked !== null && entries.some((e) => e.kind === "round" && e.id === asked && e.part === undefined);
  const roundId = current?.round.id ?? (begun ? asked : null);
  const at = roundId ?? "new";
  const count = new Map<string, number>();
  for (const e of entries) {
    if (e.kind !== "reading" || e.roundId !== roundId) continue;
    const key = keyOf(e);
    const before = count.get(key) ?? 0;
    count.set(key, e.value === null ? Math.max(0, before - 1) : e.again ? before + 1 : 1);
  }
  const stand = new Set([...count].flatMap(([key, n]) => (n > 0 ? [key] : [])));
  // What was picked belongs to one round: another starts with its own next reading.
  const [picked, setPicked] = useState<{ round: string; key: string | null }>({ round: at, key: null });
  return {
    current,
    roundId,
    stand,
    fresh: roundId === null,
    show: (id) => move(id ?? newRound(part?.id ?? null)),
    picked: picked.round === at ? picked.key : null,
    pick: (key, round = at) => setPicked({ round, key }),
  };
}
