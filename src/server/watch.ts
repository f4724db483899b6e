import "server-only";
import * as z from "zod";
import { visibleName } from "@/core/units";
import * as store from "@/store";
import { done, noSuchJob, type Outcome, parse } from "./outcome";
import { type Caller, signed } from "./who";

/** All watched jobs are asked about at once, so often: also for what another process of this program took in, ms. */
const LOOK_MS = 150;
/** Who else is there is asked less often, ms. */
const PEOPLE_MS = 2000;
/** A page that has a job open says so again, ms; a stream that says nothing is closed by what stands in between. */
const HERE_MS = 10_000;

/** A stream is ended and asked for anew so often: who was sent away meanwhile is not let in again, ms. */
const AGAIN_MS = 120_000;

/** What a page that watches a job is told. */
type Told = { news: { seq: number; version: number } } | { people: store.Present[] };

interface Watcher {
  jobId: string;
  tell: (told: Told) => void;
  /** What it was told last, as text: the same is not said twice. */
  said: { news: string; people: string };
}

/** The pages that this process talks to; nothing of it has to outlast it. */
const watchers = new Set<Watcher>();
let looking = false;
let lookedAtPeople = 0;

const sayOnce = (w: Watcher, kind: "news" | "people", told: Told): void => {
  const text = JSON.stringify(told);
  if (w.said[kind] === text) return;
  w.said[kind] = text;
  w.tell(told);
};

async function lookOnce(): Promise<void> {
  const ids = [...new Set([...watchers].map((w) => w.jobId))];
  const stand = await store.standOf(store.pool(), ids);
  const forPeople = Date.now() - lookedAtPeople >= PEOPLE_MS;
  const present = forPeople ? await store.presentAt(store.pool(), ids) : null;
  if (forPeople) lookedAtPeople = Date.now();
  for (const w of watchers) {
    const news = stand.get(w.jobId);
    if (news) sayOnce(w, "news", { news });
    if (present) sayOnce(w, "people", { people: present.get(w.jobId) ?? [] });
  }
}

/** Looks as long as somebody watches. */
async function look(): Promise<void> {
  if (looking) return;
  looking = true;
  while (watchers.size > 0) {
    // The database may be away: the pages ask again by themselves.
    await lookOnce().catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
  looking = false;
}

const watchSchema = z.strictObject({
  page: z.uuid(),
  who: visibleName("Say who.", 60),
  stage: z.string().max(10),
});

/**
 * Tells a page what happens in a job, as server-sent events, until it goes.
 * @param input the page's own id, who is at it, at which stage. @param gone when the page goes.
 */
export async function watchJob(
  who: Caller,
  id: string,
  input: unknown,
  gone: AbortSignal,
): Promise<Outcome<ReadableStream<Uint8Array>>> {
  const parsed = parse(watchSchema, input);
  if (!parsed.ok) return parsed;
  const isHere =
    z.uuid().safeParse(id).success && (await store.newsOf(store.pool(), who.shopId, id, 2 ** 31, 0)) !== null;
  if (!isHere) return noSuchJob();
  const present = { ...parsed.value, who: signed(who, parsed.value.who) };
  const text = new TextEncoder();
  let end = (): void => undefined;
  return done(
    new ReadableStream<Uint8Array>({
      start(out) {
        const write = (words: string): void => {
          try {
            out.enqueue(text.encode(words));
          } catch {
            // Closed meanwhile: `end` follows.
          }
        };
        const watcher: Watcher = {
          jobId: id,
          tell: (told) => write(`data: ${JSON.stringify(told)}\n\n`),
          said: { news: "", people: "" },
        };
        const here = (): void => {
          write(": here\n\n");
          void store.notePresence(store.pool(), id, present).catch(() => undefined);
        };
        const timer = setInterval(here, HERE_MS);
        const again = setTimeout(() => end(), AGAIN_MS);
        end = () => {
          if (!watchers.delete(watcher)) return;
          clearInterval(timer);
          clearTimeout(again);
          void store.endPresence(store.pool(), present.page).catch(() => undefined);
          try {
            out.close();
          } catch {
            // The page closed it.
          }
        };
        watchers.add(watcher);
        here();
        gone.addEventListener("abort", end, { once: true });
        void look();
      },
      cancel: () => end(),
    }),
  );
}
