import { HANDLING_S, type Handling, stepKey, timelineOf, timeWords } from "../plan";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { weldOf } from "./settings";

/** Ticks nearer than this were set in one go, and say nothing of the time between them, s. */
const AT_ONCE_S = 5;
/** Whoever is away for longer did something else, s. */
const AWAY_S = 1800;
/** From so many of a kind on they count for more than what is usual. */
const ENOUGH = { move: 5, hold: 1, release: 1, brace: 2, unbrace: 2, flip: 2, measure: 2, cut: 1 } as const;

type Kind = keyof Handling;

/** How long handling takes whoever works on a job: the middle of what the ticks say, else what is usual. */
export interface Pace {
  handling: Handling;
  /** How many ticks each is from; none where it is what is usual. */
  from: Partial<Record<Kind, number>>;
}

const middle = (list: readonly number[]): number => {
  const sorted = [...list].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
};

/** Of jobs that were asked about. */
const PACES = new WeakMap<Job, Pace>();

/** Worked out once for a job. @param job its ticks as they were set; taking one back is no work. */
export function paceOf(job: Job): Pace {
  const known = PACES.get(job) ?? pace(job);
  PACES.set(job, known);
  return known;
}

function pace(job: Job): Pace {
  const { structure, order } = builtOf(job.plan);
  const took: Partial<Record<Kind, number[]>> = {};
  if (structure && order) {
    const times = timelineOf(structure, weldOf(job.plan), order.steps).steps;
    const kinds = new Map<string, Kind | null>(
      order.steps.map(({ id }) => [
        stepKey(id),
        id.do === "wait"
          ? null
          : id.do === "tack" || id.do === "bead"
            ? "move"
            : id.do === "measure" && id.cut
              ? "cut"
              : id.do,
      ]),
    );
    let before: number | null = null;
    for (const entry of job.entries) {
      if (entry.kind !== "tick" || entry.step.do === "cut" || entry.step.do === "finish" || entry.step.do === "close")
        continue;
      const key = stepKey(entry.step);
      const kind = kinds.get(key);
      // biome-ignore lint/style/noRestrictedGlobals: reads a time that is written down, asks no clock
      const at = Date.parse(entry.at) / 1000;
      const gone = before === null ? 0 : at - before;
      before = at;
      if (!entry.done || !kind || gone < AT_ONCE_S || gone > AWAY_S) continue;
      const { arcS, moves } = times.get(key) ?? { arcS: 0, moves: 0 };
      // Of two who weld at once, what lies between two ticks is nobody's move.
      if (kind === "move" && job.plan.hands?.two) continue;
      took[kind] = [...(took[kind] ?? []), Math.max(0, gone - arcS) / Math.max(1, moves)];
    }
  }
  const handling: Record<Kind, number> = { ...HANDLING_S };
  const from: Pace["from"] = {};
  for (const kind of Object.keys(HANDLING_S) as Kind[]) {
    const own = took[kind] ?? [];
    if (own.length < ENOUGH[kind]) continue;
    handling[kind] = middle(own);
    from[kind] = own.length;
  }
  return { handling, from };
}

/** What takes time, as one says it. */
const SAID: Record<Kind, string> = {
  move: "from one weld to the next",
  flip: "turning it over",
  measure: "measuring",
  hold: "laying it down",
  release: "taking the clamps off",
  brace: "tacking a bar on",
  unbrace: "cutting a bar off",
  cut: "cutting and setting",
};

/** What of a time is the shop's own; an empty text where nothing is. */
export function paceWords({ handling, from }: Pace): string {
  const own = (Object.keys(SAID) as Kind[]).filter((k) => from[k] !== undefined);
  if (own.length === 0) return "";
  const parts = own.map(
    (k) => `${SAID[k]} ${handling[k] < 60 ? `${Math.round(handling[k])} s` : timeWords(handling[k])} (${from[k]})`,
  );
  return `By the ticks of this job, the middle of so many: ${parts.join(", ")}.`;
}

/** What a kind of handling is called; the kind itself where it is none of ours. */
export const handlingWords = (kind: string): string => (kind in SAID ? SAID[kind as Kind] : kind);
