import type { Metadata } from "next";
import { connection } from "next/server";
import { Join } from "@/ui/people/Join";

export const metadata: Metadata = { title: "Come in" };

export default async function Page() {
  await connection();
  return <Join />;
}
