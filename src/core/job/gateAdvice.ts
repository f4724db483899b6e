import { limitName } from "../check";
import { chanceWords, type Forecast } from "./forecast";

/** What a gate comes to: one thing to do, and what the reading changed. */
export interface GateAdvice {
  do: "go on" | "weigh" | "act";
  say: string;
  /** Chances that the reading moved, each limit by itself. */
  moved: string[];
}

/** A limit that is kept by so many is no reason to stop; one that is kept by fewer than half is. */
const SURE = 0.8;
const EVEN = 0.5;
/** A chance that moved by less is not told. */
const MOVED = 0.05;

type Told = Forecast & { chance: number };
const isTold = (f: Forecast): f is Told => f.chance !== null;

/** What is done about a limit that is likelier failed than kept. */
function remedy(f: Told, locked: boolean): string {
  switch (f.limit.kind) {
    case "diagonal":
    case "corner":
      return locked
        ? "Cut the tacks of one corner, bring it square, and tack it again."
        : "Nudge it square now, while the joints still turn.";
    case "place":
      return locked
        ? `Cut the tacks that hold ${f.where}, bring it where it belongs, and tack it again.`
        : `Tap ${f.where} to where it belongs now, while the joints still turn.`;
    case "size":
      return f.limit.mouth
        ? `Spread it by what it is likely to close, or compare ways of holding it under Lay out, before any bead: ${limitName(f.limit)}.`
        : `Re-fit or re-cut before any bead holds it: ${limitName(f.limit)}.`;
    default:
      return "Change heat, order or holding before the first bead.";
  }
}

/**
 * What to do at a gate before welding, from how the frame is likely to end by what was read there.
 * @param after forecasts from the reading. @param before as they were without it. @param locked whether every tack is in.
 * @returns null where nothing is predicted.
 */
export function gateAdvice(
  after: readonly Forecast[],
  before: readonly Forecast[],
  locked: boolean,
): GateAdvice | null {
  const told = after.filter(isTold);
  const [first] = told;
  if (!first) return null;
  const worst = told.reduce((a, f) => (f.chance < a.chance ? f : a), first);
  const chance = chanceWords(worst.chance);
  const moved = told.flatMap((f) => {
    const was = before.find((b) => b.limit.id === f.limit.id)?.chance ?? null;
    return was !== null && Math.abs(was - f.chance) >= MOVED
      ? [`${f.limit.label}: kept ${chanceWords(was)} before this reading, ${chanceWords(f.chance)} from it.`]
      : [];
  });
  if (worst.chance < EVEN) return { do: "act", say: remedy(worst, locked), moved };
  if (worst.chance < SURE)
    return {
      do: "weigh",
      say: `Go on, or better the odds first: ${limitName(worst.limit)} is kept ${chance}. Compare the orders from here.`,
      moved,
    };
  return { do: "go on", say: `Go on: every limit by itself is kept ${chance} or better.`, moved };
}
