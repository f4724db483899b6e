"use client";

import { type DrawnFrame, TURN_NAMES } from "@/core/frame";
import { turnedPlan } from "@/core/job";
import { useJob } from "../../job/JobProvider";
import { usePlanField } from "../../job/usePlanField";
import { Button } from "../../parts/Button";

/** The whole frame turned by quarters: as it is to lie on the bed, however it stands when it is done. */
export function Turning({ frame }: { frame: DrawnFrame }) {
  const { job } = useJob("job");
  const { edit } = usePlanField();
  // Corners and heights of a frame that was read are those of how it lay.
  const wasRead = job.entries.some((e) => e.kind === "round" && e.gate !== "bed" && e.gate !== "cut");
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap gap-2">
        {TURN_NAMES.map((turn) => (
          <Button key={turn} disabled={wasRead} onClick={() => edit((p) => turnedPlan(p, turn))}>
            {turn.replace(/^./, (c) => c.toUpperCase())}
          </Button>
        ))}
      </div>
      <p className="text-sm text-soft">
        {wasRead
          ? "This frame has been read as it lies: turned, its readings would be of other corners. Begin a job for it turned over."
          : `A frame is laid out as it is drawn. Joints, beads, faces to be ground and parts stay where they are on it${
              frame.floor ? "; the least gap to the floor is no longer asked once something else is below" : ""
            }.`}
      </p>
    </div>
  );
}
