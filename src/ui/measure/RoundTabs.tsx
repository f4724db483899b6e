"use client";

import type { Round } from "@/core/job";
import { When } from "../parts/When";

/** Every round that was measured, oldest first, and a new one. All are kept. */
export function RoundTabs({
  rounds,
  current,
  fresh,
  onShow,
}: {
  rounds: readonly Round[];
  current: Round | null;
  fresh: boolean;
  onShow: (id: string | null) => void;
}) {
  const look = (on: boolean) =>
    `min-h-11 rounded-[3px] border px-3 text-left text-sm leading-tight ${on ? "border-ink bg-ink text-sheet" : "border-edge bg-well"}`;
  return (
    <nav aria-label="Rounds" className="flex flex-wrap gap-1">
      {rounds.map((r) => {
        const on = current?.round.id === r.round.id;
        return (
          <button
            key={r.round.id}
            type="button"
            className={look(on)}
            aria-current={on ? "true" : undefined}
            onClick={() => onShow(r.round.id)}
          >
            {r.round.gate} {r.number} · <When at={r.round.at} short />
          </button>
        );
      })}
      <button
        type="button"
        className={look(fresh)}
        aria-current={fresh ? "true" : undefined}
        onClick={() => onShow(null)}
      >
        New round
      </button>
    </nav>
  );
}
