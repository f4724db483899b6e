"use client";

import { type ReactNode, useEffect, useRef, useState } from "react";

/** Shows its content once it comes near the screen, or goes to paper: what it needs is not loaded before. */
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
    return () => {
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
