/** What the frame carries: sets how loudly the tool defers to codes and licensed practice. */
export const CARRIES = ["furniture", "machine", "vehicle", "lifting", "people"] as const;
export type Carries = (typeof CARRIES)[number];
