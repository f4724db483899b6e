import { connection } from "next/server";
import { Shell } from "@/ui/offline/Shell";

export default async function Page() {
  await connection();
  return <Shell />;
}
