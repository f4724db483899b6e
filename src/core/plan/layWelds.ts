import type { Hold } from "./holdSchema";
import { isFree } from "./holds";
import type { Up } from "./step";
import { stepKey } from "./step";
import type { StepId } from "./stepSchema";

/** A tack or bead of an order. */
export type WeldId = Extract<StepId, { joint: string }>;

/** What welds are laid by. */
export interface LaidBy {
  /** Which way up the frame must lie for a weld, so that nobody welds overhead; null where either will do. */
  up: (weld: WeldId) => Up | null;
  /** How often the frame is turned over in all, where whoever welds can weld overhead: what is left is laid so. */
  mostTurns: number | null;
  holds: readonly Hold[];
}

/** How an order stands while it is laid. */
export interface Laid {
  steps: StepId[];
  lies: Up;
}

const isTurn = (id: StepId): boolean => id.do === "flip";

/** The next of its kind: the first has no number. */
const numbered = (steps: readonly StepId[], until: "touch" | "cold"): StepId => {
  const nth = 1 + steps.filter((s) => s.do === "wait" && s.until === until).length;
  return nth === 1 ? { do: "wait", until } : { do: "wait", until, nth };
};

/** What a hold wants done before its weld may follow. */
function waitFor({ until }: Hold, steps: readonly StepId[]): StepId[] {
  switch (until) {
    case "laid":
      return [];
    case "touch":
    case "cold":
      return [numbered(steps, until)];
    case "measured": {
      const gate = steps.some((s) => s.do === "bead") ? "hot" : "tacked";
      const nth = 1 + steps.filter((s) => s.do === "measure" && s.gate === gate).length;
      return [{ do: "measure", gate, nth }];
    }
  }
}

/**
 * Welds put behind the steps that there are: the frame turned over where a face wants it, cooled to the touch before it is first turned with
 * beads on it, and what a hold waits for waited for.
 * @param welds in an order that keeps the holds: see heldBack.
 */
export function layWelds(
  { steps: before, lies: begun }: Laid,
  part: "tack" | "weld",
  welds: readonly WeldId[],
  by: LaidBy,
): Laid {
  const steps = [...before];
  let lies = begun;
  for (const weld of welds) {
    const wants = by.up(weld);
    if (wants && wants !== lies && (by.mostTurns === null || steps.filter(isTurn).length < by.mostTurns)) {
      const turnedSo = steps.some((s) => s.do === "flip" && s.part === part);
      if (part === "weld" && !turnedSo && steps.at(-1)?.do === "bead") steps.push(numbered(steps, "touch"));
      steps.push({ do: "flip", part, nth: 1 + steps.filter((s) => s.do === "flip" && s.part === part).length });
      lies = wants;
    }
    for (const hold of by.holds)
      if (stepKey(hold.weld) === stepKey({ do: weld.do, joint: weld.joint, line: weld.line }) && !isFree(hold, steps))
        steps.push(...waitFor(hold, steps));
    steps.push(weld);
  }
  return { steps, lies };
}

/** The end of an order: cold in its clamps, off, and measured. */
export const layEnd = (steps: readonly StepId[]): StepId[] => [
  ...steps,
  numbered(steps, "cold"),
  { do: "release" },
  { do: "measure", gate: "cold", nth: 1 },
];
