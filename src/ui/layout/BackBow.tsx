"use client";

import { X } from "lucide-react";
import { useState } from "react";
import { backBow, backBowWords, bowedMembers } from "@/core/job";
import type { Length } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { LengthField } from "../parts/LengthField";
import { SelectField } from "../parts/SelectField";
import { withFixture } from "./Elements";

/** A member that its welds bow: what to bend it over first, and the series of trials until it comes out straight. */
export function BackBow() {
  const { evaluation } = useJob("evaluation");
  const { plan, units, edit } = usePlanField();
  const { structure, prediction } = evaluation;
  const [member, setMember] = useState<string | null>(null);
  const [shim, setShim] = useState<Length | null>(null);
  const [left, setLeft] = useState<Length | null>(null);
  const [isAsked, setAsked] = useState(false);
  if (!structure || !prediction) return null;
  const bowed = bowedMembers(structure, prediction);
  const picked = bowed.find((b) => b.member === member) ?? bowed[0];
  const found = picked && backBow(plan, structure, picked);
  if (!picked || !found) return null;
  const all = plan.fixture?.trials ?? [];
  const trials = all.filter((t) => t.member === picked.member);
  const size = (l: Length): string => `${l.text}${/[a-z"']/i.test(l.text) ? "" : ` ${l.unit}`}`;
  const keep = () => {
    if (!shim || !left) {
      setAsked(true);
      return;
    }
    const nth = 1 + Math.max(0, ...all.map((t) => Number(t.id.slice(1)) || 0));
    edit((p) =>
      withFixture(p, { trials: [...(p.fixture?.trials ?? []), { id: `T${nth}`, member: picked.member, shim, left }] }),
    );
    setShim(null);
    setLeft(null);
    setAsked(false);
  };
  return (
    <Fold title="Bent against the bow" note={`${bowed.length === 1 ? "1 member bows" : `${bowed.length} members bow`}`}>
      <div className="grid max-w-prose gap-3" data-testid="back-bow">
        <SelectField
          label="Member"
          value={picked.member}
          options={bowed.map((b) => [b.member, b.member] as const)}
          onChange={setMember}
        />
        {backBowWords(found, units).map((w) => (
          <p key={w}>{w}</p>
        ))}
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
        <p className="text-sm text-soft">
          What keeps a bend is how soft the tube gets under the arc: two facts of the trade agree with the model, and no
          more is known of it. Nothing that lifts or carries people is bent without whoever answers for it.
        </p>
      </div>
    </Fold>
  );
}
