import { type BentSection, plasticSection } from "./plasticSection";

/** Constants of a material that heat hangs on. */
export interface HeatedMaterial {
  eMPa: number;
  yieldMPa: number;
  alphaPerK: number;
  heatJPerMm3K: number;
}

/** What contracting one side of a member does to it. */
export interface HeatEffect {
  /** Volume that is gone, mm3; null for a wedge, which is a kink at once. */
  contractionMm3: number | null;
  kinkRad: number;
  shorteningMm: number;
  bowMm: number;
}

const sectionOf = (section: BentSection) => plasticSection(section, { eMPa: Number.NaN, yieldMPa: Number.NaN });

/** A volume that contracts at a distance from the axis acts as an eccentric pull. Source: Okerblom (from memory). */
const byVolume = (section: BentSection, volumeMm3: number, offsetMm: number) => {
  const { iMm4, areaMm2 } = sectionOf(section);
  return {
    contractionMm3: volumeMm3,
    kinkRad: (volumeMm3 * offsetMm) / iMm4,
    shorteningMm: volumeMm3 / areaMm2,
  };
};

/** A bead or heat line along the middle of a member. @param longitudinal factor of the contraction along a bead. */
export function beadAlong(
  section: BentSection,
  material: HeatedMaterial,
  longitudinal: number,
  { heatJPerMm, beadMm, memberMm, offsetMm }: Record<"heatJPerMm" | "beadMm" | "memberMm" | "offsetMm", number>,
): HeatEffect & { tendonN: number } {
  const volume = longitudinal * (material.alphaPerK / material.heatJPerMm3K) * heatJPerMm * beadMm;
  const own = byVolume(section, volume, offsetMm);
  return {
    ...own,
    bowMm: own.kinkRad * (memberMm / 4 - beadMm / 8),
    tendonN: (volume * material.eMPa) / beadMm,
  };
}

/** Share of a bead's contraction across it that a face lets through to the member. Source: own judgement, after finite elements. */
const ACROSS = 0.93;

/** Bow of a kink at a place along a member, and at most. */
const bowOfKink = (kink: number, at: number, length: number): number => (kink * at * (length - at)) / length;

/** A bead or heat line across one face. @param transverse factor of the contraction across a bead. @param atMm along the member; its middle. */
export function beadAcross(
  section: BentSection,
  material: HeatedMaterial,
  transverse: number,
  {
    heatJPerMm,
    lineMm,
    memberMm,
    offsetMm,
    atMm = memberMm / 2,
  }: Record<"heatJPerMm" | "lineMm" | "memberMm" | "offsetMm", number> & { atMm?: number },
): HeatEffect & { largestBowMm: number } {
  const volume = ACROSS * transverse * (material.alphaPerK / material.heatJPerMm3K) * heatJPerMm * lineMm;
  const own = byVolume(section, volume, offsetMm);
  return {
    ...own,
    bowMm: bowOfKink(own.kinkRad, memberMm / 2, memberMm) * (Math.min(atMm, memberMm - atMm) / (memberMm / 2)),
    largestBowMm: bowOfKink(own.kinkRad, atMm, memberMm),
  };
}

/** Spots that were heated and have contracted. @param strain that stays (see threeBar). */
export function heatSpot(
  section: BentSection,
  {
    diameterMm,
    strain,
    offsetMm,
    memberMm,
    count,
  }: Record<"diameterMm" | "strain" | "offsetMm" | "memberMm" | "count", number>,
): HeatEffect {
  const volume = strain * (Math.PI / 4) * diameterMm ** 2 * (section.wallMm ?? 0) * count;
  const own = byVolume(section, volume, offsetMm);
  return { ...own, bowMm: (own.kinkRad * memberMm) / 4 };
}

/** A wedge, wide at the edge and nought at its depth, heated through. */
export function heatWedge(
  section: BentSection,
  { widthMm, depthMm, strain, memberMm }: Record<"widthMm" | "depthMm" | "strain" | "memberMm", number>,
): HeatEffect {
  const kinkRad = (strain * widthMm) / depthMm;
  return {
    contractionMm3: null,
    kinkRad,
    bowMm: (kinkRad * memberMm) / 4,
    shorteningMm: kinkRad * (depthMm - section.depthMm / 2),
  };
}

/** Yield stress of hot steel as a share of cold. Source: own judgement. */
const HOT_SHARE = 0.3;

/**
 * What is left of a heated part between cold neighbours that hold it: it is upset while hot, and yields again when it cools if it was
 * upset far enough; more heat then adds nothing. Source: bar between springs (three-bar model), from memory.
 * @param restraint share of its expansion that the neighbours hold back, 0 to 1.
 */
export function threeBar(
  { eMPa, yieldMPa, alphaPerK }: Pick<HeatedMaterial, "eMPa" | "yieldMPa" | "alphaPerK">,
  riseK: number,
  restraint: number,
  hotShare: number = HOT_SHARE,
): { strain: number; residualMPa: number; yieldsWhenCooling: boolean } {
  const yieldStrain = yieldMPa / eMPa;
  const upset = Math.max(0, alphaPerK * riseK - (hotShare * yieldStrain) / restraint);
  const most = yieldStrain / restraint;
  const strain = Math.min(upset, most);
  return { strain, residualMPa: eMPa * strain * restraint, yieldsWhenCooling: upset >= most };
}
