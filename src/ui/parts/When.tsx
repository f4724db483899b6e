"use client";

import { useInBrowser } from "./device";

/** A moment in the reader's own time; UTC until the browser has taken over. */
export function When({ at, short = false }: { at: string; short?: boolean }) {
  const inBrowser = useInBrowser();
  const text = inBrowser
    ? new Date(at).toLocaleString(
        [],
        short ? { hour: "2-digit", minute: "2-digit" } : { dateStyle: "medium", timeStyle: "short" },
      )
    : short
      ? at.slice(11, 16)
      : `${at.slice(0, 10)} ${at.slice(11, 16)} UTC`;
  return (
    <time dateTime={at} className="whitespace-nowrap">
      {text}
    </time>
  );
}
