"use client";

import { useState } from "react";
import { backBow, backBowWords, bowedMembers } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Fold } from "../parts/Fold";
import { SelectField } from "../parts/SelectField";
import { Trials } from "./Trials";

/** A member that its welds bow: what to bend it over first, and the series of trials until it comes out straight. */
export function BackBow() {
  const { evaluation } = useJob("evaluation");
  const { plan, units } = usePlanField();
  const { structure, prediction } = evaluation;
  const [member, setMember] = useState<string | null>(null);
  if (!structure || !prediction) return null;
  const bowed = bowedMembers(structure, prediction);
  const picked = bowed.find((b) => b.member === member) ?? bowed[0];
  const found = picked && backBow(plan, structure, picked);
  if (!picked || !found) return null;
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
        <Trials member={picked.member} />
        <p className="text-sm text-soft">
          What keeps a bend is how soft the tube gets under the arc: two facts of the trade agree with the model, and no
          more is known of it. Nothing that lifts or carries people is bent without whoever answers for it.
        </p>
      </div>
    </Fold>
  );
}
