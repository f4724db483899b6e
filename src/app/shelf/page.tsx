import type { Metadata } from "next";
import { listInstruments } from "@/server/instruments";
import { visitor } from "@/server/page";
import { Shelf } from "@/ui/shelf/Shelf";

export const metadata: Metadata = { title: "Shelf of instruments" };

export default async function Page() {
  return <Shelf instruments={await listInstruments(await visitor())} />;
}
