/** How the screens reach the server. @throws when the server cannot be reached. */
export type Transport = (
  method: "GET" | "PUT" | "POST" | "DELETE",
  path: string,
  body?: unknown,
) => Promise<{ status: number; body: unknown }>;

export type SaveState =
  | { state: "saved" }
  | { state: "saving" }
  /** Kept on this device, sent again by itself; `signIn` where this device has to come in again first. */
  | { state: "waiting"; why: string; signIn?: true }
  /** The server will not take it as it is. */
  | { state: "refused"; why: string };

/** Timers of the browser, so that they can be tested without one. */
export interface Timers {
  later: (work: () => void, ms: number) => unknown;
  cancel: (handle: unknown) => void;
}

const RETRY_MS = [1000, 2000, 4000, 8000, 15_000];

/** Why a request was refused, in the server's words. */
export const messageOf = (body: unknown): string =>
  typeof body === "object" && body !== null && "message" in body ? String(body.message) : "The server did not say why.";

interface Answer {
  status: number;
  body: unknown;
}

/**
 * Whether an answer is the application's own: what it gives is JSON, and what it refuses it says with its problems. A page of a network that
 * wants a sign-in, a proxy's time-out or "not found" is none, whatever its status.
 */
const isOwn = ({ status, body }: Answer): boolean => {
  if (typeof body !== "object" || body === null) return false;
  return status < 400 ? status === 200 : "message" in body && "problems" in body && Array.isArray(body.problems);
};

/** Answers to who asks, not to what: nothing of it is refused, it waits until the door is open. */
const AT_THE_DOOR = [401, 403, 429];

/** Sends, says how saving stands, and comes back to what could not be sent. */
export class Sender {
  save: SaveState = { state: "saved" };
  private failures = 0;
  private timer: unknown = null;

  constructor(
    private readonly transport: Transport,
    private readonly timers: Timers,
    private readonly changed: () => void,
    private readonly again: () => void,
  ) {}

  /** One request. Null when the server was not reached or is ill: then it is tried again by itself. */
  async send(method: "PUT" | "POST", path: string, body: unknown): Promise<{ status: number; body: unknown } | null> {
    let why = "The server cannot be reached. Kept on this device and sent again.";
    let signIn = false;
    try {
      // On its way first, then shown: what is drawn does not keep the server waiting.
      const sent = this.transport(method, path, body);
      this.save = { state: "saving" };
      this.changed();
      const answer = await sent;
      const own = isOwn(answer);
      const atTheDoor = own && AT_THE_DOOR.includes(answer.status);
      if (answer.status < 500 && own && !atTheDoor) {
        this.failures = 0;
        return answer;
      }
      signIn = own && answer.status === 401;
      why =
        answer.status < 500 && !atTheDoor
          ? `Something between this device and the server answers instead of it (${answer.status}). Kept on this device and sent again.`
          : messageOf(answer.body);
    } catch {
      // Not reached: kept, and tried again below.
    }
    this.save = { state: "waiting", why, ...(signIn ? { signIn } : {}) };
    const wait = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)] ?? 1000;
    this.failures += 1;
    this.timer = this.timers.later(this.again, wait);
    this.changed();
    return null;
  }

  /** Everything is sent. */
  done(): void {
    this.save = { state: "saved" };
    this.failures = 0;
  }

  refuse(why: string): void {
    this.save = { state: "refused", why };
  }

  /** The next failure waits as short as the first. */
  startAnew(): void {
    this.failures = 0;
  }

  stopWaiting(): void {
    this.timers.cancel(this.timer);
  }
}
