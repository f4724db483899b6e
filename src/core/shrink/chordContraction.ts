import type { BeamMaterial } from "../mechanics";
import type { ShrinkFactors, WeldedJoint } from "../weld";

/** Lines across a chord come first; the others run along it. */
export const isAcross = (line: number): boolean => line < 2;

/**
 * Volume by which a seam contracts the wall of the member that it lies on: length, free strain of its heat, the share of the heat that goes
 * into that wall (2 tc / (tb + 2 tc)), and a factor across it or along (Okerblom, from memory).
 * @param heatShare of the settings' heat that a tack has; 1 for a bead. @returns mm3; nought without a member that runs through.
 */
export function chordVolumeMm3(
  { chord }: WeldedJoint,
  seam: { line: number; lengthMm: number; heatJPerMm: number; heatShare: number },
  factors: ShrinkFactors,
  { alphaPerK, heatJPerMm3K }: BeamMaterial,
): number {
  if (!chord) return 0;
  const { wallMm, branchWallMm } = chord;
  const share = (2 * wallMm) / (branchWallMm + 2 * wallMm);
  const factor = isAcross(seam.line) ? factors.transverse.value : factors.longitudinal.value;
  return seam.lengthMm * (alphaPerK / heatJPerMm3K) * share * seam.heatJPerMm * factor * seam.heatShare;
}

/** Contraction of the chord's wall at a line, mm: the volume over what it acts on. */
export function contractionMm({ chord }: WeldedJoint, line: number, volumeMm3: number): number {
  if (!chord) return 0;
  const { wallMm, branchWallMm, branchAcrossMm } = chord;
  return volumeMm3 / (wallMm * (isAcross(line) ? branchAcrossMm : branchWallMm));
}
