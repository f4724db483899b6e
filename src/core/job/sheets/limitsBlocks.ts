import { allowedWords, type Limit } from "../../check";
import type { UnitPreference } from "../../units";
import type { SheetBlock } from "./sheet";

/** The limits of a job, as a table under their heading. */
export const limitsBlocks = (limits: readonly Limit[], units: UnitPreference): SheetBlock[] => [
  { kind: "heading", text: "Limits" },
  {
    kind: "table",
    columns: [
      { title: "Limit", share: 0.4 },
      { title: "Allowed", share: 0.6 },
    ],
    rows: limits.map((l) => [l.label, allowedWords(l, units)]),
  },
];
