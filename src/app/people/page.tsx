import type { Metadata } from "next";
import { visitor } from "@/server/page";
import { peopleOf } from "@/server/people";
import { mustSignIn } from "@/server/who";
import { NobodySignsIn } from "@/ui/people/NobodySignsIn";
import { Own } from "@/ui/people/Own";
import { People } from "@/ui/people/People";

export const metadata: Metadata = { title: "People" };

export default async function Page() {
  const who = await visitor();
  if (!mustSignIn()) return <NobodySignsIn />;
  if (who.role !== "owner") return <Own name={who.person?.name ?? ""} role={who.role} />;
  const shop = await peopleOf(who);
  return shop.ok ? <People start={shop.value} /> : null;
}
