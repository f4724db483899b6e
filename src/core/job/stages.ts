/** Stages of a job, in the order of the work. */
export const STAGES = ["job", "frame", "cut", "bed", "layout", "square", "weld", "check", "finish", "log"] as const;
export type Stage = (typeof STAGES)[number];
