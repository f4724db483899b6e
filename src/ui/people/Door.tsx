import type { ReactNode } from "react";
import { Now } from "../parts/Sheet";

/** The page before the shop: one thing to do. */
export function Door({ title, say, why, children }: { title: string; say: string; why: string; children: ReactNode }) {
  return (
    <div className="mx-auto max-w-xl px-4 pb-16">
      <header className="py-4">
        <h1 className="text-xl">
          Mellow Plumb <span className="font-normal text-soft">{title}</span>
        </h1>
      </header>
      <main className="grid gap-6 border-t-2 border-ink bg-sheet p-4 sm:p-6">
        <Now say={say} why={why} />
        {children}
      </main>
    </div>
  );
}
