import type { Instrument } from "@/core/instruments";
import {
  type Change,
  type Collision,
  collide,
  type Entry,
  type Job,
  type NewEntry,
  type Plan,
  planChanges,
  type ReadingEntry,
  type RoundEntry,
} from "@/core/job";

/** How the screens reach the server. @throws when the server cannot be reached. */
export type Transport = (
  method: "GET" | "PUT" | "POST",
  path: string,
  body?: unknown,
) => Promise<{ status: number; body: unknown }>;

/** What the store needs of the browser, so that it can be tested without one. */
export interface Surroundings {
  transport: Transport;
  storage: Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">;
  now: () => string;
  newId: () => string;
  later: (work: () => void, ms: number) => unknown;
  cancel: (handle: unknown) => void;
}

type SaveState =
  | { state: "saved" }
  | { state: "saving" }
  /** Kept on this device, sent again by itself. */
  | { state: "waiting"; why: string }
  /** The server will not take it as it is. */
  | { state: "refused"; why: string };

/** Somebody else saved first. */
interface Conflict extends Collision {
  version: number;
  plan: Plan;
}

export interface JobSnapshot {
  /** The job as this person sees it: own unsaved edits and unsent entries included. */
  job: Job;
  save: SaveState;
  /** Entries that the server has not acknowledged. */
  unsent: ReadonlySet<string>;
  conflict: Conflict | null;
  /** What others changed in the plan since this page was opened; until it is put away. */
  othersChanges: { by: string; version: number; changes: Change[] }[];
  /** What was typed into fields and could not be read, by path. */
  texts: Readonly<Record<string, string>>;
  /** Entries that the server would not take, with why. */
  refused: readonly { entry: NewEntry; why: string }[];
  canUndo: boolean;
  canRedo: boolean;
}

/** An entry without what the store fills in. */
type Draft = NewEntry extends infer E
  ? E extends NewEntry
    ? Omit<E, "id" | "at" | "origin"> & { id?: string }
    : never
  : never;

const DEBOUNCE_MS = 450;
const RETRY_MS = [1000, 2000, 4000, 8000, 15_000];
const SEND_AT_ONCE = 100;

/** Raised when an older draft could no longer be shown: it is then left alone. */
const DRAFT_FORMAT = 1;

interface Draftbox {
  format: number;
  baseVersion: number;
  base: Plan;
  plan: Plan;
}

const messageOf = (body: unknown): string =>
  typeof body === "object" && body !== null && "message" in body ? String(body.message) : "The server did not say why.";

/**
 * One job on one screen. Edits are shown at once, kept on the device until the server has them, and sent in order. Plans
 * are saved over the version that they were based on; entries are only ever added, so sending them twice is harmless.
 */
export class JobStore {
  private snapshot: JobSnapshot;
  private readonly listeners = new Set<() => void>();
  private readonly id: string;
  private readonly page: string;
  private baseVersion: number;
  private base: Plan;
  private plan: Plan;
  private entries: Entry[];
  private instruments: Instrument[];
  private seq: number;
  private outbox: NewEntry[] = [];
  private texts: Record<string, string> = {};
  private refused: { entry: NewEntry; why: string }[] = [];
  private others: { by: string; version: number; changes: Change[] }[] = [];
  private conflict: Conflict | null = null;
  private save: SaveState = { state: "saved" };
  private past: Plan[] = [];
  private future: Plan[] = [];
  private planTimer: unknown = null;
  private retryTimer: unknown = null;
  private failures = 0;
  private busy = false;
  private ended = false;
  private kept: { parts: unknown[]; job: Job } | null = null;
  private readonly ownChanges = new Set<number>();

  constructor(
    private readonly start: { job: Job; seq: number },
    private readonly origin: () => string,
    private readonly around: Surroundings,
  ) {
    const { job, seq } = start;
    this.id = job.id;
    this.page = around.newId();
    this.baseVersion = job.version;
    this.base = job.plan;
    this.plan = job.plan;
    this.entries = job.entries;
    this.instruments = job.instruments;
    this.seq = seq;
    this.snapshot = this.make();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly getSnapshot = (): JobSnapshot => this.snapshot;

  /** Takes up what an earlier page left on this device: unsent entries, unsaved edits, unread texts. */
  resume(): void {
    this.ended = false;
    const { storage } = this.around;
    const known = new Set(this.entries.map((e) => e.id));
    const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? "");
    // Each page keeps its own box, so that two of them never overwrite each other; one that was closed is taken over.
    const left = keys.filter((k) => k.startsWith(`plumb/outbox/${this.id}/`));
    for (const entry of left.flatMap((k) => this.read<NewEntry[]>(k) ?? []))
      if (!known.has(entry.id) && !this.outbox.some((o) => o.id === entry.id)) this.outbox = [...this.outbox, entry];
    // Read before anything is written: keeping the outbox also rewrites the draft.
    const draft = this.read<Draftbox>(this.key("draft"));
    this.keep();
    for (const k of left) if (k !== this.key("outbox")) storage.removeItem(k);
    this.texts = this.read<Record<string, string>>(this.key("texts")) ?? {};
    if (draft?.format === DRAFT_FORMAT) {
      if (draft.baseVersion === this.baseVersion) this.plan = draft.plan;
      else if (planChanges(draft.base, draft.plan).length > 0) {
        // The plan moved on while this page was closed: the save below finds that out and asks.
        this.base = draft.base;
        this.baseVersion = draft.baseVersion;
        this.plan = draft.plan;
      }
    }
    this.keep();
    this.changed();
    void this.flush();
  }

  /** Stops timers; what is unsent stays on the device. */
  end(): void {
    this.ended = true;
    this.around.cancel(this.planTimer);
    this.around.cancel(this.retryTimer);
  }

  /** Changes the plan. Takes effect on the screen at once and is saved a moment later. */
  edit(change: (plan: Plan) => Plan): void {
    const next = change(this.plan);
    if (next === this.plan) return;
    this.past.push(this.plan);
    this.future = [];
    this.setPlan(next);
  }

  undo(): void {
    const before = this.past.pop();
    if (!before) return;
    this.future.push(this.plan);
    this.setPlan(before);
  }

  redo(): void {
    const after = this.future.pop();
    if (!after) return;
    this.past.push(this.plan);
    this.setPlan(after);
  }

  private setPlan(plan: Plan): void {
    this.plan = plan;
    this.keep();
    this.changed();
    this.around.cancel(this.planTimer);
    this.planTimer = this.around.later(() => void this.flush(), DEBOUNCE_MS);
  }

  /**
   * Keeps a text that could not be read, or forgets it (null).
   * @param quietly the field shows it itself: nothing else of the page is drawn anew.
   */
  keepText(path: string, text: string | null, quietly = false): void {
    if (text === null ? !(path in this.texts) : this.texts[path] === text) return;
    const { [path]: _old, ...rest } = this.texts;
    this.texts = text === null ? rest : { ...rest, [path]: text };
    this.write(this.key("texts"), Object.keys(this.texts).length > 0 ? this.texts : null);
    if (!quietly) this.changed();
  }

  /** Forgets texts that could not be read, for fields that are gone or were filled anew. @param prefix start of paths. */
  forgetTexts(prefix: string): void {
    for (const path of Object.keys(this.texts)) if (path.startsWith(prefix)) this.keepText(path, null);
  }

  /** Adds entries in order. @returns their ids. */
  add(...drafts: Draft[]): string[] {
    const made = drafts.map(
      (d) => ({ ...d, id: d.id ?? this.around.newId(), at: this.around.now(), origin: this.origin() }) as NewEntry,
    );
    this.outbox = [...this.outbox, ...made];
    this.keep();
    void this.flush();
    this.changed();
    return made.map((e) => e.id);
  }

  /** Opens a round with its first reading. @returns the round's id. */
  openRound(
    round: Pick<RoundEntry, "gate" | "method" | "warmerK">,
    reading: Omit<ReadingEntry, "id" | "at" | "origin" | "roundId">,
  ): string {
    const id = this.around.newId();
    this.add({ kind: "round", id, ...round }, { ...reading, roundId: id });
    return id;
  }

  /** An instrument that was put on the shelf while this page is open. */
  putOnShelf(instrument: Instrument): void {
    this.instruments = [...this.instruments, instrument];
    this.changed();
  }

  dismissRefused(): void {
    this.refused = [];
    this.changed();
  }

  dismissOthers(): void {
    this.others = [];
    this.changed();
  }

  /** Ends a conflict: `theirs` drops own edits, `mine` lays them over what the other one saved. */
  settle(choice: "theirs" | "mine"): void {
    const { conflict } = this;
    if (!conflict) return;
    this.conflict = null;
    this.base = conflict.plan;
    this.baseVersion = conflict.version;
    this.plan = choice === "mine" ? conflict.merged : conflict.plan;
    this.past = [];
    this.future = [];
    this.keep();
    this.changed();
    void this.flush();
  }

  /** Sends again now, for example when the connection is back. */
  retry(): void {
    this.failures = 0;
    void this.flush();
  }

  /** Asks what others did. */
  async poll(): Promise<void> {
    if (this.ended || this.busy) return;
    try {
      const { status, body } = await this.around.transport(
        "GET",
        `/api/jobs/${this.id}/news?since=${this.seq}&version=${this.baseVersion}`,
      );
      if (status === 200 && !this.ended)
        this.hear(body as { seq: number; version: number; entries: Entry[]; plan: Plan | null });
    } catch {
      // Not reached just now: the next save or poll says so.
    }
  }

  private hear(news: { seq: number; version: number; entries: Entry[]; plan: Plan | null }): void {
    this.take(news.entries, news.seq);
    if (news.plan && news.version > this.baseVersion && !this.isDirty() && !this.conflict) {
      this.base = news.plan;
      this.plan = news.plan;
      this.baseVersion = news.version;
      this.past = [];
      this.future = [];
    }
    this.changed();
  }

  /** Another page put an instrument on the shelf and read with it: fetch the shelf anew. */
  private async fetchShelf(): Promise<void> {
    try {
      const { status, body } = await this.around.transport("GET", "/api/instruments");
      if (status !== 200 || this.ended) return;
      this.instruments = body as Instrument[];
      this.changed();
    } catch {
      // Not reached just now: the next entry with an unknown instrument asks again.
    }
  }

  /** Lays entries from the server behind the known ones. */
  private take(entries: Entry[], seq: number): void {
    const known = new Set(this.entries.map((e) => e.id));
    const fresh = entries.filter((e) => !known.has(e.id));
    for (const e of fresh)
      if (e.kind === "change" && !this.ownChanges.has(e.version))
        this.others = [...this.others, { by: e.origin, version: e.version, changes: e.changes }];
    if (fresh.length > 0) this.entries = [...this.entries, ...fresh];
    this.seq = Math.max(this.seq, seq);
    const shelf = new Set(this.instruments.map((i) => i.id));
    if (fresh.some((e) => e.kind === "reading" && !shelf.has(e.instrumentId))) void this.fetchShelf();
    const there = new Set(fresh.map((e) => e.id));
    if (this.outbox.some((e) => there.has(e.id))) this.outbox = this.outbox.filter((e) => !there.has(e.id));
    this.keep();
  }

  private isDirty(): boolean {
    return this.plan !== this.base && planChanges(this.base, this.plan).length > 0;
  }

  /** Sends what is unsent, entries first, then the plan. One at a time. */
  private async flush(): Promise<void> {
    if (this.busy || this.ended || this.conflict) return;
    this.busy = true;
    this.around.cancel(this.retryTimer);
    try {
      while (this.outbox.length > 0 && !this.ended) if (!(await this.sendEntries())) return;
      while (this.isDirty() && !this.conflict && !this.ended) if (!(await this.sendPlan())) return;
      if (!this.conflict) this.save = { state: "saved" };
      this.failures = 0;
      this.changed();
    } finally {
      this.busy = false;
    }
  }

  private async sendEntries(): Promise<boolean> {
    const batch = this.outbox.slice(0, SEND_AT_ONCE);
    const answer = await this.send("POST", `/api/jobs/${this.id}/entries`, { entries: batch, since: this.seq });
    if (!answer) return false;
    if (answer.status === 200) {
      const { entries, seq } = answer.body as { entries: Entry[]; seq: number };
      const sent = new Set(batch.map((e) => e.id));
      this.take(entries, seq);
      this.outbox = this.outbox.filter((e) => !sent.has(e.id));
      // Said with the same drawing that shows it, when nothing else is on its way.
      if (this.outbox.length === 0 && !this.conflict && !this.isDirty()) this.save = { state: "saved" };
      this.keep();
      this.changed();
      return true;
    }
    // One of them will not be taken: find out which by sending them singly, and set that one aside with its reason.
    const [first] = batch;
    if (batch.length > 1) return this.sendSingly(batch);
    if (first) this.setAside(first, messageOf(answer.body));
    return true;
  }

  private async sendSingly(batch: NewEntry[]): Promise<boolean> {
    for (const entry of batch) {
      const answer = await this.send("POST", `/api/jobs/${this.id}/entries`, { entries: [entry], since: this.seq });
      if (!answer) return false;
      if (answer.status !== 200) {
        this.setAside(entry, messageOf(answer.body));
        continue;
      }
      const { entries, seq } = answer.body as { entries: Entry[]; seq: number };
      this.take(entries, seq);
      this.outbox = this.outbox.filter((e) => e.id !== entry.id);
    }
    this.keep();
    this.changed();
    return true;
  }

  private setAside(entry: NewEntry, why: string): void {
    this.outbox = this.outbox.filter((e) => e.id !== entry.id);
    this.refused = [...this.refused, { entry, why }];
    this.keep();
    this.changed();
  }

  private async sendPlan(): Promise<boolean> {
    const plan = this.plan;
    const answer = await this.send("PUT", `/api/jobs/${this.id}/plan`, {
      baseVersion: this.baseVersion,
      plan,
      origin: this.origin(),
    });
    if (!answer) return false;
    if (answer.status === 200) {
      const { version } = answer.body as { version: number };
      this.ownChanges.add(version);
      this.base = plan;
      this.baseVersion = version;
      this.keep();
      this.changed();
      this.around.later(() => void this.poll(), 0);
      return true;
    }
    if (answer.status === 409) {
      const { current } = answer.body as { current: { version: number; plan: Plan } };
      this.conflict = { ...current, ...collide(this.base, this.plan, current.plan) };
      this.save = { state: "refused", why: "Somebody else changed this job meanwhile." };
    } else this.save = { state: "refused", why: messageOf(answer.body) };
    this.changed();
    return false;
  }

  /** One request. Null when the server was not reached or is ill: then it is tried again by itself. */
  private async send(
    method: "PUT" | "POST",
    path: string,
    body: unknown,
  ): Promise<{ status: number; body: unknown } | null> {
    let why = "The server cannot be reached. Kept on this device and sent again.";
    try {
      // On its way first, then shown: what is drawn does not keep the server waiting.
      const sent = this.around.transport(method, path, body);
      this.save = { state: "saving" };
      this.changed();
      const answer = await sent;
      if (answer.status < 500) {
        this.failures = 0;
        return answer;
      }
      why = messageOf(answer.body);
    } catch {
      // Not reached: kept, and tried again below.
    }
    this.save = { state: "waiting", why };
    const wait = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)] ?? 1000;
    this.failures += 1;
    this.retryTimer = this.around.later(() => void this.flush(), wait);
    this.changed();
    return null;
  }

  private key(what: "outbox" | "draft" | "texts"): string {
    return what === "outbox" ? `plumb/outbox/${this.id}/${this.page}` : `plumb/${what}/${this.id}`;
  }

  /** Keeps on the device what the server does not have. */
  private keep(): void {
    this.write(this.key("outbox"), this.outbox.length > 0 ? this.outbox : null);
    const draft: Draftbox = { format: DRAFT_FORMAT, baseVersion: this.baseVersion, base: this.base, plan: this.plan };
    this.write(this.key("draft"), this.isDirty() ? draft : null);
  }

  private read<T>(key: string): T | null {
    try {
      return JSON.parse(this.around.storage.getItem(key) ?? "null") as T | null;
    } catch {
      return null;
    }
  }

  private write(key: string, value: unknown): void {
    try {
      if (value === null) this.around.storage.removeItem(key);
      else this.around.storage.setItem(key, JSON.stringify(value));
    } catch {
      // A full or blocked store on the device: the server still gets everything.
    }
  }

  /** The same object as long as nothing in it changed: what is computed from it is computed once. */
  private currentJob(): Job {
    const { entries, outbox, plan, instruments, baseVersion } = this;
    const parts = [entries, outbox, plan, instruments, baseVersion];
    if (!this.kept || parts.some((p, i) => p !== this.kept?.parts[i]))
      this.kept = {
        parts,
        job: {
          ...this.start.job,
          version: baseVersion,
          plan,
          instruments,
          entries: outbox.length > 0 ? [...entries, ...outbox] : entries,
        },
      };
    return this.kept.job;
  }

  private make(): JobSnapshot {
    return {
      job: this.currentJob(),
      save: this.save,
      unsent: new Set(this.outbox.map((e) => e.id)),
      conflict: this.conflict,
      othersChanges: this.others,
      texts: this.texts,
      refused: this.refused,
      canUndo: this.past.length > 0,
      canRedo: this.future.length > 0,
    };
  }

  private changed(): void {
    this.snapshot = this.make();
    for (const listener of this.listeners) listener();
  }
}
