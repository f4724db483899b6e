"use client";

import Link from "next/link";
import { type ReactNode, useState } from "react";
import type { UnitPreference } from "@/core/units";
import { Button, buttonClass } from "./Button";
import { Choice } from "./Choice";

type PaperSize = "A4" | "Letter";
/** Printable width, mm, with the margins below. */
const WIDE: Record<PaperSize, number> = { A4: 186, Letter: 191 };

/** A sheet to print: its size is chosen on the screen, and the screen's own things stay off the paper. */
export function Paper({
  units,
  back,
  backTo,
  children,
}: {
  units: UnitPreference;
  back: string;
  backTo: string;
  /** @param wideMm printable width. */
  children: (wideMm: number) => ReactNode;
}) {
  const [size, setSize] = useState<PaperSize>(units === "mm" ? "A4" : "Letter");
  return (
    <>
      <div className="screen-only flex flex-wrap items-end gap-3">
        <Choice
          label="Paper"
          value={size}
          options={[
            ["A4", "A4"],
            ["Letter", "Letter"],
          ]}
          onChange={setSize}
        />
        <Button look="advise" onClick={() => window.print()}>
          Print
        </Button>
        <Link href={backTo} className={buttonClass()}>
          {back}
        </Link>
      </div>
      <article
        className={`grid gap-4 ${size === "A4" ? "on-a4" : "on-letter"}`}
        style={{ maxWidth: `${WIDE[size]}mm` }}
      >
        {children(WIDE[size])}
      </article>
    </>
  );
}
