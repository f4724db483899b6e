import { listInstruments } from "@/server/instruments";
import { visitor } from "@/server/page";
import { Title } from "@/ui/parts/Title";
import { Shelf } from "@/ui/shelf/Shelf";

export default async function Page() {
  return (
    <>
      <Title of="Shelf of instruments" />
      <Shelf instruments={await listInstruments(await visitor())} />
    </>
  );
}
