import { MOST_LINES, type WorkLine } from "@/core/frame";
import type { Vec3 } from "@/core/numeric";

/** There are more lines than any frame has. */
export class TooManyLines extends RangeError {}

/** Lines as they are found in a file, and what is passed over, by its name. */
export class LineCollector {
  readonly lines: WorkLine[] = [];
  private rings = 0;
  private readonly passed = new Map<string, number>();

  /** A row of places as lines from each to the next. */
  row(layer: string, places: readonly Vec3[]): void {
    const [first, last] = [places[0], places.at(-1)];
    const isClosed = places.length > 3 && first?.every((v, k) => v === last?.[k]);
    const ring = isClosed ? { ring: this.rings++ } : {};
    for (let i = 1; i < places.length; i++) {
      const [from, to] = [places[i - 1], places[i]] as [Vec3, Vec3];
      if (![...from, ...to].every((v) => Number.isFinite(v) && Math.abs(v) < 1e9)) {
        this.pass("line with a place that is no number");
        continue;
      }
      if (this.lines.length >= MOST_LINES) throw new TooManyLines(`More than ${MOST_LINES} lines.`);
      this.lines.push({ layer, from, to, ...ring });
    }
  }

  /** One of something that is not taken, or not as it is. */
  pass(what: string, count = 1): void {
    this.passed.set(what, (this.passed.get(what) ?? 0) + count);
  }

  /** What was passed over, in words: "3 × circle". */
  get unread(): string[] {
    return [...this.passed].map(([what, n]) => `${n} × ${what}`);
  }
}
