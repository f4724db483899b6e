import { STAGES, type Stage } from "@/core/job";

/** The stages as they are named on screen, in working order. */
export const STAGE_NAMES: Record<Stage, string> = {
  job: "Job",
  frame: "Frame",
  cut: "Cut",
  bed: "Bed",
  layout: "Lay out",
  square: "Square",
  weld: "Tack and weld",
  check: "Check",
  finish: "Finish",
  log: "Log",
};

/** Address of a stage; the job itself is the first. */
export const stagePath = (jobId: string, stage: Stage): string =>
  stage === "job" ? `/jobs/${jobId}` : `/jobs/${jobId}/${stage}`;

/** Address of a measuring stage with one of its rounds in sight. @param roundId null for a round still to begin. */
export const roundPath = (
  jobId: string,
  stage: "bed" | "square" | "check",
  roundId: string | null,
  part: string | null = null,
): string => `${stagePath(jobId, stage)}?round=${encodeURIComponent(roundId ?? newRound(part))}`;

/** What an address says of a round that is still to begin. @param part the sub-assembly that is measured by itself; null for the frame. */
export const newRound = (part: string | null): string => (part === null ? "new" : `new-${part}`);

/** The sub-assembly of which an address begins a round; null where it does not. */
export const partOfNew = (asked: string | null): string | null => /^new-(.+)$/.exec(asked ?? "")?.[1] ?? null;

/** @returns the stage that an address shows. */
export function stageOf(pathname: string): Stage {
  const last = pathname.split("/")[3];
  return STAGES.find((s) => s === last) ?? "job";
}
