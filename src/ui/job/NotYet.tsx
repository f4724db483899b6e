"use client";

import Link from "next/link";
import { buttonClass } from "../parts/Button";
import { Now } from "../parts/Sheet";
import { useJob } from "./JobProvider";
import { stagePath } from "./stages";

/** A stage that needs a frame, while the frame has errors. */
export function NotYet({ stage }: { stage: string }) {
  const { job, evaluation } = useJob("job", "evaluation");
  return (
    <>
      <h1 className="sr-only">{stage}</h1>
      {evaluation.structure ? (
        <Now
          say="This frame has no rectangle to measure here."
          why="Sides, diagonals and corner heights are told for four level members AB, BC, CD and DA of one tube, at right angles and joined at their corners. Name the four that carry the frame so, or keep its readings as notes in the log."
        />
      ) : (
        <Now
          say="Put the frame right first."
          why={evaluation.problems.find((p) => p.severity === "error")?.message ?? ""}
        />
      )}
      <Link href={stagePath(job.id, "frame")} className={`${buttonClass("advise")} justify-self-start`}>
        Go to the frame
      </Link>
    </>
  );
}
