import type { Metadata } from "next";
import { shopBook } from "@/server/lessons";
import { visitor } from "@/server/page";
import { listTestBeads } from "@/server/testBeads";
import { Learned } from "@/ui/learned/Learned";

export const metadata: Metadata = { title: "What we learned" };

export default async function Page() {
  const who = await visitor();
  const [book, beads] = await Promise.all([shopBook(who), listTestBeads(who)]);
  return <Learned book={book} beads={beads} />;
}
