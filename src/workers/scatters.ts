import { type Remote, releaseProxy, wrap } from "comlink";
import type { Scatter } from "@/core/geometry";
import type { Rows, Vec2 } from "@/core/numeric";
import type { ScatterApi } from "./scatter.worker";

/** Draws that make the first digit of a band sure. */
const DRAWS = 2000;

/** Scatter of a flatness off the main thread. */
export class Scatters {
  private readonly worker: Worker;
  private readonly api: Remote<ScatterApi>;
  private ended = false;

  constructor(failed: () => void) {
    this.worker = new Worker(new URL("./scatter.worker.ts", import.meta.url), { type: "module" });
    this.worker.onerror = failed;
    this.api = wrap<ScatterApi>(this.worker);
  }

  /** @param xy places, @param z heights, @param cov covariance of a survey; mm. */
  scatter(xy: readonly Vec2[], z: readonly number[], cov: Rows): Promise<Scatter> {
    return this.api.scatter([...xy], [...z], cov, DRAWS);
  }

  /** What a flat bed would read. @param xy places, @param cov covariance of a survey; mm. */
  floor(xy: readonly Vec2[], cov: Rows): Promise<Scatter> {
    return this.api.floor([...xy], cov, DRAWS);
  }

  end(): void {
    if (this.ended) return;
    this.ended = true;
    this.api[releaseProxy]();
    this.worker.terminate();
  }
}
