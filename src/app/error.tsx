"use client";

import { Title } from "@/ui/parts/Title";

/** Shown when a page could not be made: usually the database is away for a moment. */
export default function Failed({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto max-w-xl p-8">
      <Title of="Not just now" />
      <h1 className="text-2xl">This page could not be made just now.</h1>
      <p className="mt-2">
        The database may be away for a moment. What you entered is kept: on the server what was saved, on this device
        what was not.
      </p>
      <button type="button" className="mt-4 tap rounded-[3px] border px-4 font-semibold" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
