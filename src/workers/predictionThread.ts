import path from "node:path";
import type { Worker } from "node:worker_threads";
import type { ThreadWork } from "./prediction.thread";

/** A thread that nobody asked for so long is ended: it holds memory. */
const IDLE_MS = 120_000;
/** More than these waiting are refused: who asks works it out in the browser. */
const MOST_WAITING = 40;

const THREADS = "node:worker_threads";

interface Waiting {
  resolve: (answer: unknown) => void;
  reject: (why: Error) => void;
}

let thread: Worker | null = null;
let last = 0;
let idle: NodeJS.Timeout | null = null;
const waiting = new Map<number, Waiting>();

function failAll(why: string): void {
  thread = null;
  for (const { reject } of waiting.values()) reject(new Error(why));
  waiting.clear();
}

/** The thread's own program is bundled and lies beside the built server, or where it is said. */
async function start(): Promise<Worker> {
  const file = process.env.PLUMB_THREAD ?? path.join(process.cwd(), "prediction-thread.mjs");
  // Hidden from the build, which would take the file for one of its own sources.
  const { Worker: Thread } = (await import(
    /* turbopackIgnore: true */ THREADS
  )) as typeof import("node:worker_threads");
  const made = new Thread(file);
  made.unref();
  made.on("message", ({ id, answer, wrong }: { id: number; answer?: unknown; wrong?: string }) => {
    const asked = waiting.get(id);
    waiting.delete(id);
    if (answer !== undefined && answer !== null) asked?.resolve(answer);
    else asked?.reject(new Error(wrong ?? "The thread did not say why."));
  });
  made.once("error", (e) => failAll(e.message));
  made.once("exit", () => (thread === made ? failAll("The thread ended.") : undefined));
  return made;
}

let starting: Promise<Worker> | null = null;

/**
 * Works something out in a thread of its own.
 * @param ask what, by its name there. @param of what it is asked of: plain data.
 * @throws when too many wait, or the thread ends.
 */
export async function inThread<K extends keyof ThreadWork>(
  ask: K,
  of: Parameters<ThreadWork[K]>[0],
): Promise<NonNullable<Awaited<ReturnType<ThreadWork[K]>>>> {
  if (waiting.size >= MOST_WAITING) throw new Error("Too much waits to be worked out.");
  if (!thread) {
    starting ??= start().finally(() => {
      starting = null;
    });
    thread = await starting;
  }
  if (idle) clearTimeout(idle);
  idle = setTimeout(() => {
    if (waiting.size > 0) return;
    const ended = thread;
    thread = null;
    void ended?.terminate();
  }, IDLE_MS);
  idle.unref();
  const id = ++last;
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve: resolve as (answer: unknown) => void, reject });
    thread?.postMessage({ id, ask, of });
  });
}
