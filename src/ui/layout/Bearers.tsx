"use client";

import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { bearersUnder, type PlannedBearer } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { withFixture } from "./Elements";

const MOST = 40;
const ENDS = ["from", "to"] as const;
const AXES = [
  ["x", "along"],
  ["y", "across"],
] as const;

/** Trestles, bars or a triangle that a frame lies on: laid under it, and moved. */
export function Bearers() {
  const { plan, units, edit, field, forget } = usePlanField();
  const { evaluation } = useJob("evaluation");
  const { structure } = evaluation;
  const bearers = plan.fixture?.bearers ?? [];
  const [count, setCount] = useState(bearers.length || 3);
  const set = (next: PlannedBearer[]) => edit((p) => withFixture(p, { bearers: next }));
  const lay = (what: Parameters<typeof bearersUnder>[2]) => {
    forget("fixture.bearers.");
    if (structure) set(bearersUnder(structure, units, what));
  };
  const free = Array.from({ length: 99 }, (_, i) => `T${i + 1}`).find((id) => !bearers.some((b) => b.id === id));
  const last = bearers.at(-1);
  return (
    <div className="grid gap-3" data-testid="bearers">
      <div className="flex flex-wrap items-end gap-2">
        <NumberField label="Trestles" unit="" min={2} max={12} value={count} onChange={(n) => n && setCount(n)} />
        <Button onClick={() => lay({ trestles: Math.min(12, Math.max(2, Math.round(count))) })}>Lay them across</Button>
        <Button onClick={() => lay("triangle")}>A triangle of tube</Button>
        <Button
          disabled={!free || !last || bearers.length >= MOST}
          onClick={() => free && last && set([...bearers, { ...last, id: free }])}
        >
          <Plus size={18} aria-hidden="true" /> One more bar
        </Button>
      </div>
      <p className="text-sm text-soft">
        From {structure?.quad ? "corner A" : "the lower left of the frame"}, seen from above. Stops and clamps go where
        members lie on them, where joints leave room; it is held down, or lies by its weight, there alone.
      </p>
      <ul className="grid gap-3">
        {bearers.map((bearer, i) => (
          <li key={bearer.id} className="grid grid-cols-[2.5rem_minmax(0,1fr)_minmax(0,1fr)_auto] items-start gap-2">
            <strong className="fig mt-8">{bearer.id}</strong>
            {ENDS.map((end) => (
              <div key={end} className="grid gap-2">
                {AXES.map(([axis, word]) => (
                  <LengthField
                    key={axis}
                    label={
                      <>
                        <span className="sr-only">{bearer.id} </span>
                        {end}, {word}
                      </>
                    }
                    units={units}
                    value={bearer[end][axis]}
                    {...field(`fixture.bearers.${i}.${end}.${axis}`, `fixture.bearers.${bearer.id}.${end}.${axis}`)}
                    onChange={(v) =>
                      v && set(bearers.map((b) => (b.id === bearer.id ? { ...b, [end]: { ...b[end], [axis]: v } } : b)))
                    }
                  />
                ))}
              </div>
            ))}
            <Button
              look="quiet"
              className="mt-6.5"
              aria-label={`Take ${bearer.id} out`}
              disabled={bearers.length === 1}
              onClick={() => {
                forget(`fixture.bearers.${bearer.id}.`);
                set(bearers.filter((b) => b.id !== bearer.id));
              }}
            >
              <Trash2 size={18} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
