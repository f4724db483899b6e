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
    `tap shrink-0 rounded-[3px] border px-3 text-left text-sm leading-tight ${on ? "border-ink bg-ink text-sheet" : "border-edge bg-well"}`;
  return (
    <nav
      aria-label="Rounds"
      className="-mx-4 flex gap-1 overflow-x-auto px-4 py-1 sm:mx-0 sm:flex-wrap sm:overflow-visible sm:px-0"
    >
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
