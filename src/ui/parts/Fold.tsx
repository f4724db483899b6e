"use client";

import { type ReactNode, useState } from "react";

/** A part of the page that opens when it is asked for. */
export function Fold({
  title,
  note,
  open = false,
  children,
}: {
  title: string;
  note?: string;
  open?: boolean;
  children: ReactNode;
}) {
  const [shown, setShown] = useState(open);
  return (
    <section className="border-t border-line pt-2">
      <h2 className="text-lg">
        <button
          type="button"
          aria-expanded={shown}
          onClick={() => setShown(!shown)}
          className="flex tap w-full items-baseline justify-between gap-3 text-left"
        >
          <span>
            <span aria-hidden="true" className="fig">
              {shown ? "−" : "+"}
            </span>{" "}
            {title}
          </span>
          {note ? <span className="text-sm font-normal text-soft">{note}</span> : null}
        </button>
      </h2>
      {shown ? <div className="pb-3">{children}</div> : null}
    </section>
  );
}
