import { visitor } from "@/server/page";
import { peopleOf } from "@/server/people";
import { mustSignIn } from "@/server/who";
import { Title } from "@/ui/parts/Title";
import { NobodySignsIn } from "@/ui/people/NobodySignsIn";
import { Own } from "@/ui/people/Own";
import { People } from "@/ui/people/People";

async function Whoever() {
  const who = await visitor();
  if (!mustSignIn()) return <NobodySignsIn />;
  if (who.role !== "owner") return <Own name={who.person?.name ?? ""} role={who.role} />;
  const shop = await peopleOf(who);
  return shop.ok ? <People start={shop.value} /> : null;
}

export default function Page() {
  return (
    <>
      <Title of="People" />
      <Whoever />
    </>
  );
}
