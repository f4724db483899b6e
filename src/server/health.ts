import "server-only";
import * as store from "@/store";

/** That this is our server, which folder's it is, and whether its database answers. */
export async function health(): Promise<{ name: string; folder: string | null; database: "answers" | "away" }> {
  const database = await store.upkeepAt(store.pool(), "begun").then(
    () => "answers" as const,
    () => "away" as const,
  );
  return { name: "mellow-plumb", folder: process.env.PLUMB_FOLDER ?? null, database };
}
