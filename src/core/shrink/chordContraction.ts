import type { BeamMaterial } from "../mechanics";
import type { ChordPlace, ShrinkFactors } from "../weld";

/** Lines across a chord come first; the others run along it. */
export const isAcross = (line: number): boolean => line < 2;

/**
 * Volume by which a seam contracts the wall of the member that it lies on: length, free strain of its heat, the share of the heat that goes
 * into that wall, and a factor across it or along (Okerblom, from memory).
 * @param line one of the chord's own. @param heatShare of the settings' heat that a tack has; 1 for a bead. @returns mm3.
 */
export function chordVolumeMm3(
  { takes }: ChordPlace,
  seam: { line: number; lengthMm: number; heatJPerMm: number; heatShare: number },
  factors: ShrinkFactors,
  { alphaPerK, heatJPerMm3K }: BeamMaterial,
): number {
  const factor = isAcross(seam.line) ? factors.transverse.value : factors.longitudinal.value;
  return seam.lengthMm * (alphaPerK / heatJPerMm3K) * takes * seam.heatJPerMm * factor * seam.heatShare;
}

/** Contraction of a chord's wall at one of its own lines, mm: the volume over what it acts on. */
export function contractionMm(
  { wallMm, branchWallMm, branchAcrossMm }: ChordPlace,
  line: number,
  volumeMm3: number,
): number {
  return volumeMm3 / (wallMm * (isAcross(line) ? branchAcrossMm : branchWallMm));
}
