import type { Instrument } from "@/core/instruments";
import {
  type Entry,
  following,
  type Job,
  type NewEntry,
  type Plan,
  quantityKey,
  quantityWords,
  type ReadingEntry,
  type RoundEntry,
  refusals,
  upgradeEntries,
  upgradePlan,
} from "@/core/job";
import type { DeviceState, DeviceStore } from "./device";
import { Keeping, type Left, type PageLocks } from "./keeping";
import { forgetOldJobs, keepJob } from "./keptJobs";
import { Outbox, type Refused } from "./outbox";
import { type Conflict, type KeptDraft, PlanDocument } from "./planDocument";
import { messageOf, type SaveState, Sender, type Timers, type Transport } from "./sender";
import { type OthersChange, ServerRecord } from "./serverRecord";
import { UnreadTexts } from "./unreadTexts";

/** What the store needs of the browser, so that it can be tested without one. */
export interface Surroundings extends Timers {
  transport: Transport;
  device: DeviceStore;
  locks: PageLocks;
  now: () => string;
  newId: () => string;
}

export interface JobSnapshot {
  /** The job as this person sees it: own unsaved edits and unsent entries included. */
  job: Job;
  save: SaveState;
  /** Entries that the server has not acknowledged. */
  unsent: ReadonlySet<string>;
  conflict: Conflict | null;
  /** What others changed in the plan since this page was opened; until it is put away. */
  othersChanges: readonly OthersChange[];
  /** What was typed into fields and could not be read, by path. */
  texts: Readonly<{ [path: string]: string }>;
  /** Entries that the server would not take, with why. */
  refused: readonly Refused[];
  /** How many entries are sent again because the server went back to an earlier state; null when it did not. */
  wentBack: number | null;
  canUndo: boolean;
  canRedo: boolean;
  device: DeviceState;
}

/** An entry without what the store fills in. */
type Draft = NewEntry extends infer E
  ? E extends NewEntry
    ? Omit<E, "id" | "at" | "origin"> & { id?: string }
    : never
  : never;

const SAVING: SaveState = { state: "saving" };
/** An entry in a few words. */
export const entryWords = (entry: NewEntry): string =>
  entry.kind === "reading"
    ? `${quantityWords(entry.what)} = ${entry.value?.text ?? "taken back"}`
    : entry.kind === "note"
      ? entry.text
      : entry.kind === "tick"
        ? `tick of ${"joint" in entry.step ? `${entry.step.do} ${entry.step.joint}` : entry.step.do}`
        : entry.kind;

const DEBOUNCE_MS = 450;
/** What an earlier page left is waited for so long before anything is sent: a device that never answers must not stop it, ms. */
const TAKE_UP_MS = 3000;
/** The record is kept for a page without a network a moment after it changed, ms. */
const KEEP_MS = 1500;
const SEND_AT_ONCE = 100;

const isDraft = (v: unknown): v is KeptDraft =>
  typeof v === "object" && v !== null && "baseVersion" in v && "base" in v && "plan" in v;
const isTexts = (v: unknown): v is { [path: string]: string } => typeof v === "object" && v !== null;

/**
 * One job on one screen. Edits are shown at once, kept on the device until the server has them, and sent in order. Plans
 * are saved over the version that they were based on; entries are only ever added, so sending them twice is harmless.
 */
export class JobStore {
  private snapshot: JobSnapshot;
  private readonly listeners = new Set<() => void>();
  private readonly id: string;
  private readonly keeping: Keeping;
  private readonly document: PlanDocument;
  private readonly record: ServerRecord;
  private readonly outbox = new Outbox();
  private readonly texts = new UnreadTexts();
  private readonly sender: Sender;
  private deviceState: DeviceState = { state: "keeps" };
  private unwatch: () => void = () => undefined;
  private planTimer: unknown = null;
  private keepTimer: unknown = null;
  private wentBack: number | null = null;
  private timesOlder = 0;
  private busy = false;
  private isOpen = false;
  private ended = false;
  private kept: { parts: unknown[]; job: Job } | null = null;

  constructor(
    private readonly start: { job: Job; seq: number },
    private readonly origin: () => string,
    private readonly around: Surroundings,
  ) {
    const { job, seq } = start;
    this.id = job.id;
    this.keeping = new Keeping(job.id, around.device, around.locks, around.now(), around.newId());
    this.document = new PlanDocument(job.plan, job.version);
    this.record = new ServerRecord(job.entries, job.instruments, seq);
    this.sender = new Sender(
      around.transport,
      around,
      () => this.changed(),
      () => void this.flush(),
    );
    this.snapshot = this.make();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly getSnapshot = (): JobSnapshot => this.snapshot;

  /** Takes up what an earlier page left on this device: unsent entries, unsaved edits, unread texts. */
  async resume(): Promise<void> {
    this.ended = false;
    const { device } = this.around;
    this.unwatch();
    this.unwatch = device.watch((state) => {
      this.deviceState = state;
      this.changed();
    });
    this.keeping.hold();
    this.around.later(() => this.open(), TAKE_UP_MS);
    await this.keeping.takeOver((left) => this.takeUp(left));
    if (this.ended) return;
    this.open();
    this.keepRecord();
    void forgetOldJobs(device);
    void this.flush();
  }

  /** From now on things are sent. */
  private open(): void {
    this.isOpen = true;
    void this.flush();
  }

  /** Takes up what one earlier page left. What this page has is newer, and lies above it. */
  private takeUp({ outbox, refused, draft, texts }: Left): boolean {
    if (this.ended) return false;
    const gates = this.record.gates();
    const known = new Set(this.record.entries.map((e) => e.id));
    const ofToday = (entries: unknown[]) => upgradeEntries(entries, (r) => gates.get(r)) as NewEntry[];
    if (Array.isArray(outbox)) this.outbox.takeUp(ofToday(outbox), known);
    if (Array.isArray(refused))
      this.outbox.takeUpRefused(
        refused.flatMap(({ entry, why }: Refused) => ofToday([entry]).map((e) => ({ entry: e, why }))),
      );
    if (isTexts(texts))
      for (const [path, text] of Object.entries(texts)) if (!(path in this.texts.all)) this.texts.keep(path, text);
    if (isDraft(draft))
      this.document.takeUp({
        baseVersion: draft.baseVersion,
        base: upgradePlan(draft.base) as Plan,
        plan: upgradePlan(draft.plan) as Plan,
        ...(draft.sent ? { sent: [draft.sent].flat().map((sent) => upgradePlan(sent) as Plan) } : {}),
      });
    this.keep();
    this.textsChanged(false);
    void this.flush();
    return true;
  }

  /** The page is closed, or another one is opened in its place. */
  readonly leave = (): void => this.around.device.leave();

  /** Stops timers; what is unsent stays on the device. */
  end(): void {
    this.ended = true;
    this.unwatch();
    this.keeping.letGo();
    this.around.cancel(this.planTimer);
    this.around.cancel(this.keepTimer);
    this.sender.stopWaiting();
  }

  /** Changes the plan. Takes effect on the screen at once and is saved a moment later. */
  edit(change: (plan: Plan) => Plan): void {
    const surveyed = this.currentJob().entries.some((e) => e.kind === "round" && e.gate === "bed");
    if (this.document.edit((p) => following(p, change(p), surveyed))) this.planChanged();
  }

  undo(): void {
    if (this.document.undo()) this.planChanged();
  }

  redo(): void {
    if (this.document.redo()) this.planChanged();
  }

  private planChanged(): void {
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
    if (this.texts.keep(path, text)) this.textsChanged(quietly);
  }

  /** Forgets texts that could not be read, for fields that are gone or were filled anew. @param prefix start of paths. */
  forgetTexts(prefix: string): void {
    if (this.texts.forget(prefix)) this.textsChanged(false);
  }

  private textsChanged(quietly: boolean): void {
    const { all } = this.texts;
    this.keeping.put("texts", Object.keys(all).length > 0 ? all : null);
    if (!quietly) this.changed();
  }

  /** Adds entries in order. @returns their ids. */
  add(...drafts: Draft[]): string[] {
    const made = drafts.map(
      (d) => ({ ...d, id: d.id ?? this.around.newId(), at: this.around.now(), origin: this.origin() }) as NewEntry,
    );
    this.outbox.add(made);
    this.keep();
    void this.flush();
    this.changed();
    return made.map((e) => e.id);
  }

  /** Opens a round with its first reading. @returns the round's id. */
  openRound(
    round: Pick<RoundEntry, "gate" | "method" | "warmerK" | "part">,
    reading: Omit<ReadingEntry, "id" | "at" | "origin" | "roundId">,
  ): string {
    const id = this.around.newId();
    this.add({ kind: "round", id, ...round }, { ...reading, roundId: id });
    return id;
  }

  /** An instrument that was put on the shelf while this page is open. */
  putOnShelf(instrument: Instrument): void {
    this.record.instruments = [...this.record.instruments, instrument];
    this.changed();
  }

  /**
   * Settles an entry that the server would not take: it is typed again (a reading goes back to its field), put into the log as it was with why,
   * or given up.
   */
  settleRefused(id: string, how: "mend" | "note" | "give up"): void {
    const found = this.outbox.settleRefused(id);
    if (!found) return;
    const { entry, why } = found;
    if (how === "note") this.add({ kind: "note", text: `Not taken: ${entryWords(entry)}. ${why}` });
    if (how === "mend" && entry.kind === "reading")
      this.keepText(`reading/${entry.roundId}/${quantityKey(entry.what)}`, entry.value?.text ?? "");
    this.keep();
    this.changed();
  }

  dismissOthers(): void {
    this.record.others = [];
    this.changed();
  }

  /** Ends a conflict: `theirs` drops own edits, `mine` lays them over what the other one saved. */
  settle(choice: "theirs" | "mine"): void {
    if (!this.document.settle(choice)) return;
    this.keep();
    this.changed();
    void this.flush();
  }

  /** Sends again now, for example when the connection is back. */
  retry(): void {
    this.sender.startAnew();
    void this.flush();
  }

  /** Whether the record stands elsewhere than this page knows: then it asks. */
  isNews({ seq, version }: { seq: number; version: number }): boolean {
    return seq !== this.record.seq || version !== this.document.baseVersion;
  }

  /** Asks what others did. */
  async poll(): Promise<void> {
    if (this.ended || this.busy) return;
    try {
      const { status, body } = await this.around.transport(
        "GET",
        `/api/jobs/${this.id}/news?since=${this.record.seq}&version=${this.document.baseVersion}`,
      );
      if (status !== 200 || this.ended) return;
      const news = body as { seq: number; version: number; entries: Entry[]; plan: Plan | null };
      // Once may be another node of a cluster, a moment behind; twice is a server that went back.
      const isOlder = news.seq < this.record.seq || news.version < this.document.baseVersion;
      this.timesOlder = isOlder ? this.timesOlder + 1 : 0;
      if (isOlder) return this.timesOlder > 1 ? await this.goBack() : undefined;
      this.take(news.entries, news.seq);
      if (news.plan && this.document.hear(news.plan, news.version)) this.keepRecordSoon();
      this.changed();
    } catch {
      // Not reached just now: the next save or poll says so.
    }
  }

  /**
   * The server is older than what this page heard of it: it was brought back from a backup. What this person entered and it lacks is sent
   * again, and the plan as it is here is laid over the older one; what others entered is theirs to send.
   */
  private async goBack(): Promise<void> {
    const { status, body } = await this.around.transport("GET", `/api/jobs/${this.id}`);
    if (status !== 200 || this.ended) return;
    const { job, seq } = body as { job: Job; seq: number };
    const there = new Set(job.entries.map((e) => e.id));
    const maker = (origin: string): string => origin.replace(/, (?:bench|desk)$/, "");
    const me = maker(this.origin());
    const lacks = this.record.entries.flatMap((e) =>
      e.kind !== "change" && !there.has(e.id) && maker(e.origin) === me ? [e] : [],
    );
    this.record.goBack(job.entries, seq);
    this.outbox.add(lacks);
    this.document.goBack(job.plan, job.version);
    this.wentBack = (this.wentBack ?? 0) + lacks.length;
    this.timesOlder = 0;
    this.keep();
    this.changed();
    void this.flush();
  }

  /** It has been read that the server went back. */
  dismissWentBack(): void {
    this.wentBack = null;
    this.changed();
  }

  /** Another page put an instrument on the shelf and read with it: fetch the shelf anew. */
  private async fetchShelf(): Promise<void> {
    try {
      const { status, body } = await this.around.transport("GET", "/api/instruments");
      if (status !== 200 || this.ended) return;
      this.record.instruments = body as Instrument[];
      this.changed();
    } catch {
      // Not reached just now: the next entry with an unknown instrument asks again.
    }
  }

  /** Takes entries from the server; those of one's own that are among them are sent. */
  private take(entries: readonly Entry[], seq: number): void {
    const fresh = this.record.take(entries, seq);
    if (this.record.lacksInstrumentOf(fresh)) void this.fetchShelf();
    this.outbox.drop(new Set(fresh.map((e) => e.id)));
    this.keep();
    if (fresh.length > 0) this.keepRecordSoon();
  }

  /** Sends what is unsent, entries first, then the plan. One at a time. */
  private async flush(): Promise<void> {
    const { document, outbox, sender } = this;
    if (this.busy || this.ended || !this.isOpen || document.conflict) return;
    this.busy = true;
    sender.stopWaiting();
    try {
      // What was added while something else was on its way is sent right after it.
      while (!this.ended && (!outbox.isEmpty || document.isDirty()))
        if (!(await (outbox.isEmpty ? this.sendPlan() : this.sendEntries()))) return;
      document.rest();
      sender.done();
      this.changed();
    } finally {
      this.busy = false;
    }
  }

  private async sendEntries(): Promise<boolean> {
    const batch = this.outbox.entries.slice(0, SEND_AT_ONCE);
    const answer = await this.post(batch);
    if (!answer) return false;
    if (answer.status === 200) {
      this.sent(batch, answer.body);
      return true;
    }
    // One of them will not be taken: find out which by sending them singly, and set that one aside with its reason.
    for (const entry of batch) {
      const own = batch.length === 1 ? answer : await this.post([entry]);
      if (!own) return false;
      if (own.status === 200) this.sent([entry], own.body);
      else {
        this.outbox.setAside(entry, messageOf(own.body));
        this.keep();
        this.changed();
      }
    }
    return true;
  }

  private post(entries: readonly NewEntry[]) {
    return this.sender.send("POST", `/api/jobs/${this.id}/entries`, {
      entries,
      since: this.record.seq,
      sentAt: this.around.now(),
    });
  }

  private sent(batch: readonly NewEntry[], body: unknown): void {
    const { entries, seq } = body as { entries: Entry[]; seq: number };
    this.take(entries, seq);
    this.outbox.drop(new Set(batch.map((e) => e.id)));
    // Said with the same drawing that shows it, when nothing else is on its way.
    if (this.outbox.isEmpty && !this.document.conflict && !this.document.isDirty()) this.sender.done();
    this.keep();
    this.changed();
  }

  private async sendPlan(): Promise<boolean> {
    const { plan, baseVersion } = this.document;
    // By the server's own rules: what it would refuse need not be sent.
    const [wrong] = refusals(plan);
    if (wrong) {
      this.sender.refuse(wrong.message);
      this.changed();
      return false;
    }
    this.document.sending();
    this.keep();
    const answer = await this.sender.send("PUT", `/api/jobs/${this.id}/plan`, {
      baseVersion,
      plan,
      origin: this.origin(),
    });
    if (!answer) return false;
    if (answer.status === 200) {
      const { version } = answer.body as { version: number };
      this.record.isOwn(version);
      this.document.saved(plan, version);
      this.keep();
      this.keepRecordSoon();
      this.changed();
      this.around.later(() => void this.poll(), 0);
      return true;
    }
    if (answer.status === 409) {
      const { current } = answer.body as { current: { version: number; plan: Plan } };
      if (!this.document.collide(current)) {
        this.keep();
        return true;
      }
      this.sender.refuse("Somebody else changed this job meanwhile.");
    } else this.sender.refuse(messageOf(answer.body));
    this.changed();
    return false;
  }

  /** Keeps on the device what the server does not have. */
  private keep(): void {
    const { keeping, outbox } = this;
    keeping.put("outbox", outbox.isEmpty ? null : outbox.entries);
    keeping.put("refused", outbox.refused.length === 0 ? null : outbox.refused);
    keeping.put("draft", this.document.draft());
  }

  /** Keeps what the server has, for a page that is opened without a network. */
  private keepRecord(): void {
    const { document, record, around } = this;
    const { plan, version } = document.stored;
    const job = { ...this.start.job, version, plan, instruments: record.instruments, entries: record.entries };
    keepJob(around.device, { job, seq: record.seq, at: around.now() });
  }

  private keepRecordSoon(): void {
    this.around.cancel(this.keepTimer);
    this.keepTimer = this.around.later(() => (this.ended ? undefined : this.keepRecord()), KEEP_MS);
  }

  /** The same object as long as nothing in it changed: what is computed from it is computed once. */
  private currentJob(): Job {
    const { entries, instruments } = this.record;
    const { plan, baseVersion } = this.document;
    const outbox = this.outbox.entries;
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

  /** What did not change is the same object: who looks at one thing is not woken by another. */
  private make(): JobSnapshot {
    const job = this.currentJob();
    const ids = this.outbox.entries;
    const { save } = this.sender;
    // What waits for its moment to be sent is not saved yet.
    const isBehind = !this.outbox.isEmpty || this.document.isTouched;
    return {
      job,
      save: save.state === "saved" && isBehind ? SAVING : save,
      unsent: this.snapshot?.job === job ? this.snapshot.unsent : new Set(ids.map((e) => e.id)),
      conflict: this.document.conflict,
      othersChanges: this.record.others,
      texts: this.texts.all,
      refused: this.outbox.refused,
      wentBack: this.wentBack,
      canUndo: this.document.canUndo,
      canRedo: this.document.canRedo,
      device: this.deviceState,
    };
  }

  private changed(): void {
    this.snapshot = this.make();
    for (const listener of this.listeners) listener();
  }
}
