import { STAGES, type Stage } from "@/core/job";

/** The stages as they are named on screen, in working order. */
export const STAGE_NAMES: Record<Stage, string> = {
  job: "Job",
  frame: "Frame",
  cut: "Cut",
  bed: "Bed",
  square: "Square",
  weld: "Tack and weld",
  check: "Check",
  log: "Log",
};

/** Address of a stage; the job itself is the first. */
export const stagePath = (jobId: string, stage: Stage): string =>
  stage === "job" ? `/jobs/${jobId}` : `/jobs/${jobId}/${stage}`;

/** @returns the stage that an address shows. */
export function stageOf(pathname: string): Stage {
  const last = pathname.split("/")[3];
  return STAGES.find((s) => s === last) ?? "job";
}
