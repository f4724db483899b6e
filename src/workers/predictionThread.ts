import path from "node:path";
import type { Worker } from "node:worker_threads";
import type { ThreadWork } from "./prediction.thread";

/** A thread that nobody asked for so long is ended: it holds memory. */
const IDLE_MS = 120_000;

const THREADS = "node:worker_threads";

interface Waiting {
  resolve: (answer: unknown) => void;
  reject: (why: Error) => void;
}

/** The thread's own program is bundled and lies beside the built server, or where it is said. */
async function threadOf(): Promise<Worker> {
  const file = process.env.PLUMB_THREAD ?? path.join(process.cwd(), "prediction-thread.mjs");
  // Hidden from the build, which would take the file for one of its own sources.
  const { Worker: Thread } = (await import(
    /* turbopackIgnore: true */ THREADS
  )) as typeof import("node:worker_threads");
  return new Thread(file);
}

/** A thread that works things out one after the other; it begins when it is first asked. */
class WorkThread {
  private thread: Worker | null = null;
  private starting: Promise<Worker> | null = null;
  private last = 0;
  private idle: NodeJS.Timeout | null = null;
  private readonly waiting = new Map<number, Waiting>();

  /** @param most more than these waiting are refused: who asks works it out in the browser. */
  constructor(private readonly most: number) {}

  private failAll(why: string): void {
    this.thread = null;
    for (const { reject } of this.waiting.values()) reject(new Error(why));
    this.waiting.clear();
  }

  private async start(): Promise<Worker> {
    const made = await threadOf();
    made.unref();
    made.on("message", ({ id, answer, wrong }: { id: number; answer?: unknown; wrong?: string }) => {
      const asked = this.waiting.get(id);
      this.waiting.delete(id);
      if (answer !== undefined && answer !== null) asked?.resolve(answer);
      else asked?.reject(new Error(wrong ?? "The thread did not say why."));
    });
    made.once("error", (e) => this.failAll(e.message));
    made.once("exit", () => (this.thread === made ? this.failAll("The thread ended.") : undefined));
    return made;
  }

  /** It ends when nobody asks for a while; while something is being worked out, it is looked at again later. */
  private endWhenIdle(): void {
    if (this.idle) clearTimeout(this.idle);
    this.idle = setTimeout(() => {
      if (this.waiting.size > 0) return this.endWhenIdle();
      const ended = this.thread;
      this.thread = null;
      void ended?.terminate();
    }, IDLE_MS);
    this.idle.unref();
  }

  /** @throws when too many wait, or the thread ends. */
  async ask(what: string, of: unknown): Promise<unknown> {
    if (this.waiting.size >= this.most) throw new Error("Too much waits to be worked out.");
    if (!this.thread) {
      this.starting ??= this.start().finally(() => {
        this.starting = null;
      });
      this.thread = await this.starting;
    }
    this.endWhenIdle();
    const id = ++this.last;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.thread?.postMessage({ id, ask: what, of });
    });
  }
}

/** What takes minutes has a thread of its own, so that what takes a second does not stand behind it. */
const threads = { quick: new WorkThread(40), slow: new WorkThread(4) };

/**
 * Works something out in a thread of its own.
 * @param ask what, by its name there. @param of what it is asked of: plain data. @param lane the slow one for what takes minutes.
 * @throws when too many wait, or the thread ends.
 */
export async function inThread<K extends keyof ThreadWork>(
  ask: K,
  of: Parameters<ThreadWork[K]>[0],
  lane: keyof typeof threads = "quick",
): Promise<NonNullable<Awaited<ReturnType<ThreadWork[K]>>>> {
  return (await threads[lane].ask(ask, of)) as NonNullable<Awaited<ReturnType<ThreadWork[K]>>>;
}
