import { type ReactNode, useState } from "react";
import type { ListedPiece } from "@/core/cut";
import { DRAWING_UNITS, type DrawingUnit, type Measure } from "@/core/frame";
import { SelectField } from "../parts/SelectField";

/** What a table holds, the unit of its numbers, and what was not read of it. */
export function TablePanel({
  what,
  rows,
  unit: said,
  usual,
  unread,
  children,
}: {
  /** What the rows are: "4 distances". */
  what: string;
  rows: readonly (Measure | ListedPiece)[];
  unit: DrawingUnit | null;
  /** Unit that a bare number means here. */
  usual: DrawingUnit;
  unread: readonly string[];
  children: (unit: DrawingUnit) => ReactNode;
}) {
  const [unit, setUnit] = useState<DrawingUnit>(said ?? usual);
  const first = rows
    .slice(0, 5)
    .map((r) =>
      "values" in r
        ? `${r.names.join(" to ")}: ${r.values.join(", ")}`
        : `${r.quantity} × ${r.length}${r.name === "" ? "" : `, ${r.name}`}`,
    );
  return (
    <>
      <p className="text-lg font-semibold">{what}</p>
      <ul className="fig text-sm">
        {first.map((line, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows of a table may be alike
          <li key={`${line}/${i}`}>{line}</li>
        ))}
        {rows.length > first.length ? <li>and {rows.length - first.length} more</li> : null}
      </ul>
      <SelectField
        label="Its numbers are in"
        hint={said === unit ? "A heading says so." : ""}
        value={unit}
        options={(Object.keys(DRAWING_UNITS) as DrawingUnit[]).map((u) => [u, u] as const)}
        onChange={setUnit}
      />
      {unread.length > 0 ? (
        <p className="text-sm text-close" data-testid="unread">
          Not taken: {unread.slice(0, 8).join("; ")}
          {unread.length > 8 ? "; and more" : ""}.
        </p>
      ) : null}
      {children(unit)}
    </>
  );
}
