/** Whether this browser can tell something beside its pages at all. */
const canTell = (): boolean => "Notification" in window;

/** Whether it may, by what was allowed; that can be taken back at any time. */
export const mayTell = (): boolean => canTell() && Notification.permission === "granted";

/** Asks whether this page may tell when it is not in sight; the browser asks the person, once. @returns whether it may. */
export async function askToTell(): Promise<boolean> {
  if (!canTell()) return false;
  try {
    return (await Notification.requestPermission()) === "granted";
  } catch {
    return false;
  }
}

/**
 * Tells in few words what happened, where the page is not in sight and may; a press on it comes back to this page.
 * @param shakeMs how the device shakes with it, where it can: on and off in turn, ms.
 */
export async function tellUnseen(words: string, shakeMs: readonly number[]): Promise<void> {
  if (document.visibilityState === "visible" || !mayTell()) return;
  const how: NotificationOptions & { vibrate: number[] } = {
    body: document.title,
    tag: window.location.pathname,
    data: { path: window.location.pathname + window.location.search },
    vibrate: [...shakeMs],
  };
  try {
    const worker = await navigator.serviceWorker?.getRegistration();
    if (worker) await worker.showNotification(words, how);
    else new Notification(words, how).onclick = () => window.focus();
  } catch {
    // A browser that will not: it has rung, and the page shows it.
  }
}
