"use client";

import type { NearMiss } from "@/core/frame";
import type { Problem } from "@/core/units";
import { FieldMessage } from "../../parts/Field";

/** What is wrong or doubtful, each with a way to where it is. */
export function ProblemList({
  problems,
  misses,
  onBring,
  onMember,
  onJoint,
}: {
  problems: readonly Problem[];
  /** Ends that stand a little short of another member. */
  misses: readonly NearMiss[];
  onBring: (miss: NearMiss) => void;
  onMember: (id: string) => void;
  onJoint: (id: string) => void;
}) {
  if (problems.length === 0) return null;
  return (
    <ul className="grid gap-1" aria-label="What is wrong or doubtful">
      {problems.map((p) => {
        const [, kind, id] = /^frame\.drawn\.(members|joints)\.(.+)$/.exec(p.path) ?? [];
        const bring = misses.find((m) => p.path === `frame.drawn.members.${m.member}.${m.end}`);
        return (
          <li key={`${p.path}/${p.message}`} className="flex flex-wrap items-baseline gap-x-3">
            <FieldMessage severity={p.severity}>{p.message}</FieldMessage>
            {bring ? (
              <button type="button" className="tap text-sm underline" onClick={() => onBring(bring)}>
                Bring {bring.member} to {bring.to}
              </button>
            ) : null}
            {kind && id ? (
              <button
                type="button"
                className="text-sm underline"
                onClick={() => (kind === "members" ? onMember(id.split(".")[0] as string) : onJoint(id))}
              >
                Show {kind === "members" ? id.split(".")[0] : id}
              </button>
            ) : null}
          </li>
        );
      })}
    </ul>
  );
}
