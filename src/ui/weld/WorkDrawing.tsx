"use client";

import { useMemo } from "react";
import { exaggeration, inScene, movedLines } from "@/core/drawing";
import { type Structure, seenAt } from "@/core/frame";
import { predictedDecimals } from "@/core/job";
import type { Step, Warmth } from "@/core/plan";
import type { Replay } from "@/core/shrink";
import { formatSmall, type UnitPreference } from "@/core/units";
import { FrameDrawing, useScene } from "../drawing";
import { cornerLifts, rowOf } from "./replay";

/** Drawn as hot as this at most, K over the air. */
const HOTTEST_K = 200;

/** A frame with the joint that is worked on, what is done, and how it has moved by then. */
export function WorkDrawing({
  structure,
  replay,
  steps,
  now,
  say,
  shown,
  ticked,
  warmth,
  units,
}: {
  structure: Structure;
  replay: Replay | null;
  steps: readonly Step[];
  now: Step | null;
  /** The step that is worked on, in words. */
  say: string | null;
  /** The step whose end is drawn. */
  shown: Step | undefined;
  ticked: ReadonlySet<string>;
  /** How warm the joints are: drawn about them, hotter larger and darker. */
  warmth: readonly Warmth[];
  units: UnitPreference;
}) {
  const scene = useScene(structure);
  const part = shown?.part;
  const factor = useMemo(() => {
    if (!replay) return 1;
    const rows = steps.filter((s) => s.part === part).map((s) => rowOf(replay, s.key));
    return exaggeration(structure, scene.view, replay, rows);
  }, [replay, steps, part, structure, scene]);
  const joints = useMemo(() => new Map(structure.joints.map((j) => [j.id, j])), [structure]);
  const joint = now?.joint ? joints.get(now.joint) : undefined;
  const face = joint?.faces.find((f) => f.line === now?.line);
  const done = new Set(steps.flatMap((s) => (s.joint !== null && ticked.has(s.key) ? [s.joint] : [])));
  const row = replay && shown ? rowOf(replay, shown.key) : -1;
  const lifts = replay && scene.corners ? cornerLifts(replay, row) : null;
  const heights = lifts ? ` At corners: height, ${units === "mm" ? "mm" : "in"}.` : "";
  return (
    <FrameDrawing
      scene={scene}
      units={units}
      label={say === null ? "The frame" : `Where to work: ${say}`}
      selected={joint ? [joint.a, joint.b] : []}
      joint={joint ? { at: inScene(scene, joint.at), toward: seenAt(face?.toward ?? [0, 0, 0], scene.view) } : null}
      doneJoints={[...done].flatMap((id) => {
        const j = joints.get(id);
        return j ? [inScene(scene, j.at)] : [];
      })}
      moved={
        replay && row >= 0
          ? {
              outlines: movedLines(structure, scene, replay, row, factor),
              note: `Dashed: predicted after this step, drawn ${factor} times as large.${heights}`,
            }
          : null
      }
      cornerText={
        lifts
          ? Object.fromEntries(
              Object.entries(lifts).map(([c, mm]) => [
                c,
                formatSmall(mm, units, { decimals: predictedDecimals(units), bare: true, signed: true }),
              ]),
            )
          : {}
      }
      cornerTone="cool"
      bare
      maxHeight={400}
    >
      {(p) =>
        warmth.map(({ joint: id, riseK, is }) => {
          const j = joints.get(id);
          if (!j) return null;
          const at = p.to(inScene(scene, j.at));
          const share = Math.min(1, riseK / HOTTEST_K);
          return (
            <circle
              key={id}
              cx={at.x}
              cy={at.y}
              r={8 + 14 * share}
              fill="var(--hot)"
              fillOpacity={0.1 + 0.45 * share}
              stroke="var(--hot)"
              strokeDasharray={is === "hot" ? undefined : "3 3"}
              pointerEvents="none"
            />
          );
        })
      }
    </FrameDrawing>
  );
}
