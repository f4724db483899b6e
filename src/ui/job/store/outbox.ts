import type { NewEntry } from "@/core/job";

/** An entry that the server would not take, with why. */
export interface Refused {
  entry: NewEntry;
  why: string;
}

/** Entries that the server has not acknowledged, in order. */
export class Outbox {
  entries: readonly NewEntry[] = [];
  refused: readonly Refused[] = [];

  get isEmpty(): boolean {
    return this.entries.length === 0;
  }

  add(entries: readonly NewEntry[]): void {
    this.entries = [...this.entries, ...entries];
  }

  /** Adds what an earlier page left, but for what is here or known already. */
  takeUp(entries: readonly NewEntry[], known: ReadonlySet<string>): void {
    for (const entry of entries)
      if (!known.has(entry.id) && !this.entries.some((e) => e.id === entry.id)) this.add([entry]);
  }

  /** Forgets what the server has. */
  drop(ids: ReadonlySet<string>): void {
    if (this.entries.some((e) => ids.has(e.id))) this.entries = this.entries.filter((e) => !ids.has(e.id));
  }

  setAside(entry: NewEntry, why: string): void {
    this.drop(new Set([entry.id]));
    this.refused = [...this.refused, { entry, why }];
  }

  /** Takes up what an earlier page was refused, but for what is here. */
  takeUpRefused(refused: readonly Refused[]): void {
    for (const r of refused)
      if (!this.refused.some((x) => x.entry.id === r.entry.id)) this.refused = [...this.refused, r];
  }

  /** Forgets what was refused: it was mended, noted, or given up. @returns it. */
  settleRefused(id: string): Refused | undefined {
    const found = this.refused.find((r) => r.entry.id === id);
    this.refused = this.refused.filter((r) => r !== found);
    return found;
  }
}
