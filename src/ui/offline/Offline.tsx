"use client";

import { useEffect } from "react";

/** Lets this device open the program without a network, once the page is at rest. */
export function Offline() {
  useEffect(() => {
    if (!("serviceWorker" in navigator)) return;
    // Not there while developing, and not allowed in some windows: the program then needs its server, as any page.
    const register = () => void navigator.serviceWorker.register("/sw.js").catch(() => undefined);
    if (document.readyState === "complete") register();
    else window.addEventListener("load", register, { once: true });
  }, []);
  return null;
}
