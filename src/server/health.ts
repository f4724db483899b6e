import "server-only";
import * as store from "@/store";
import { done, type Outcome } from "./outcome";

/** That this is our server, which folder's it is, and that its database answers. */
export async function health(): Promise<Outcome<{ name: string; folder: string | null; database: "answers" }>> {
  await store.upkeepAt(store.pool(), "begun");
  return done({ name: "mellow-plumb", folder: process.env.PLUMB_FOLDER ?? null, database: "answers" });
}
