"use client";

import { X } from "lucide-react";
import type { Structure } from "@/core/frame";
import type { Plan } from "@/core/job";
import { holdWords } from "@/core/plan";
import { usePlanField } from "../job/usePlanField";
import { Tick } from "../parts/Tick";

type Can = keyof NonNullable<Plan["hands"]>;

const SAID: readonly (readonly [Can, string])[] = [
  ["two", "Two weld at once, at different joints"],
  ["overhead", "Overhead, too: the frame need not be turned over for every face"],
  ["noUpright", "Nobody welds upright seams"],
];

/** Who welds, and which welds wait for others, each to be ticked or taken away. */
export default function HandsFields({ structure }: { structure: Structure }) {
  const { plan, edit } = usePlanField();
  const hands = plan.hands ?? {};
  const holds = plan.holds ?? [];
  const set = (can: Can, on: boolean) =>
    edit(({ hands: before, ...p }) => {
      const { [can]: _, ...rest } = before ?? {};
      const next = on ? { ...rest, [can]: true as const } : rest;
      return Object.keys(next).length > 0 ? { ...p, hands: next } : p;
    });
  return (
    <div className="grid max-w-prose gap-2" data-testid="hands">
      {SAID.map(([can, words]) => (
        <Tick key={can} checked={hands[can] === true} onChange={(on) => set(can, on)}>
          {words}
        </Tick>
      ))}
      {hands.two ? (
        <p className="text-sm text-soft">
          Whoever is free takes the next weld, never two at one joint. In the forecast the welds follow each other.
        </p>
      ) : null}
      {holds.length > 0 ? (
        <ul className="grid gap-1" aria-label="Welds that wait">
          {holds.map((h) => {
            const words = holdWords(structure, h).replace(/^./, (c) => c.toUpperCase());
            return (
              <li key={h.id} className="flex items-center gap-2">
                <span className="grow">{words}.</span>
                <button
                  type="button"
                  className="tap inline-grid w-11 shrink-0 place-items-center rounded-[3px] border border-edge"
                  aria-label={`Take away: ${words}`}
                  onClick={() =>
                    edit(({ holds: before, ...p }) => {
                      const rest = (before ?? []).filter((x) => x.id !== h.id);
                      return rest.length > 0 ? { ...p, holds: rest } : p;
                    })
                  }
                >
                  <X size={18} aria-hidden="true" />
                </button>
              </li>
            );
          })}
        </ul>
      ) : (
        <p className="text-sm text-soft">What a weld must wait for is said at its step, under “How it is laid”.</p>
      )}
    </div>
  );
}
