import type { Metadata } from "next";
import { connection } from "next/server";
import { listInstruments } from "@/server/instruments";
import { Shelf } from "@/ui/shelf/Shelf";

export const metadata: Metadata = { title: "Shelf of instruments" };

export default async function Page() {
  await connection();
  return <Shelf instruments={await listInstruments()} />;
}
