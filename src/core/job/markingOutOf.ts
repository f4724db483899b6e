import { type FirstEnd, type MarkedPiece, markingOut } from "../cut";
import { formatLength, formatSmall, plainLength, type UnitPreference } from "../units";
import type { Evaluation } from "./evaluate";
import { setOffOf } from "./layOut";
import { type PlacedAs, placedAs } from "./placedAs";
import type { Plan } from "./planSchema";

/** What is marked on the pieces of a plan, and what the places are taken from. */
export interface MarkedOut {
  pieces: MarkedPiece[];
  placed: PlacedAs;
}

/**
 * Everything that is marked on the pieces before they are laid down, at the places at which the frame is set up.
 * @returns nothing while the plan has errors.
 */
export function markingOutOf(
  plan: Plan,
  { structure, prediction, cut }: Pick<Evaluation, "structure" | "prediction" | "cut">,
): MarkedOut {
  if (!structure) return { pieces: [], placed: placedAs(plan, prediction) };
  const off = setOffOf(plan, structure, prediction);
  const wayOf = new Map(structure.members.map((m) => [m.id, m.axes[0]]));
  const pieces = markingOut(structure, plan.drill, (member, alongMm) => {
    const way = wayOf.get(member);
    const by = off?.(member, alongMm);
    return way && by ? by.x * way[0] + by.y * way[1] : 0;
  });
  // As long as the cut list says: pieces that are alike are cut to one length.
  const longOf = new Map(
    cut.flatMap((c) => c.members.map((m) => [m, off ? c.cutLongPointMm : c.longPointMm] as const)),
  );
  return {
    pieces: pieces.map((p) => ({ ...p, longMm: longOf.get(p.member) ?? p.longMm })),
    placed: placedAs(plan, prediction),
  };
}

/** Where one hooks the tape: the end that everything on a piece is measured from. */
export const measuredFromWords = ({ from, looks, isSlanted }: FirstEnd): string =>
  `${isSlanted ? "from the long point" : "from the end"}${from ? ` at ${from}` : looks ? ` that looks ${looks}` : " that is free"}`;

/** One mark in words: how far, to which edges, what, where. */
export function markWords(
  mark: MarkedPiece["marks"][number],
  units: UnitPreference,
): { at: string; edges: string; what: string; face: string } {
  const far = (mm: number): string => formatLength(mm, units).text;
  if (mark.kind === "hole")
    return {
      at: far(mark.centreMm),
      edges: "",
      what: `hole ${mark.drill}, ${plainLength(mark.diameterMm, units)}`,
      face: mark.face,
    };
  return {
    at: far(mark.centreMm),
    edges: mark.edgesMm.map(far).join(" to "),
    what: mark.kind === "seam" ? `seam with ${mark.member}, ${mark.nth} of ${mark.pieces}` : mark.member,
    face: `${mark.face} face`,
  };
}

/** Gap between neighbours that are all as far apart, mm; null where they are not: uprights in a row. */
export function equalGapMm({ marks }: MarkedPiece): number | null {
  const feet = marks.flatMap((m) => (m.kind === "lands" ? [m] : []));
  const steps = feet.slice(1).map((m, i) => m.centreMm - (feet[i]?.centreMm ?? 0));
  const [first] = steps;
  return first !== undefined && steps.length > 1 && steps.every((s) => Math.abs(s - first) < 0.05) ? first : null;
}

/** That in words. */
export const equalGapWords = (piece: MarkedPiece, units: UnitPreference): string | null => {
  const gap = equalGapMm(piece);
  return gap === null
    ? null
    : `all ${formatSmall(gap, units, { decimals: units === "mm" ? 1 : 0 })} apart, middle to middle`;
};
