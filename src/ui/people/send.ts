import type { Problem } from "@/core/units";
import { messageOf, type Transport } from "../job/store/sender";
import { transport } from "../job/store/transport";

/** What the server answered: a value, or words, some of them at fields. */
export type Answer<T> = { ok: true; value: T } | { ok: false; message: string; at: (path: string) => string | null };

/** Sends once and says how it went; nothing is tried again by itself. */
export async function send<T>(...[method, path, body]: Parameters<Transport>): Promise<Answer<T>> {
  try {
    const answer = await transport(method, path, body);
    if (answer.status === 200) return { ok: true, value: answer.body as T };
    const { problems = [] } = (answer.body ?? {}) as { problems?: Problem[] };
    return {
      ok: false,
      message: messageOf(answer.body),
      at: (field) => problems.find((p) => p.path === field)?.message ?? null,
    };
  } catch {
    return { ok: false, message: "The server cannot be reached just now. Try again in a moment.", at: () => null };
  }
}

/** What this device is, in words that its owner knows it by. */
export function deviceWords(): string {
  const { userAgent } = navigator;
  const kind = /iPad|Tablet/.test(userAgent) ? "tablet" : /Mobi|Android|iPhone/.test(userAgent) ? "phone" : "computer";
  return `${kind}, ${window.screen.width} × ${window.screen.height}`;
}

/**
 * Where another device finds this program: as this one does, but for one that sits at the server itself.
 * @param outside under which address others reach the server. @returns null where none can.
 */
export function originForOthers(outside: string | null): string | null {
  const isHere = /^(?:127\.0\.0\.1|localhost|\[::1\])$/.test(window.location.hostname);
  return isHere ? outside : window.location.origin;
}

/** Where to go after signing in: a path of this program, never another site. */
export function ownPath(to: string): string {
  try {
    const url = new URL(to, window.location.origin);
    return url.origin === window.location.origin ? `${url.pathname}${url.search}` : "/";
  } catch {
    return "/";
  }
}
