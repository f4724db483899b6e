import { useSyncExternalStore } from "react";

/** What this device remembers for itself: who uses it, how it looks, how the drawing is turned. */
interface Device {
  who: string;
  theme: "system" | "light" | "dark";
  /** Quarter turns of the drawing, so that it lies as the welder stands. */
  turn: 0 | 1 | 2 | 3;
}

const KEY = "plumb/device";
const FIRST: Device = { who: "", theme: "system", turn: 0 };
const listeners = new Set<() => void>();
let known: Device | null = null;

function read(): Device {
  if (known) return known;
  try {
    known = { ...FIRST, ...(JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<Device>) };
  } catch {
    known = FIRST;
  }
  return known;
}

/** Changes what this device remembers. */
export function setDevice(change: Partial<Device>): void {
  known = { ...read(), ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(known));
  } catch {
    // A blocked store: holds until the page is closed.
  }
  if (change.theme) document.documentElement.dataset.theme = change.theme;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useDevice = (): Device => useSyncExternalStore(subscribe, read, () => FIRST);

/** Name under which entries are made. */
export const origin = (): string => {
  const bench = window.matchMedia("(max-width: 767px)").matches ? "bench" : "desk";
  return `${read().who.trim().slice(0, 48) || "unnamed"}, ${bench}`;
};

const never = (): (() => void) => () => undefined;
/** False on the server and in the first pass of the browser, then true: for what only the browser knows. */
export const useInBrowser = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
