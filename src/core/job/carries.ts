/** What the frame carries: sets how loudly the tool defers to codes and licensed practice. */
export const CARRIES = ["furniture", "machine", "vehicle", "lifting", "people"] as const;
/** What it carries, in a sentence that begins with it. */
export const CARRIES_WORDS: Record<(typeof CARRIES)[number], string> = {
  furniture: "It is furniture.",
  machine: "It carries a machine.",
  vehicle: "It is part of a vehicle.",
  lifting: "Loads are lifted by it.",
  people: "It carries people.",
};

export type Carries = (typeof CARRIES)[number];
