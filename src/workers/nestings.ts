import { type Remote, releaseProxy, wrap } from "comlink";
import type { CutPiece, Nesting, Stock } from "@/core/cut";
import type { NestingApi } from "./nesting.worker";

/** Buying lists off the main thread. Ending it stops what is under way. */
export class Nestings {
  private readonly worker: Worker;
  private readonly api: Remote<NestingApi>;

  constructor(failed: () => void) {
    this.worker = new Worker(new URL("./nesting.worker.ts", import.meta.url), { type: "module" });
    this.worker.onerror = failed;
    this.api = wrap<NestingApi>(this.worker);
  }

  nest(cut: readonly CutPiece[], stock: Stock, faceMm: number): Promise<Nesting | { tooLong: string }> {
    return this.api.nest(cut, stock, faceMm);
  }

  end(): void {
    this.api[releaseProxy]();
    this.worker.terminate();
  }
}
