import type { Side } from "../frame";
import { SIDES } from "../frame";
import { type Problem, plainMm } from "../units";
import { angleLimit, flatLimitMm, linearLimitMm } from "./iso13920";
import type { Limits } from "./limitsSchema";

/** One limit in numbers. mm, or mm/m where `unit` says so. */
export interface Limit {
  id: Side | "square" | "flat";
  kind: "size" | "diagonal" | "corner" | "flat";
  label: string;
  unit: "mm" | "mm/m";
  /** Nominal size; 0 for the others. */
  nominal: number;
  lower: number | null;
  upper: number | null;
  nonnegative: boolean;
  source: string;
}

const own = (value: { mm: number } | null): number | null => (value === null ? null : value.mm);

/** What is wrong with limits that were typed. @returns problems at their fields. */
export function limitProblems(limits: Limits): Problem[] {
  if (limits.kind === "class") return [];
  const found: Problem[] = [];
  const error = (path: string, message: string) => found.push({ path: `limits.${path}`, message, severity: "error" });
  for (const key of ["length", "width"] as const) {
    const { lower, upper } = limits[key];
    if (lower && upper && lower.mm >= upper.mm)
      error(`${key}.lower`, `The lower limit (${plainMm(lower.mm)}) must lie below the upper (${plainMm(upper.mm)}).`);
    for (const [side, value] of [
      ["lower", lower],
      ["upper", upper],
    ] as const)
      if (value && Math.abs(value.mm) > 100)
        error(`${key}.${side}`, "Over 100 mm from nominal is no limit. Check the unit.");
  }
  if (limits.square?.as === "diagonal") {
    if (limits.square.limit.mm <= 0)
      error("square.limit", "The diagonals may differ by more than zero, or there is no limit.");
    else if (limits.square.limit.mm > 100)
      error("square.limit", "Over 100 mm between diagonals is no limit. Check the unit.");
  }
  if (limits.flat && limits.flat.mm <= 0)
    error("flat", "Flatness must be more than zero; leave it empty for no limit.");
  else if (limits.flat && limits.flat.mm > 100) error("flat", "Over 100 mm out of flat is no limit. Check the unit.");
  return found;
}

/**
 * Limits in numbers for one frame.
 * @param limits as chosen. @param sizes nominal, outside; a class is looked up for them.
 */
export function resolveLimits(limits: Limits, { lengthMm, widthMm }: { lengthMm: number; widthMm: number }): Limit[] {
  const shorter = Math.min(lengthMm, widthMm);
  const longer = Math.max(lengthMm, widthMm);
  const out: Limit[] = [];
  const isClass = limits.kind === "class";
  const source = isClass ? `ISO 13920-${limits.linear}, from memory` : "own limit";
  const flatSource = isClass ? `ISO 13920-${limits.flat}, from memory` : "own limit";
  for (const side of SIDES) {
    const along = side === "AB" || side === "CD";
    const nominal = along ? lengthMm : widthMm;
    const range = isClass
      ? { lower: -linearLimitMm(limits.linear, nominal), upper: linearLimitMm(limits.linear, nominal) }
      : {
          lower: own((along ? limits.length : limits.width).lower),
          upper: own((along ? limits.length : limits.width).upper),
        };
    if (range.lower === null && range.upper === null) continue;
    out.push({
      id: side,
      kind: "size",
      label: `Side ${side}`,
      unit: "mm",
      nominal,
      lower: range.lower === null ? null : nominal + range.lower,
      upper: range.upper === null ? null : nominal + range.upper,
      nonnegative: false,
      source,
    });
  }
  const square = isClass ? { as: "mm/m" as const, limit: angleLimit(limits.linear, shorter).mmPerM } : limits.square;
  if (square) {
    const byCorner = square.as === "mm/m";
    const upper = byCorner ? square.limit : square.limit.mm;
    out.push({
      id: "square",
      kind: byCorner ? "corner" : "diagonal",
      label: byCorner ? "Worst corner from square" : "Diagonals apart",
      unit: byCorner ? "mm/m" : "mm",
      nominal: 0,
      lower: -upper,
      upper,
      nonnegative: false,
      source,
    });
  }
  const flat = isClass ? flatLimitMm(limits.flat, longer) : own(limits.flat);
  if (flat !== null)
    out.push({
      id: "flat",
      kind: "flat",
      label: "Flatness",
      unit: "mm",
      nominal: 0,
      lower: null,
      upper: flat,
      nonnegative: true,
      source: flatSource,
    });
  return out;
}
