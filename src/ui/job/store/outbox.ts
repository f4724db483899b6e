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

  dismissRefused(): void {
    this.refused = [];
  }
}
