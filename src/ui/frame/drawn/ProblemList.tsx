"use client";

import type { Problem } from "@/core/units";
import { FieldMessage } from "../../parts/Field";

/** What is wrong or doubtful, each with a way to where it is. */
export function ProblemList({
  problems,
  onMember,
  onJoint,
}: {
  problems: readonly Problem[];
  onMember: (id: string) => void;
  onJoint: (id: string) => void;
}) {
  if (problems.length === 0) return null;
  return (
    <ul className="grid gap-1" aria-label="What is wrong or doubtful">
      {problems.map((p) => {
        const [, kind, id] = /^frame\.drawn\.(members|joints)\.(.+)$/.exec(p.path) ?? [];
        return (
          <li key={`${p.path}/${p.message}`} className="flex flex-wrap items-baseline gap-x-3">
            <FieldMessage severity={p.severity}>{p.message}</FieldMessage>
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
