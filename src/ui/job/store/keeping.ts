import type { DeviceStore } from "./device";

/** What is kept on the device until the server has it, or a person has settled it. */
const KEPT = ["outbox", "refused", "draft", "texts"] as const;
export type Kept = (typeof KEPT)[number];

/** Which pages live: the browser's locks, which end with the page that holds them, however it ends. */
export interface PageLocks {
  /** Says that this page lives. @returns says that it does not any more. */
  hold: (name: string) => () => void;
  /**
   * Does something once nobody holds a lock, and while nobody else does the same. Resolves when it is done, or when it has to wait: then it
   * is done later.
   */
  whenFree: (name: string, work: () => Promise<void>) => Promise<void>;
}

/** What one page left: at most one value of each kind. */
export type Left = { [K in Kept]?: unknown };

const lockOf = (page: string): string => `plumb/page/${page}`;

/**
 * The part of the device that a page keeps its unsaved things in. Each page has keys of its own and writes over nobody's; what a page left
 * is taken over by one other page, once it is gone.
 */
export class Keeping {
  /** In order of time, so that of several that are gone the newest is known. */
  readonly page: string;
  private release: () => void = () => undefined;

  constructor(
    private readonly jobId: string,
    private readonly device: DeviceStore,
    private readonly locks: PageLocks,
    now: string,
    id: string,
  ) {
    this.page = `${now}~${id}`;
  }

  /** This page lives. */
  hold(): void {
    this.release();
    this.release = this.locks.hold(lockOf(this.page));
  }

  /** This page is done: another may take over what it left. */
  letGo(): void {
    this.release();
    this.release = () => undefined;
  }

  put(what: Kept, value: unknown): void {
    this.device.put(this.key(what, this.page), value);
  }

  /**
   * Takes over what pages that are gone left, the newest first; what a page that still lives keeps is taken when that one is gone.
   * @param take takes it up and keeps it here, before it is forgotten there. @returns false when it did not: then it stays there.
   */
  async takeOver(take: (left: Left) => boolean): Promise<void> {
    const all = await this.everything();
    const pages = new Set(all.map(([what, key]) => key.slice(this.prefix(what).length + 1)));
    for (const page of [...pages].sort().reverse())
      if (page !== this.page)
        await this.locks.whenFree(lockOf(page), async () => {
          const own = (await this.everything()).filter(([what, key]) => key === this.key(what, page));
          const left: Left = Object.fromEntries(own.map(([what, , value]) => [what, value]));
          if (own.length === 0) return;
          if (take(left)) for (const what of KEPT) if (what in left) this.device.put(this.key(what, page), null);
        });
  }

  /** All that any page kept of this job. */
  private async everything(): Promise<[what: Kept, key: string, value: unknown][]> {
    const found = await Promise.all(KEPT.map((what) => this.device.left(this.prefix(what))));
    return KEPT.flatMap((what, i) =>
      (found[i] ?? []).map(([key, value]): [Kept, string, unknown] => [what, key, value]),
    );
  }

  private prefix(what: Kept): string {
    return `plumb/${what}/${this.jobId}`;
  }

  /** Earlier versions kept under a key without a page. */
  private key(what: Kept, page: string): string {
    return page === "" ? this.prefix(what) : `${this.prefix(what)}/${page}`;
  }
}

/** The browser's own locks. Where there are none, every other page is taken as gone. */
export const browserLocks: PageLocks = {
  hold(name) {
    if (typeof navigator === "undefined" || !navigator.locks) return () => undefined;
    let release = (): void => undefined;
    const held = new Promise<void>((resolve) => {
      release = resolve;
    });
    void navigator.locks.request(name, () => held);
    return release;
  },
  async whenFree(name, work) {
    if (typeof navigator === "undefined" || !navigator.locks) return work();
    const isFree = await navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
      if (lock) await work();
      return lock !== null;
    });
    if (!isFree) void navigator.locks.request(name, work);
  },
};
