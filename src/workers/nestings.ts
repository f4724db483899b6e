import { type Remote, releaseProxy, wrap } from "comlink";
import type { BarPiece, Nesting, Stock } from "@/core/cut";
import type { NestingApi } from "./nesting.worker";

/** Buying lists off the main thread. Ending it stops what is under way. */
export class Nestings {
  private readonly worker: Worker;
  private readonly api: Remote<NestingApi>;
  private ended = false;

  constructor(failed: () => void) {
    this.worker = new Worker(new URL("./nesting.worker.ts", import.meta.url), { type: "module" });
    this.worker.onerror = failed;
    this.api = wrap<NestingApi>(this.worker);
  }

  nest(cut: readonly BarPiece[], stock: Stock, faceMm: number): Promise<Nesting | { tooLong: string }> {
    return this.api.nest(cut, stock, faceMm);
  }

  /** May be called again: a question under way may fail because of it, and its failure ends too. */
  end(): void {
    if (this.ended) return;
    this.ended = true;
    this.api[releaseProxy]();
    this.worker.terminate();
  }
}
