import { type Remote, releaseProxy, transfer, wrap } from "comlink";
import type { DrawnSection, FromLines, LinesWish } from "@/core/frame";
import type { Result, UnitPreference } from "@/core/units";
import type { FileHeld, FilesApi } from "./files.worker";

export type { DrawingHeld, FileHeld } from "./files.worker";

/** Files that are read in, off the main thread. Ending it stops what is under way. */
export class Files {
  private readonly worker: Worker;
  private readonly api: Remote<FilesApi>;
  private ended = false;

  constructor(failed: () => void) {
    this.worker = new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" });
    this.worker.onerror = failed;
    this.api = wrap<FilesApi>(this.worker);
  }

  /** What a file holds. @param file read whole; how far is told as a share of its bytes. */
  async open(file: File, progress: (share: number) => void): Promise<Result<FileHeld>> {
    const bytes = new Uint8Array(file.size);
    let at = 0;
    const reader = file.stream().getReader();
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      bytes.set(value, at);
      at += value.byteLength;
      progress(at / Math.max(1, file.size));
    }
    return this.api.open(transfer(bytes, [bytes.buffer]));
  }

  frame(wish: LinesWish, section: DrawnSection, units: UnitPreference): Promise<Result<FromLines>> {
    return this.api.frame(wish, section, units);
  }

  /** May be called again: a question under way may fail because of it, and its failure ends too. */
  end(): void {
    if (this.ended) return;
    this.ended = true;
    this.api[releaseProxy]();
    this.worker.terminate();
  }
}
