import { connection } from "next/server";
import { Title } from "@/ui/parts/Title";
import { SignIn } from "@/ui/people/SignIn";

type Props = { searchParams: Promise<Record<string, string | string[] | undefined>> };

export default async function Page({ searchParams }: Props) {
  await connection();
  return (
    <>
      <Title of="Sign in" />
      <SignIn to={String((await searchParams).to ?? "/")} />
    </>
  );
}
