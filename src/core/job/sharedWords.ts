import type { CutPiece } from "../cut";
import type { Structure } from "../frame";
import { type Prediction, predicted } from "../shrink";
import { formatSmall, type UnitPreference } from "../units";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";

/** Less than this is not cut to: what a tape is read to, mm (own judgement). */
const TOLD_MM = 0.5;

type Cut = Pick<CutPiece, "members" | "fixed" | "toGap" | "allowanceMm">;

/**
 * Why a piece is cut longer or shorter than its own weld takes: it goes between tubes that bend, and what those would be off is shared among
 * their places; or two sides across from each other are cut to one length, though the weld takes more of one.
 * @returns null where it is cut by its own weld, to a length that was said, or nothing is predicted.
 */
export function sharedWords(
  plan: Plan,
  piece: Cut,
  prediction: Prediction | null,
  units: UnitPreference,
): string | null {
  const { structure } = builtOf(plan);
  if (!structure || !prediction || !piece.allowanceMm || piece.fixed || piece.toGap) return null;
  return bentWords(structure, piece, prediction, units) ?? oneLengthWords(structure, piece, prediction, units);
}

/** Of a piece between tubes that bend. */
function bentWords(
  { joints }: Structure,
  { members, allowanceMm }: Cut,
  prediction: Prediction,
  units: UnitPreference,
): string | null {
  const aside = prediction.setUp.asideMm ?? {};
  const own = members.map((member) => predicted(prediction, { kind: "length", member })?.value ?? Number.NaN);
  // What is added, and what of that the weld takes again.
  const sharedMm = (allowanceMm?.value ?? Number.NaN) + own.reduce((sum, v) => sum + v, 0) / own.length;
  const meets = new Set(joints.flatMap((j) => (members.includes(j.a) ? [j.b] : members.includes(j.b) ? [j.a] : [])));
  const by = Object.keys(aside).filter((id) => meets.has(id));
  if (by.length === 0 || !(Math.abs(sharedMm) >= TOLD_MM)) return null;
  return `${size(sharedMm, units)} ${sharedMm > 0 ? "more" : "less"} than its own weld takes: ${by.join(" and ")} ${by.length === 1 ? "bends" : "bend"}, and what would be off is shared`;
}

/** Of two sides across from each other, of which the weld takes more of one. */
function oneLengthWords(
  { quad }: Structure,
  { members }: Cut,
  { allowancesMm }: Prediction,
  units: UnitPreference,
): string | null {
  const sides = members.filter((m) => Object.values(quad?.sides ?? {}).includes(m));
  const [p, q] = sides.sort((a, b) => (allowancesMm[b]?.value ?? 0) - (allowancesMm[a]?.value ?? 0));
  if (p === undefined || q === undefined) return null;
  const moreMm = (allowancesMm[p]?.value ?? 0) - (allowancesMm[q]?.value ?? 0);
  if (!(moreMm >= TOLD_MM)) return null;
  return `one length for both, so that equal diagonals mean square: of ${p} the weld takes ${size(moreMm, units)} more, so it ends ${size(moreMm / 2, units)} shorter than aimed at, and ${q} as much longer`;
}

const size = (mm: number, units: UnitPreference): string => formatSmall(Math.abs(mm), units, { decimals: 1 });
