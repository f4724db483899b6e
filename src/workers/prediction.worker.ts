import { expose } from "comlink";
import {
  betterToLookAt,
  type Correction,
  correcting,
  type FrameTeaching,
  frameTeaching,
  type GrindMoves,
  grindMoves,
  type InsideTrade,
  insideTrade,
  type Job,
  type JointFit,
  jointFit,
  type OrderOutlook,
  orderOutlook,
  orderRemedies,
  type Plan,
  type PlanningWish,
  predicting,
  type ReadGap,
  type Remedies,
  schoolsToLookAt,
  suitedOutlook,
  type Tell,
} from "@/core/job";
import type { OrderChoice } from "@/core/plan";
import type { FramePrediction, LikelyValue } from "@/core/shrink";

/** Works this long before it looks whether it shall stop, ms. */
const TURN_MS = 12;
/** Progress is told this often, ms. */
const TELL_MS = 80;

/** Whether a search shall end with what it has. */
let enough = false;
/** Ticket of the work that shall go on; a newer one or a cancel ends the older. */
let current = 0;

/** A turn of the message loop, sooner than a timer. */
const turn = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

/** Drives work in turns, so that it can be stopped. @returns null when it was cancelled or another one was begun. */
async function driven<T>(
  ticket: number,
  work: Generator<number, T>,
  progress: (share: number) => void,
): Promise<T | null> {
  current = ticket;
  let since = performance.now();
  let told = since;
  let furthest = 0;
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
    const now = performance.now();
    if (now - since < TURN_MS) continue;
    if (now - told > TELL_MS) {
      told = now;
      furthest = Math.max(furthest, step.value);
      progress(furthest);
    }
    await turn();
    if (current !== ticket) return null;
    since = performance.now();
  }
}

/** Tells no more often than anybody reads. */
function often(tell: Tell): Tell {
  let told = 0;
  return (doing, tried, early) => {
    const now = performance.now();
    if (now - told < TELL_MS && !early) return;
    told = now;
    tell(doing, tried, early);
  };
}

/** The draws stay here: nobody on the page reads them one by one. */
function* told(
  plan: Plan,
  early: (likely: readonly LikelyValue[]) => void,
): Generator<number, Omit<FramePrediction, "drawn">> {
  const { prediction, replay } = yield* predicting(plan, { early });
  return { prediction, replay };
}

const api = {
  predict(
    ticket: number,
    plan: Plan,
    progress: (share: number) => void,
    early: (likely: readonly LikelyValue[]) => void,
  ): Promise<Omit<FramePrediction, "drawn"> | null> {
    return driven(ticket, told(plan, early), progress);
  },
  /** Insides of the corners last against first; a worker of its own, so that no prediction waits for it. */
  insideTrade(ticket: number, plan: Plan): Promise<InsideTrade | null> {
    return driven(ticket, insideTrade(plan), () => undefined);
  },
  /** The schools of a comparison; in a worker of its own, as the trade of the insides. */
  schoolsToLookAt(ticket: number, job: Job, tell: Tell): Promise<OrderChoice[] | null> {
    return driven(ticket, schoolsToLookAt(job, often(tell)), () => undefined);
  },
  /** What a search finds, begun from the likeliest of what was compared. */
  betterToLookAt(
    ticket: number,
    job: Job,
    outlooks: readonly OrderOutlook[],
    wish: Omit<PlanningWish, "enough">,
    tell: Tell,
  ): Promise<OrderChoice[] | null> {
    enough = false;
    const asked = { ...wish, enough: () => enough };
    return driven(ticket, betterToLookAt(job, outlooks, asked, often(tell)), () => undefined);
  },
  /** How likely one order ends within all limits. */
  orderOutlook(ticket: number, job: Job, choice: OrderChoice): Promise<OrderOutlook | null> {
    return driven(ticket, orderOutlook(job, choice), () => undefined);
  },
  /** How likely it ends within all limits in the order that suits it. */
  suitedOutlook(ticket: number, job: Job): Promise<OrderOutlook | null> {
    return driven(ticket, suitedOutlook(job), () => undefined);
  },
  /** What would help where no order makes it likely. */
  orderRemedies(ticket: number, job: Job, outlook: OrderOutlook): Promise<Remedies | null> {
    return driven(ticket, orderRemedies(job, outlook), () => undefined);
  },
  /** What a gap at a joint does, filled and shut. */
  jointFit(ticket: number, job: Job, gap: ReadGap): Promise<JointFit | null> {
    return driven(ticket, jointFit(job, gap), () => undefined);
  },
  /** What can be done about a cold frame. */
  correction(ticket: number, job: Job, progress: (share: number) => void): Promise<Correction | null> {
    return driven(ticket, correcting(job), progress);
  },
  /** What grinding its flush faces does to a frame. */
  grindMoves(ticket: number, plan: Plan): Promise<GrindMoves | null> {
    return driven(ticket, grindMoves(plan), () => undefined);
  },
  /** What a finished frame could teach its shop. */
  frameTeaching(
    ticket: number,
    job: Job,
    progress: (share: number) => void,
  ): Promise<{ ok: false; why: string } | { ok: true; taught: FrameTeaching } | null> {
    return driven(ticket, frameTeaching(job), progress);
  },
  /** The search ends with what it has. */
  enough(): void {
    enough = true;
  },
  cancel(): void {
    current = 0;
  },
};
export type PredictionApi = typeof api;

expose(api);
