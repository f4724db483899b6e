/** A browser opens connections before it needs them, and keeps those that it used: one that is used late must not just have been closed. */
export const IDLE_MS = 90_000;
