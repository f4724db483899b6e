"use client";

import { type MouseEvent, type ReactNode, useState } from "react";
import { buttonClass } from "./Button";

/** So long a file that was handed to the browser is kept for it, ms. */
const KEPT_MS = 60_000;

/** What the server calls a file. */
function nameIn(answer: Response): string {
  const header = answer.headers.get("content-disposition") ?? "";
  const whole = /filename\*=UTF-8''([^;]+)/.exec(header)?.[1];
  return whole ? decodeURIComponent(whole) : (/filename="([^"]+)"/.exec(header)?.[1] ?? "file");
}

/** What the server says instead of a file. */
async function saidBy(answer: Response): Promise<string> {
  const said: unknown = await answer.json().catch(() => null);
  const message = said !== null && typeof said === "object" && "message" in said ? said.message : null;
  return typeof message === "string" ? message : `It could not be made (${answer.status}). Try again.`;
}

function hand(file: Blob, name: string): void {
  const url = URL.createObjectURL(file);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  window.setTimeout(() => URL.revokeObjectURL(url), KEPT_MS);
}

/** A file to take along. Where it cannot be had, that is said here and not on the browser's own page. */
export function Download({
  href,
  className = "",
  children,
}: {
  href: string;
  className?: string;
  children: ReactNode;
}) {
  const [isMaking, setMaking] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const take = async (e: MouseEvent) => {
    if (e.ctrlKey || e.metaKey || e.shiftKey || e.altKey) return;
    e.preventDefault();
    if (isMaking) return;
    setMaking(true);
    setWrong(null);
    try {
      const answer = await fetch(href);
      if (answer.ok) hand(await answer.blob(), nameIn(answer));
      else setWrong(await saidBy(answer));
    } catch {
      setWrong("No answer: there is no network, or the application is not running. Try again.");
    } finally {
      setMaking(false);
    }
  };
  return (
    <>
      <a
        className={`${buttonClass()} no-underline ${className}`}
        href={href}
        download
        aria-busy={isMaking}
        onClick={(e) => void take(e)}
      >
        {children}
      </a>
      <span role="status" className="contents">
        {isMaking ? <span className="sr-only">It is being made.</span> : null}
        {wrong ? <span className="block max-w-prose text-sm text-fail">{wrong}</span> : null}
      </span>
    </>
  );
}
