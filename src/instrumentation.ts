/** Runs once, before the server takes its first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { refuseTrace } = await import("./server/refusedTrace");
  refuseTrace();
}
