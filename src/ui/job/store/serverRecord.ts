import type { Instrument } from "@/core/instruments";
import type { Change, Entry } from "@/core/job";

/** What somebody else changed in the plan. */
export interface OthersChange {
  by: string;
  version: number;
  changes: Change[];
}

/** What the server's record holds: entries of everybody, the shelf that they were read with, and what others changed. */
export class ServerRecord {
  /** What others changed since this page was opened; until it is put away. */
  others: readonly OthersChange[] = [];
  private readonly own = new Set<number>();

  constructor(
    public entries: readonly Entry[],
    public instruments: Instrument[],
    public seq: number,
  ) {}

  /** A version that this page saved: its change is nobody else's. */
  isOwn(version: number): void {
    this.own.add(version);
  }

  /** Lays entries from the server behind the known ones. @returns those that were new. */
  take(entries: readonly Entry[], seq: number): Entry[] {
    const known = new Set(this.entries.map((e) => e.id));
    const fresh = entries.filter((e) => !known.has(e.id));
    for (const e of fresh)
      if (e.kind === "change" && !this.own.has(e.version))
        this.others = [...this.others, { by: e.origin, version: e.version, changes: e.changes }];
    if (fresh.length > 0) this.entries = [...this.entries, ...fresh];
    this.seq = Math.max(this.seq, seq);
    return fresh;
  }

  /** The server went back to an earlier state: what it has now is what there is. */
  goBack(entries: readonly Entry[], seq: number): void {
    this.entries = entries;
    this.seq = seq;
  }

  /** Whether entries were read with something that this page has not heard of. */
  lacksInstrumentOf(entries: readonly Entry[]): boolean {
    const shelf = new Set(this.instruments.map((i) => i.id));
    return entries.some((e) => e.kind === "reading" && !shelf.has(e.instrumentId));
  }

  /** Gates of rounds, by their ids. */
  gates(): ReadonlyMap<string, string> {
    return new Map(this.entries.flatMap((e) => (e.kind === "round" ? [[e.id, e.gate] as const] : [])));
  }
}
