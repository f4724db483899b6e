import type { IDBPDatabase } from "idb";

/** How well the device keeps what the server has not got yet. */
export type DeviceState = { state: "keeps" } | { state: "full" | "missing"; why: string };

/** A place on the device for what the server has not got yet: values by key. */
export interface DeviceStore {
  /** Everything under keys that begin so; nothing when the device keeps nothing. */
  left: (prefix: string) => Promise<[key: string, value: unknown][]>;
  /** Keeps a value, or forgets it (null). Done in the order of the calls. */
  put: (key: string, value: unknown) => void;
  /** The page is left: what is still to be written is put where the next page finds it, before this call returns. */
  leave: () => void;
  /** How keeping stands, now and whenever that changes. */
  watch: (listener: (state: DeviceState) => void) => () => void;
}

const NAME = "mellow-plumb";
const TABLE = "kept";
/** Keys that may lie in the browser's small storage: of a page that closed before it had written, or of earlier versions. */
const SMALL = /^plumb\/(outbox|refused|draft|texts)\//;

const MISSING =
  "This browser keeps nothing on the device (a private window, or storage is switched off): what is not sent when this page closes is lost.";
const FULL =
  "The storage of this device is full: what is not sent when this page closes is lost. Free some space, or wait until it says Saved.";

const stateOf = (e: unknown): DeviceState =>
  e instanceof DOMException && e.name === "QuotaExceededError"
    ? { state: "full", why: FULL }
    : { state: "missing", why: MISSING };

/** Moves what a page left in the small storage. */
async function bringOver(db: IDBPDatabase, small: Storage): Promise<void> {
  const keys = Array.from({ length: small.length }, (_, i) => small.key(i) ?? "").filter((k) => SMALL.test(k));
  for (const key of keys) {
    const text = small.getItem(key);
    try {
      const value: unknown = JSON.parse(text ?? "null");
      await (value === null ? db.delete(TABLE, key) : db.put(TABLE, value, key));
    } catch (e) {
      if (!(e instanceof SyntaxError)) throw e;
      // Not readable: nothing to bring over.
    }
    small.removeItem(key);
  }
}

/** The device's own database. */
export class IndexedDevice implements DeviceStore {
  private db: Promise<IDBPDatabase> | null = null;
  private line: Promise<void> = Promise.resolve();
  private readonly waiting = new Map<string, unknown>();
  /** Of the value that is being written. */
  private readonly underWay = new Map<string, unknown>();
  private readonly listeners = new Set<(state: DeviceState) => void>();
  private state: DeviceState = { state: "keeps" };

  /** @param small the storage that is written at once; what was left there is brought over. */
  constructor(private readonly small: () => Storage | null) {}

  private open(): Promise<IDBPDatabase> {
    this.db ??= (async () => {
      // What speaks to the database comes behind the page.
      const { openDB } = await import("idb");
      const db = await openDB(NAME, 1, { upgrade: (fresh) => void fresh.createObjectStore(TABLE) });
      const small = this.small();
      if (small) await bringOver(db, small);
      return db;
    })();
    return this.db;
  }

  watch(listener: (state: DeviceState) => void): () => void {
    this.listeners.add(listener);
    listener(this.state);
    return () => this.listeners.delete(listener);
  }

  private tell(state: DeviceState): void {
    if (state.state === this.state.state) return;
    this.state = state;
    for (const listener of this.listeners) listener(state);
  }

  async left(prefix: string): Promise<[string, unknown][]> {
    try {
      const db = await this.open();
      await this.line;
      const range = IDBKeyRange.bound(prefix, `${prefix}\uffff`);
      const [keys, values] = await Promise.all([db.getAllKeys(TABLE, range), db.getAll(TABLE, range)]);
      return keys.map((key, i) => [String(key), values[i]]);
    } catch (e) {
      this.tell(stateOf(e));
      return [];
    }
  }

  put(key: string, value: unknown): void {
    // Only the last value of a key need be written.
    const queued = this.waiting.has(key);
    this.waiting.set(key, value);
    if (!queued) this.line = this.line.then(() => this.write(key));
  }

  leave(): void {
    const small = this.small();
    try {
      for (const [key, value] of [...this.underWay, ...this.waiting])
        if (SMALL.test(key)) small?.setItem(key, JSON.stringify(value));
    } catch (e) {
      this.tell(stateOf(e));
    }
  }

  private async write(key: string): Promise<void> {
    const value = this.waiting.get(key);
    this.waiting.delete(key);
    this.underWay.set(key, value);
    try {
      const db = await this.open();
      if (value === null) await db.delete(TABLE, key);
      else await db.put(TABLE, value, key);
      this.underWay.delete(key);
      // A page that came back after it was left has written it after all.
      if (!this.waiting.has(key)) this.small()?.removeItem(key);
      this.tell({ state: "keeps" });
    } catch (e) {
      this.tell(stateOf(e));
    }
  }
}

/** Where there is no browser: nothing is left, nothing is kept. */
const NO_DEVICE: DeviceStore = {
  left: () => Promise.resolve([]),
  put: () => undefined,
  leave: () => undefined,
  watch: () => () => undefined,
};

/** One for the whole browser tab: pages of several jobs keep in the same place. */
let device: DeviceStore | null = null;
export function deviceHere(): DeviceStore {
  if (typeof indexedDB === "undefined") return NO_DEVICE;
  device ??= new IndexedDevice(() => {
    try {
      return typeof window === "undefined" ? null : window.localStorage;
    } catch {
      // Switched off: nothing can have been left there.
      return null;
    }
  });
  return device;
}
