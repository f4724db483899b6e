import { useSyncExternalStore } from "react";

/** What this device remembers for itself: who uses it, how it looks, how the drawing is turned. */
interface Device {
  who: string;
  theme: "system" | "light" | "dark" | "glare";
  /** Quarter turns of the drawing, so that it lies as the welder stands. */
  turn: 0 | 1 | 2 | 3;
  /** Own keys under the field that is read into; "touch" where fingers are what the device is used with. */
  keypad: "touch" | "always" | "never";
  /** The hand that is free: keys and buttons lie on its side. */
  hand: "right" | "left";
  /** Says aloud what is read next. */
  speaks: boolean;
  /** Hears a reading that is said, where the browser understands speech by itself. */
  hears: boolean;
  /** Rings and shakes when a wait is over. */
  rings: boolean;
  /** Tells it beside the page, too, where the page is not in sight. */
  tells: boolean;
}

const KEY = "plumb/device";
const FIRST: Device = {
  who: "",
  theme: "system",
  turn: 0,
  keypad: "touch",
  hand: "right",
  speaks: false,
  hears: false,
  rings: true,
  tells: false,
};
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

/** Whether fingers are what this device is used with; false until the browser has said so. */
export const useTouch = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      const query = window.matchMedia("(pointer: coarse)");
      query.addEventListener("change", listener);
      return () => query.removeEventListener("change", listener);
    },
    () => window.matchMedia("(pointer: coarse)").matches,
    () => false,
  );
