import { MATERIALS, type Structure } from "../frame";
import { GRAVITY_N_PER_KG } from "./sagOnRests";
import { BEST_INSET, sagOnTwoRests } from "./support";

/** How a single tube hangs on two rests. mm. */
interface TubeSag {
  members: string[];
  lengthMm: number;
  /** On its ends, and on rests set in. */
  onEndsMm: number;
  insetMm: number;
  setInMm: number;
}

/** A sag below this is not worth a rest, mm. */
const SEEN_MM = 0.05;
const SAME_MM = 1;

/**
 * Tubes that sag visibly under their own weight on their ends, longest first, and where two rests keep them straightest.
 * Source: Euler beams (closed form); rests at 0.223 of the length leave a forty-eighth.
 */
export function tubeSags(structure: Structure): TubeSag[] {
  const out: TubeSag[] = [];
  for (const m of structure.members) {
    const { eMPa, densityKgPerMm3 } = MATERIALS[m.material];
    const w = m.properties.areaMm2 * densityKgPerMm3 * GRAVITY_N_PER_KG;
    const same = out.find((o) => Math.abs(o.lengthMm - m.longMm) < SAME_MM);
    if (same) {
      same.members.push(m.id);
      continue;
    }
    const worst = ({ centreMm, endMm }: { centreMm: number; endMm: number }): number =>
      Math.max(Math.abs(centreMm), Math.abs(endMm));
    const insetMm = BEST_INSET * m.longMm;
    const onEndsMm = worst(sagOnTwoRests(w, m.longMm, eMPa, m.properties.iyMm4));
    if (onEndsMm < SEEN_MM) continue;
    out.push({
      members: [m.id],
      lengthMm: m.longMm,
      onEndsMm,
      insetMm,
      setInMm: worst(sagOnTwoRests(w, m.longMm, eMPa, m.properties.iyMm4, insetMm)),
    });
  }
  return out.sort((a, b) => b.lengthMm - a.lengthMm);
}
