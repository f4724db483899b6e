import { connection } from "next/server";
import { Title } from "@/ui/parts/Title";
import { Join } from "@/ui/people/Join";

export default async function Page() {
  await connection();
  return (
    <>
      <Title of="Come in" />
      <Join />
    </>
  );
}
