"use client";

import { useMemo } from "react";
import type { Structure } from "@/core/frame";
import type { Vec3 } from "@/core/numeric";
import type { Step } from "@/core/plan";
import type { Replay } from "@/core/shrink";
import type { UnitPreference } from "@/core/units";
import { StructureDrawing } from "../drawing";
import { roundFactor, rowOf } from "./replay";

/** Where every member's line lies after a row of the replay, exaggerated: one line a member, mm. */
export function movedLines(replay: Replay, row: number, factor: number): Vec3[][] {
  const out = replay.history[row];
  if (!out) return [];
  const lines = new Map<string, Vec3[]>();
  for (const p of replay.points) {
    if (p.member === null) continue;
    const d = (k: number): number => factor * (out[p.first + k] as number);
    lines.set(p.member, [...(lines.get(p.member) ?? []), [p.at[0] + d(0), p.at[1] + d(1), p.at[2] + d(2)]]);
  }
  return [...lines.values()];
}

/** Any frame with the joint that is worked on, what is done, and how it has moved by then. */
export function StructureReplay({
  structure,
  replay,
  steps,
  now,
  shown,
  ticked,
  units,
}: {
  structure: Structure;
  replay: Replay | null;
  steps: readonly Step[];
  now: Step | null;
  shown: Step | undefined;
  ticked: ReadonlySet<string>;
  units: UnitPreference;
}) {
  const factor = useMemo(() => {
    if (!replay) return 1;
    const rows = steps.filter((s) => s.part === shown?.part).map((s) => rowOf(replay, s.key));
    const size = structure.high.map((v, i) => v - (structure.low[i] as number)).sort((a, b) => b - a);
    return roundFactor(replay, rows, Math.max(1, size[1] as number));
  }, [replay, steps, shown?.part, structure]);
  const joint = structure.joints.find((j) => j.id === now?.joint);
  const face = joint?.faces.find((f) => f.line === now?.face);
  const row = replay && shown ? rowOf(replay, shown.key) : -1;
  const done = new Map(
    steps.flatMap((s) => {
      const j = s.joint && ticked.has(s.key) ? structure.joints.find((x) => x.id === s.joint) : undefined;
      return j ? [[j.id, j.at] as const] : [];
    }),
  );
  return (
    <>
      <StructureDrawing
        structure={structure}
        units={units}
        label={now ? `Where to work: ${now.say}` : "The frame"}
        selected={joint ? [joint.a, joint.b] : []}
        joint={joint ? { at: joint.at, toward: face?.toward ?? [0, 0, 0] } : null}
        doneJoints={[...done.values()]}
        lines={replay && row >= 0 ? movedLines(replay, row, factor) : []}
        maxHeight={400}
      />
      {replay && row >= 0 ? (
        <p className="text-sm text-soft">Dashed: predicted after this step, drawn {factor} times as large.</p>
      ) : null}
    </>
  );
}
