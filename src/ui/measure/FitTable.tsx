"use client";

import { fixed } from "@/core/units";

/** One reading of a fit, in words. */
interface FitRow {
  id: string;
  name: string;
  /** Fitted less read. */
  residual: string;
  /** Against its own scatter; null when nothing checks it. */
  w: number | null;
  detectable: string;
}

/** A residual of more than so many times its scatter looks wrong (one in a thousand). */
const WRONG = 3.29;

/** How each reading fits the others, and how small a slip of it would show. */
export function FitTable({ rows }: { rows: readonly FitRow[] }) {
  return (
    <table className="mt-2 w-full text-left text-sm">
      <thead className="text-soft">
        <tr>
          <th className="py-1 font-normal">Reading</th>
          <th className="py-1 text-right font-normal">fitted less read</th>
          <th className="py-1 text-right font-normal">of its scatter</th>
          <th className="py-1 text-right font-normal">a slip shows from</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.id} className="border-t border-line">
            <td className="py-1">{r.name}</td>
            <td className="fig py-1 text-right text-brass">{r.residual}</td>
            <td className={`fig py-1 text-right ${Math.abs(r.w ?? 0) > WRONG ? "font-bold text-close" : ""}`}>
              {r.w === null ? "unchecked" : fixed(Math.abs(r.w), 1)}
            </td>
            <td className="fig py-1 text-right">{r.w === null ? "never" : r.detectable}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
