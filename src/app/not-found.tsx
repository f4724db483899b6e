import Link from "next/link";
import { Title } from "@/ui/parts/Title";

export default function NotFound() {
  return (
    <main className="mx-auto max-w-xl p-8">
      <Title of="Nothing at this address" />
      <h1 className="text-2xl">There is nothing at this address.</h1>
      <p className="mt-2">The job may stand on another installation: its file can be read in here.</p>
      <p className="mt-4">
        <Link href="/">All jobs</Link>
      </p>
    </main>
  );
}
