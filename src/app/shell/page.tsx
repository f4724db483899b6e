import { connection } from "next/server";
import { Shell } from "@/ui/offline/Shell";
import { Title } from "@/ui/parts/Title";

export default async function Page() {
  await connection();
  return (
    <>
      <Title />
      <Shell />
    </>
  );
}
