import { proxy, type Remote, releaseProxy, wrap } from "comlink";
import type {
  Correction,
  FrameTeaching,
  GrindMoves,
  InsideTrade,
  Job,
  JointFit,
  OrderOutlook,
  Plan,
  PlanningWish,
  ReadGap,
  Remedies,
  Tell,
} from "@/core/job";
import type { OrderChoice } from "@/core/plan";
import type { FramePrediction, LikelyValue } from "@/core/shrink";
import type { PredictionApi } from "./prediction.worker";

/** Predictions off the main thread: one at a time, the newest wins. */
export class Predictions {
  private readonly worker: Worker;
  private readonly api: Remote<PredictionApi>;
  private ticket = 0;
  private ended = false;

  constructor(failed: () => void) {
    this.worker = new Worker(new URL("./prediction.worker.ts", import.meta.url), { type: "module" });
    this.worker.onerror = failed;
    this.api = wrap<PredictionApi>(this.worker);
  }

  /**
   * @param plan without errors. @param progress share done, 0 to 1. @param early likely values before their bands are there.
   * @returns null when it was cancelled or overtaken by another.
   */
  predict(
    plan: Plan,
    progress: (share: number) => void,
    early: (likely: readonly LikelyValue[]) => void,
  ): Promise<Omit<FramePrediction, "drawn"> | null> {
    this.ticket++;
    return this.api.predict(this.ticket, plan, proxy(progress), proxy(early));
  }

  /** Insides of the corners last against first; null for a frame that has no such choice, or when it was cancelled. */
  insideTrade(plan: Plan): Promise<InsideTrade | null> {
    this.ticket++;
    return this.api.insideTrade(this.ticket, plan);
  }

  /** The schools of a comparison. @param tell what it does and how many it tried. @returns null when it was cancelled. */
  schoolsToLookAt(job: Job, tell: Tell): Promise<OrderChoice[] | null> {
    this.ticket++;
    return this.api.schoolsToLookAt(this.ticket, job, proxy(tell));
  }

  /** What a search finds, begun from the likeliest of what was compared; null when it was cancelled. */
  betterToLookAt(
    job: Job,
    outlooks: readonly OrderOutlook[],
    wish: Omit<PlanningWish, "enough">,
    tell: Tell,
  ): Promise<OrderChoice[] | null> {
    this.ticket++;
    return this.api.betterToLookAt(this.ticket, job, outlooks, wish, proxy(tell));
  }

  /** How likely an order ends within all limits; null when it was cancelled. */
  orderOutlook(job: Job, choice: OrderChoice): Promise<OrderOutlook | null> {
    this.ticket++;
    return this.api.orderOutlook(this.ticket, job, choice);
  }

  /** How likely it ends within all limits in the order that suits it; null when it was cancelled. */
  suitedOutlook(job: Job): Promise<OrderOutlook | null> {
    this.ticket++;
    return this.api.suitedOutlook(this.ticket, job);
  }

  /** What would help where no order makes it likely; null when it was cancelled. */
  orderRemedies(job: Job, outlook: OrderOutlook): Promise<Remedies | null> {
    this.ticket++;
    return this.api.orderRemedies(this.ticket, job, outlook);
  }

  /** What a gap at a joint does, filled and shut; null when it was cancelled. */
  jointFit(job: Job, gap: ReadGap): Promise<JointFit | null> {
    this.ticket++;
    return this.api.jointFit(this.ticket, job, gap);
  }

  /** What can be done about a cold frame; null when there is nothing to judge, or when it was cancelled. */
  correction(job: Job, progress: (share: number) => void): Promise<Correction | null> {
    this.ticket++;
    return this.api.correction(this.ticket, job, proxy(progress));
  }

  /** What grinding its flush faces does to a frame; null when it was cancelled. */
  grindMoves(plan: Plan): Promise<GrindMoves | null> {
    this.ticket++;
    return this.api.grindMoves(this.ticket, plan);
  }

  /** What a finished frame could teach its shop; null when it was cancelled. */
  frameTeaching(
    job: Job,
    progress: (share: number) => void,
  ): Promise<{ ok: false; why: string } | { ok: true; taught: FrameTeaching } | null> {
    this.ticket++;
    return this.api.frameTeaching(this.ticket, job, proxy(progress));
  }

  /** Ends a search with what it has. */
  enough(): void {
    if (!this.ended) void this.api.enough();
  }

  /** Stops what is under way, within a few hundredths of a second. */
  cancel(): void {
    if (!this.ended) void this.api.cancel();
  }

  /** May be called again: a question under way may fail because of it, and its failure ends too. */
  end(): void {
    if (this.ended) return;
    this.ended = true;
    this.api[releaseProxy]();
    this.worker.terminate();
  }
}
