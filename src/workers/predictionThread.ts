import path from "node:path";
import type { Worker } from "node:worker_threads";
import type { BuyingPart, FrameTeaching, Job, Laid, Plan } from "@/core/job";
import type { Prediction } from "@/core/shrink";

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
    if (answer !== undefined) asked?.resolve(answer);
    else asked?.reject(new Error(wrong ?? "The thread did not say why."));
  });
  made.once("error", (e) => failAll(e.message));
  made.once("exit", () => (thread === made ? failAll("The thread ended.") : undefined));
  return made;
}

let starting: Promise<Worker> | null = null;

/** Works a prediction out in a thread of its own. @throws when too many wait, or the thread ends. */
export const predictInThread = (plan: Plan): Promise<Prediction> => inThread<Prediction>({ plan });

/** Works out there what a job could teach. @throws as a prediction does. */
export const teachInThread = (job: Job) =>
  inThread<{ ok: false; why: string } | { ok: true; taught: FrameTeaching }>({ job });

/** Works out there how bars are cut. @throws as a prediction does. */
export const nestInThread = (parts: readonly BuyingPart[]): Promise<Laid[]> => inThread<Laid[]>({ parts });

async function inThread<T>(question: { plan: Plan } | { job: Job } | { parts: readonly BuyingPart[] }): Promise<T> {
  if (waiting.size >= MOST_WAITING) throw new Error("Too many predictions wait.");
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
  return new Promise<T>((resolve, reject) => {
    waiting.set(id, { resolve: resolve as (answer: unknown) => void, reject });
    thread?.postMessage({ id, ...question });
  });
}
