"use client";

import { type ReactNode, useEffect, useRef, useState } from "react";

/** A page that is read is left alone for so long, ms. */
export const SETTLED_MS = 2500;

/**
 * Shows its content once it comes near the screen, goes to paper, or the page has settled (then it can be found, and read
 * out, like everything else): what it needs does not hold up what is looked at first.
 */
export function WhenSeen({ heightPx, children }: { heightPx: number; children: ReactNode }) {
  const ref = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const element = ref.current;
    if (!element || seen) return;
    const show = () => setSeen(true);
    const observer = new IntersectionObserver((entries) => {
      if (entries.some((e) => e.isIntersecting)) show();
    });
    observer.observe(element);
    window.addEventListener("beforeprint", show);
    const settled = setTimeout(show, SETTLED_MS);
    return () => {
      clearTimeout(settled);
      observer.disconnect();
      window.removeEventListener("beforeprint", show);
    };
  }, [seen]);
  return (
    <div ref={ref} style={{ minHeight: heightPx }}>
      {seen ? children : null}
    </div>
  );
}
