import "server-only";
import { cookies, headers } from "next/headers";
import { redirect } from "next/navigation";
import { connection } from "next/server";
import { type Caller, COOKIE, callerOf } from "./who";

/** Who opens a page; who is not signed in is led to where that is done. Never called while building. */
export async function visitor(): Promise<Caller> {
  await connection();
  const who = await callerOf((await cookies()).get(COOKIE)?.value);
  if (who) return who;
  const path = (await headers()).get("x-path") ?? "/";
  redirect(path === "/" ? "/sign-in" : `/sign-in?to=${encodeURIComponent(path)}`);
}
