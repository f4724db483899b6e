import { useEffect } from "react";

/** A page that is read is left alone for so long, ms. */
const AFTER_MS = 2500;

/**
 * Fetches what opens later, once the page has settled: it is there when the connection is not. @param parts never changed.
 */
export function useWarm(parts: readonly (() => Promise<unknown>)[]): void {
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const part of parts) part().catch(() => undefined);
    }, AFTER_MS);
    return () => clearTimeout(timer);
  }, [parts]);
}
