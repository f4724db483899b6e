"use client";

import { X } from "lucide-react";
import { useState } from "react";
import type { Length } from "@/core/units";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { withFixture } from "./Elements";

const size = (l: Length): string => `${l.text}${/[a-z"']/i.test(l.text) ? "" : ` ${l.unit}`}`;

/** Trials of bending something over a shim: kept, taken away, and one more. @param member what was bent. */
export function Trials({ member }: { member: string }) {
  const { plan, units, edit } = usePlanField();
  const [shim, setShim] = useState<Length | null>(null);
  const [left, setLeft] = useState<Length | null>(null);
  const [isAsked, setAsked] = useState(false);
  const all = plan.fixture?.trials ?? [];
  const trials = all.filter((t) => t.member === member);
  const keep = () => {
    if (!shim || !left) {
      setAsked(true);
      return;
    }
    const nth = 1 + Math.max(0, ...all.map((t) => Number(t.id.slice(1)) || 0));
    edit((p) => withFixture(p, { trials: [...(p.fixture?.trials ?? []), { id: `T${nth}`, member, shim, left }] }));
    setShim(null);
    setLeft(null);
    setAsked(false);
  };
  return (
    <>
      {trials.length > 0 ? (
        <ol aria-label="Trials" className="grid gap-1">
          {trials.map((t) => (
            <li key={t.id} className="flex items-center gap-2">
              <span className="grow">
                Over {size(t.shim)}: {size(t.left)} left
              </span>
              <button
                type="button"
                className="tap inline-grid w-11 shrink-0 place-items-center rounded-[3px] border border-edge"
                aria-label={`Take away the trial over ${size(t.shim)}`}
                onClick={() =>
                  edit((p) => withFixture(p, { trials: (p.fixture?.trials ?? []).filter((x) => x.id !== t.id) }))
                }
              >
                <X size={18} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ol>
      ) : null}
      <div className="grid gap-3 sm:grid-cols-2">
        <LengthField label="Tried over" units={units} value={shim} optional onChange={setShim} />
        <LengthField label="Left when cold, as bent above 0" units={units} value={left} optional onChange={setLeft} />
      </div>
      {isAsked && (!shim || !left) ? (
        <FieldMessage severity="error">Give the shim and what was left.</FieldMessage>
      ) : null}
      <Button className="justify-self-start" onClick={keep}>
        Keep the trial
      </Button>
    </>
  );
}
