import { useEffect } from "react";
import { SETTLED_MS } from "./WhenSeen";

/**
 * Fetches what opens later, once the page has settled: it is there when the connection is not. @param parts never changed.
 */
export function useWarm(parts: readonly (() => Promise<unknown>)[]): void {
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const part of parts) part().catch(() => undefined);
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [parts]);
}
