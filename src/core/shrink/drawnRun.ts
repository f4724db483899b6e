import { type Draws, LowRankRun } from "../mechanics";
import type { Ready } from "./nominalRun";

/** What working through an order in some of the draws gives; plain data, so that it can come from elsewhere. */
export interface DrawnRun {
  /** Outputs of each draw, one after the other, the nominal frame first. */
  out: Float64Array;
  /** The same at each of the gates, by its step's id. */
  atGates: Record<string, Float64Array>;
  /** What each thing that was let go held with in each draw, N, in their turn. */
  letGoN: Float64Array[];
}

/** Draws of a frame that somebody else works through at the same time. */
export interface Elsewhere {
  /** How many are worked through here, the nominal frame besides; those after them elsewhere. */
  own: number;
  /** What came of them there: undefined until it is known, null where it does not come. */
  found: () => DrawnRun | null | undefined;
}

/** Draw 0 and those from `from` to before `to`, as draws of their own. */
export function someDraws(draws: Draws, from: number, to: number): Draws {
  const some = (all: Float64Array): Float64Array => {
    const picked = new Float64Array(1 + to - from);
    picked[0] = all[0];
    picked.set(all.subarray(from, to), 1);
    return picked;
  };
  return {
    count: 1 + to - from,
    shared: (names) => some(draws.shared(names)),
    bead: (id, besides) => some(draws.bead(id, besides)),
    joint: (id) => some(draws.joint(id)),
    gap: (joint) => some(draws.gap(joint)),
  };
}

/**
 * Works through an order in some draws. A generator: yields the share done.
 * @param gates steps, by their ids, at which outputs are asked about besides the end.
 * @param watch is told every action, with the run as it stands then.
 */
export function* drawnRun(
  { plan, condensed }: Ready,
  draws: Draws,
  gates: readonly string[],
  watch: (run: LowRankRun, action: number) => void = () => undefined,
): Generator<number, DrawnRun> {
  const run = new LowRankRun(condensed, draws);
  const atGates: DrawnRun["atGates"] = {};
  const letGoN: Float64Array[] = [];
  const out = yield* run.whole(plan, (a) => {
    watch(run, a);
    if (run.letGo) letGoN.push(run.letGo.forcesN);
    // A step of several actions stands after its last.
    const step = plan.stepOf[a];
    const id = plan.steps[step]?.id;
    if (plan.stepOf[a + 1] !== step && id !== undefined && gates.includes(id)) atGates[id] = run.gather().slice();
  });
  run.done();
  return { out, atGates, letGoN };
}

/** All draws of two runs, the nominal frame once. @param outputs of one draw. */
export function joinedRuns(first: DrawnRun, second: DrawnRun, outputs: number): DrawnRun {
  const joined = (a: Float64Array, b: Float64Array, each: number): Float64Array => {
    const both = new Float64Array(a.length + b.length - each);
    both.set(a);
    both.set(b.subarray(each), a.length);
    return both;
  };
  return {
    out: joined(first.out, second.out, outputs),
    atGates: Object.fromEntries(
      Object.entries(first.atGates).map(([id, out]) => [id, joined(out, second.atGates[id], outputs)]),
    ),
    letGoN: first.letGoN.map((forces, i) => joined(forces, second.letGoN[i], 1)),
  };
}
