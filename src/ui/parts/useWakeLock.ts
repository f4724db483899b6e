import { useEffect } from "react";

/** Keeps the screen awake while a bench screen is in sight, where the browser can. */
export function useWakeLock(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const take = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      try {
        const got = await navigator.wakeLock.request("screen");
        if (gone) void got.release();
        else lock = got;
      } catch {
        // Low battery or no permission: the screen then sleeps as it always does.
      }
    };
    const again = () => void take();
    void take();
    document.addEventListener("visibilitychange", again);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, []);
}
