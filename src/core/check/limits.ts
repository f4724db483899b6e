import { leansAsDrawn, type Quadrilateral } from "../frame";
import { ends, SIDES, type Side } from "../geometry";
import { distance } from "../numeric";
import { type Problem, plainLength, type UnitPreference } from "../units";
import { angleLimit, flatLimitMm, linearLimitMm } from "./iso13920";
import type { Deviation, FlatBy, Limits } from "./limitsSchema";

/** One limit in numbers. mm, or mm/m where `unit` says so. */
export interface Limit {
  id: Side | `${string}-${string}` | "square" | "flat" | "place" | "straight" | "level" | "gap" | "flush";
  kind: "size" | "diagonal" | "corner" | "flat" | "place" | "straight" | "level" | "gap" | "flush";
  label: string;
  unit: "mm" | "mm/m";
  /** Nominal size; 0 for the others. */
  nominal: number;
  lower: number | null;
  upper: number | null;
  nonnegative: boolean;
  source: string;
  /** Of a size between two free ends: which. */
  mouth?: readonly [from: string, to: string];
  /** Those are the feet of two legs. */
  ofFeet?: true;
  /** Of flatness: what it is. */
  flatBy?: FlatBy;
  /** Judged when it is measured; a frame passes without. */
  optional?: true;
}

const own = (value: { mm: number } | null): number | null => (value === null ? null : value.mm);

/** What is wrong with limits that were typed. @returns problems at their fields. */
export function limitProblems(limits: Limits, units: UnitPreference = "mm"): Problem[] {
  const most = (mm: number): string => plainLength(mm, units);
  if (limits.kind === "class") return [];
  const found: Problem[] = [];
  const error = (path: string, message: string) => found.push({ path: `limits.${path}`, message, severity: "error" });
  for (const key of ["length", "width"] as const) {
    const { lower, upper } = limits[key];
    if (lower && upper && lower.mm >= upper.mm)
      error(
        `${key}.lower`,
        `The lower limit (${plainLength(lower.mm, units)}) must lie below the upper (${plainLength(upper.mm, units)}).`,
      );
    for (const [side, value] of [
      ["lower", lower],
      ["upper", upper],
    ] as const)
      if (value && Math.abs(value.mm) > 100)
        error(`${key}.${side}`, `Over ${most(100)} from nominal is no limit. Check the unit.`);
  }
  if (limits.square?.as === "diagonal") {
    if (limits.square.limit.mm <= 0)
      error("square.limit", "The diagonals may differ by more than zero, or there is no limit.");
    else if (limits.square.limit.mm > 100)
      error("square.limit", `Over ${most(100)} between diagonals is no limit. Check the unit.`);
  }
  if (limits.flat && limits.flat.mm <= 0)
    error("flat", "Flatness must be more than zero; leave it empty for no limit.");
  else if (limits.flat && limits.flat.mm > 100)
    error("flat", `Over ${most(100)} out of flat is no limit. Check the unit.`);
  for (const key of ["gap", "flush", "straight"] as const) {
    const value = limits[key];
    if (value && (value.mm <= 0 || value.mm > 20))
      error(
        key,
        `${key === "straight" ? "A bow" : "A gap or step"} may be more than zero and up to ${most(20)}; leave it empty for no limit.`,
      );
  }
  return found;
}

/** A limit as it is named within a sentence: `side AB`, `diagonals apart`. */
export const limitName = ({ label }: Pick<Limit, "label">): string => label.charAt(0).toLowerCase() + label.slice(1);

/** Two free ends across from each other where a frame is open, and how far apart they are drawn, mm. */
export interface Mouth {
  from: string;
  to: string;
  mm: number;
}

/** Sizes that limits are looked up for, mm. */
interface Sizes {
  lengthMm: number;
  widthMm: number;
}
type Corners = Pick<Quadrilateral, "corners">;

/** What the chosen class, or the drawing, allows. mm, mm/m. */
function figures(limits: Limits, { lengthMm, widthMm }: Sizes) {
  const [shorter, longer] = [Math.min(lengthMm, widthMm), Math.max(lengthMm, widthMm)];
  if (limits.kind === "own") {
    const range = ({ lower, upper }: Deviation) => ({ lower: own(lower), upper: own(upper) });
    return {
      length: range(limits.length),
      width: range(limits.width),
      square: limits.square && {
        byCorner: limits.square.as === "mm/m",
        upper: limits.square.as === "mm/m" ? limits.square.limit : limits.square.limit.mm,
      },
      flat: own(limits.flat),
      straight: { upper: own(limits.straight ?? null), optional: false },
      gap: own(limits.gap ?? null),
      flush: own(limits.flush ?? null),
    };
  }
  const { confirmed } = limits;
  const both = (mm: number) => ({ lower: -mm, upper: mm });
  return {
    length: both(confirmed.lengthMm ?? linearLimitMm(limits.linear, lengthMm)),
    width: both(confirmed.widthMm ?? linearLimitMm(limits.linear, widthMm)),
    square: { byCorner: true, upper: confirmed.angleMmPerM ?? angleLimit(limits.linear, shorter).mmPerM },
    flat: confirmed.flatMm ?? flatLimitMm(limits.flat, longer),
    // A class of flatness is one of straightness too: judged where somebody reads it.
    straight: { upper: confirmed.flatMm ?? flatLimitMm(limits.flat, longer), optional: true },
    gap: null,
    flush: null,
  };
}

/** Where each figure comes from. */
function sources(limits: Limits) {
  if (limits.kind === "own") return { length: "own limit", width: "own limit", square: "own limit", flat: "own limit" };
  const of = (cls: string, confirmed: number | undefined): string =>
    confirmed === undefined ? `ISO 13920-${cls}, from memory: confirm` : `ISO 13920-${cls}, confirmed`;
  const { confirmed } = limits;
  return {
    length: of(limits.linear, confirmed.lengthMm),
    width: of(limits.linear, confirmed.widthMm),
    square: of(limits.linear, confirmed.angleMmPerM),
    flat: of(limits.flat, confirmed.flatMm),
  };
}

/**
 * Limits in numbers for one frame.
 * @param limits as chosen. @param sizes nominal, outside; a class is looked up for them.
 * @param quad corners of a frame that has sides AB to DA; another is judged by where its places lie, and by its mouths.
 * @param mouths where such a frame is open: each is a width.
 * @param reachesBeyond whether something of a frame with corners lies well beyond them.
 * @param feet ways between the feet of legs, judged where somebody reads them.
 */
export function resolveLimits(
  limits: Limits,
  sizes: Sizes,
  quad: Corners | null,
  mouths: readonly Mouth[] = [],
  reachesBeyond = false,
  feet: readonly Mouth[] = [],
): Limit[] {
  const { length, width, square, flat, straight, gap, flush } = figures(limits, sizes);
  const source = sources(limits);
  const out: Limit[] = [];
  const upTo = (
    id: Limit["id"] & Limit["kind"],
    label: string,
    upper: number | null,
    from: string,
    unit: Limit["unit"] = "mm",
    optional = true,
  ): void => {
    if (upper === null) return;
    const limit: Limit = { id, kind: id, label, unit, nominal: 0, lower: null, upper, nonnegative: true, source: from };
    out.push(optional ? { ...limit, optional: true } : limit);
  };
  const size = (
    named: Pick<Limit, "id" | "label" | "mouth" | "ofFeet" | "optional">,
    nominal: number,
    { lower, upper }: typeof length,
    from: string,
  ): void => {
    if (lower === null && upper === null) return;
    out.push({
      ...named,
      kind: "size",
      unit: "mm",
      nominal,
      lower: lower === null ? null : nominal + lower,
      upper: upper === null ? null : nominal + upper,
      nonnegative: false,
      source: from,
    });
  };
  // Half of what an overall length may be off by, to either side; of one with one end, that end.
  const reach = Math.min(
    ...[length, width].flatMap(({ lower, upper }) => {
      const half = lower !== null && upper !== null ? (upper - lower) / 2 : (upper ?? (lower === null ? null : -lower));
      return half === null ? [] : [half];
    }),
  );
  const isReached = Number.isFinite(reach) && reach > 0;
  const place = (label: string): void => {
    if (isReached) upTo("place", label, reach, `${source.length}, of its lengths`, "mm", false);
  };
  if (quad)
    for (const side of SIDES) {
      const along = side === "AB" || side === "CD";
      const [p, q] = ends(side);
      const nominal = distance(quad.corners[p], quad.corners[q]);
      size({ id: side, label: `Side ${side}` }, nominal, along ? length : width, along ? source.length : source.width);
    }
  else {
    // A row of free ends is no mouth: what is across from what there is judged where somebody reads it.
    const optional = mouths.length > 1 ? { optional: true as const } : {};
    for (const { from, to, mm } of mouths) {
      const mouth = [from, to] as const;
      const named = { id: `${from}-${to}` as const, label: `Mouth ${from} to ${to}`, mouth, ...optional };
      const most = limits.kind === "class" ? linearLimitMm(limits.linear, mm) : null;
      size(named, mm, most === null ? width : { lower: -most, upper: most }, source.width);
    }
    place("Farthest place from the drawing");
  }
  for (const { from, to, mm } of feet) {
    const mouth = [from, to] as const;
    if (out.some((l) => l.id === `${from}-${to}`)) continue;
    const named = { id: `${from}-${to}` as const, label: `Feet ${from} to ${to}`, mouth, ofFeet: true as const };
    if (isReached)
      size({ ...named, optional: true }, mm, { lower: -reach, upper: reach }, `${source.length}, of its lengths`);
  }
  const leans = quad !== null && leansAsDrawn(quad);
  if (square && quad)
    out.push({
      id: "square",
      kind: square.byCorner ? "corner" : "diagonal",
      label: square.byCorner
        ? leans
          ? "Worst corner from the drawing"
          : "Worst corner from square"
        : leans
          ? "Diagonals apart, beyond the drawing"
          : "Diagonals apart",
      unit: square.byCorner ? "mm/m" : "mm",
      nominal: 0,
      lower: -square.upper,
      upper: square.upper,
      nonnegative: false,
      source: source.square,
    });
  if (quad && reachesBeyond) place("Farthest place beyond the corners");
  upTo("flat", "Flatness", flat, source.flat, "mm", false);
  const flatness = out.at(-1);
  if (flatness?.kind === "flat") flatness.flatBy = limits.flatBy ?? "slab";
  upTo("straight", "Straightness of a member", straight.upper, source.flat, "mm", straight.optional);
  upTo("level", "Level", limits.levelMmPerM, "own limit", "mm/m");
  upTo("gap", "Gap at a joint", gap, "own limit", "mm", false);
  upTo("flush", "Flush step", flush, "own limit", "mm", false);
  return out;
}
