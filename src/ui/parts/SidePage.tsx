import { ChevronLeft } from "lucide-react";
import Link from "next/link";
import type { ReactNode } from "react";

/** A page beside the jobs: its name, the way back, its ground. */
export function SidePage({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto max-w-[1040px] px-4 pb-16">
      <header className="flex items-center gap-4 py-3">
        <Link href="/" className="inline-flex tap items-center gap-1 text-sm font-semibold text-soft">
          <ChevronLeft size={20} aria-hidden="true" /> Mellow Plumb<span className="sr-only">, all jobs</span>
        </Link>
        <h1 className="text-lg font-bold">{title}</h1>
      </header>
      <main className="grid gap-6 border-t-2 border-ink bg-sheet p-4 sm:p-6">{children}</main>
    </div>
  );
}
