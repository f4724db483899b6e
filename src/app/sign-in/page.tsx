import type { Metadata } from "next";
import { connection } from "next/server";
import { SignIn } from "@/ui/people/SignIn";

export const metadata: Metadata = { title: "Sign in" };

type Props = { searchParams: Promise<Record<string, string | string[] | undefined>> };

export default async function Page({ searchParams }: Props) {
  await connection();
  return <SignIn to={String((await searchParams).to ?? "/")} />;
}
