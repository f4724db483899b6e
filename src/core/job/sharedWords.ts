import type { CutPiece } from "../cut";
import { type Prediction, predicted } from "../shrink";
import { formatSmall, type UnitPreference } from "../units";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";

/** Less than this is not cut to: what a tape is read to, mm (own judgement). */
const TOLD_MM = 0.5;

/**
 * Why a piece is cut longer or shorter than its own weld takes: it goes between tubes that bend, and what those would be off is shared among
 * their places.
 * @returns null where it is cut by its own weld, to a length that was said, or nothing is predicted.
 */
export function sharedWords(
  plan: Plan,
  { members, fixed, toGap, allowanceMm }: Pick<CutPiece, "members" | "fixed" | "toGap" | "allowanceMm">,
  prediction: Prediction | null,
  units: UnitPreference,
): string | null {
  const { structure } = builtOf(plan);
  const aside = prediction?.setUp.asideMm;
  if (!structure || !prediction || !aside || !allowanceMm || fixed || toGap) return null;
  const own = members.map((member) => predicted(prediction, { kind: "length", member })?.value ?? Number.NaN);
  // What is added, and what of that the weld takes again.
  const sharedMm = allowanceMm.value + own.reduce((sum, v) => sum + v, 0) / own.length;
  const bent = new Set(
    structure.joints.flatMap((j) => (members.includes(j.a) ? [j.b] : members.includes(j.b) ? [j.a] : [])),
  );
  const by = Object.keys(aside).filter((id) => bent.has(id));
  if (by.length === 0 || !(Math.abs(sharedMm) >= TOLD_MM)) return null;
  const size = formatSmall(Math.abs(sharedMm), units, { decimals: 1 });
  return `${size} ${sharedMm > 0 ? "more" : "less"} than its own weld takes: ${by.join(" and ")} ${by.length === 1 ? "bends" : "bend"}, and what would be off is shared`;
}
