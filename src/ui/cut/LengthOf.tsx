"use client";

import { useState } from "react";
import { type CutPiece, closingMembers, inRuns } from "@/core/cut";
import type { Structure } from "@/core/frame";
import { type Plan, toGapWords } from "@/core/job";
import { usePlanField } from "../job/usePlanField";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";

type How = "worked out" | "drawn" | "gap";

/** Says of members that their length must not move, or no longer. */
function withFixed(plan: Plan, members: readonly string[], isFixed: boolean): Plan {
  if (!isFixed && !plan.fixed?.some((m) => members.includes(m))) return plan;
  const others = (plan.fixed ?? []).filter((m) => !members.includes(m));
  return { ...plan, fixed: isFixed ? [...others, ...members] : others };
}

/** Takes back what was measured for members. */
const withoutGaps = (plan: Plan, members: readonly string[]): Plan =>
  plan.closing ? { ...plan, closing: plan.closing.filter((c) => !members.includes(c.id)) } : plan;

/** What a line of the cut list is cut to: what is worked out, the drawing, or the gap that it goes into. */
export function LengthOf({ piece, structure }: { piece: CutPiece; structure: Structure }) {
  const { plan, units, edit, field, forget } = usePlanField();
  const { members } = piece;
  const [asked, setAsked] = useState<string | null>(null);
  const closing = closingMembers(structure).filter((c) => members.includes(c.member));
  const key = members.join();
  const how: How = piece.toGap || asked === key ? "gap" : piece.fixed ? "drawn" : "worked out";
  const choose = (next: How) => {
    setAsked(next === "gap" ? key : null);
    for (const m of members) forget(`closing.${m}.gap`);
    edit((p) => withFixed(next === "gap" ? p : withoutGaps(p, members), members, next === "drawn"));
  };
  const named = inRuns(members);
  const options: readonly [How, string][] = [
    ["worked out", "cut to what is worked out"],
    ["drawn", "must not move: as drawn"],
    ...(closing.length === members.length ? [["gap", "to the gap, as it is measured"] as [How, string]] : []),
  ];
  return (
    <div className="grid gap-3">
      <Choice label={`Length of ${named}`} value={how} options={options} onChange={choose} />
      {how === "gap"
        ? closing.map(({ member, between }) => {
            const path = `closing.${member}.gap`;
            const words = toGapWords(piece, between, units);
            return (
              <div key={member} className="grid gap-1">
                <LengthField
                  label={`Gap for ${member}, between ${between[0]} and ${between[1]}`}
                  units={units}
                  optional
                  value={plan.closing?.find((c) => c.id === member)?.gap ?? null}
                  {...field(path)}
                  onChange={(gap) =>
                    edit((p) => ({
                      ...p,
                      closing: [
                        ...(p.closing ?? []).filter((c) => c.id !== member),
                        ...(gap ? [{ id: member, gap }] : []),
                      ],
                    }))
                  }
                />
                {words ? (
                  <p className="max-w-prose text-sm" data-testid="to-gap">
                    {words}
                  </p>
                ) : null}
              </div>
            );
          })
        : null}
    </div>
  );
}
