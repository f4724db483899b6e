import { type PrecacheEntry, Route, Serwist } from "serwist";
import { deviceHere } from "../job/store/device";
import { browserLocks } from "../job/store/keeping";
import { sendLeft } from "../job/store/left";
import { transport } from "../job/store/transport";
import { SHELL_PATH, SYNC_TAG } from "./names";

/** Files of this build, put in where this is bundled. */
declare const BUILT: PrecacheEntry[];
declare const self: ServiceWorkerGlobalScope;
/** The browser sends it once a network is there, also after every page was closed. */
interface SyncEvent extends ExtendableEvent {
  tag: string;
}

/** A page that takes longer comes from this device, ms: better old and now than fresh and never. */
const PATIENCE_MS = 6000;

const serwist = new Serwist({ precacheEntries: BUILT, skipWaiting: true, clientsClaim: true });

const inTime = (request: Request): Promise<Response> => fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) });

// A page: from the server; without one, the shell, which shows what this device keeps of the job at that address.
serwist.registerRoute(
  new Route(
    ({ request }) => request.mode === "navigate",
    async ({ request }) => {
      try {
        const answer = await inTime(request);
        // What stands before the server says that it is away.
        if (answer.status < 502 || answer.status > 504) return answer;
      } catch {
        // Not reached: below.
      }
      return (await serwist.matchPrecache(SHELL_PATH)) ?? Response.error();
    },
  ),
);

// A part of a page, as links ask for it: one that does not come in time is given up, and the link opens its page as a whole.
serwist.registerRoute(
  new Route(
    ({ request, sameOrigin }) => sameOrigin && request.headers.has("rsc"),
    ({ request }) => inTime(request).catch(() => Response.error()),
  ),
);

/**
 * A worker reads what it is to load from behind the # of its own address. A kept answer carries the address that it was kept under, and the
 * worker would take that for its own: it gets the same words without one.
 */
async function workerScript(request: Request): Promise<Response> {
  const kept = (await serwist.matchPrecache(new URL(request.url).pathname)) ?? (await fetch(request));
  return new Response(kept.body, { status: kept.status, headers: kept.headers });
}
self.addEventListener("fetch", (event) => {
  if (event.request.destination !== "worker") return;
  event.stopImmediatePropagation();
  event.respondWith(workerScript(event.request));
});

self.addEventListener("sync", (event) => {
  const sync = event as SyncEvent;
  if (sync.tag !== SYNC_TAG) return;
  const now = () => new Date().toISOString();
  sync.waitUntil(
    sendLeft(deviceHere(), browserLocks, transport, now).then((later) => {
      // The browser asks again, later, when this fails.
      if (later) throw new Error("not everything could be sent");
    }),
  );
});

// What was told beside the page, pressed: back to the page that it is about, where it is open still.
self.addEventListener("notificationclick", (event) => {
  event.notification.close();
  const { path } = (event.notification.data ?? {}) as { path?: string };
  const back = async (): Promise<void> => {
    const pages = await self.clients.matchAll({ type: "window", includeUncontrolled: true });
    const page = pages.find((p) => new URL(p.url).pathname === new URL(path ?? "/", p.url).pathname) ?? pages[0];
    if (page) await page.focus();
    else await self.clients.openWindow(path ?? "/");
  };
  event.waitUntil(back());
});

serwist.addEventListeners();
