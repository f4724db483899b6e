import { shopBook } from "@/server/lessons";
import { visitor } from "@/server/page";
import { listTestBeads } from "@/server/testBeads";
import { Learned } from "@/ui/learned/Learned";
import { Title } from "@/ui/parts/Title";

export default async function Page() {
  const who = await visitor();
  const [book, beads] = await Promise.all([shopBook(who), listTestBeads(who)]);
  return (
    <>
      <Title of="What we learned" />
      <Learned book={book} beads={beads} />
    </>
  );
}
