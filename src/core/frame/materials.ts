/** Constants of one material at room temperature. */
interface Material {
  label: string;
  /** Young's modulus, MPa. */
  eMPa: number;
  /** Poisson's ratio. */
  nu: number;
  /** Yield stress that beads and tacks are limited to, MPa. */
  yieldMPa: number;
  /** Strength, MPa. */
  ultimateMPa: number;
  /** Thermal expansion, 1/K. */
  alphaPerK: number;
  /** Density, kg/mm3. */
  densityKgPerMm3: number;
  /** Specific heat by volume, J/(mm3 K). */
  heatJPerMm3K: number;
  /** Thermal conductivity, W/(m K). */
  conductsWPerMK: number;
  /** Whether it loses strength beside the weld (heat-treated or work-hardened). */
  heatSoftens: boolean;
  /** Whether a magnet holds it. */
  isMagnetic: boolean;
  /** Whether it rusts when it is bare; only such steel is dipped in zinc. */
  rusts: boolean;
  /** What a person must know before trusting a prediction; null when there is nothing. */
  caution: string | null;
}

/**
 * Room-temperature handbook values, rounded, from memory. The shrinkage factors were fitted on mild steel; for the others
 * only the constants change, so their bands are widened (see shrink/constants).
 */
export const MATERIALS = {
  "mild steel": {
    label: "Mild steel",
    eMPa: 210_000,
    nu: 0.3,
    yieldMPa: 355,
    ultimateMPa: 470,
    alphaPerK: 12e-6,
    densityKgPerMm3: 7.85e-6,
    heatJPerMm3K: 3.6e-3,
    conductsWPerMK: 45,
    heatSoftens: false,
    isMagnetic: true,
    rusts: true,
    caution: null,
  },
  "stainless 304": {
    label: "Stainless 304",
    eMPa: 200_000,
    nu: 0.29,
    yieldMPa: 230,
    ultimateMPa: 520,
    alphaPerK: 16.5e-6,
    densityKgPerMm3: 7.9e-6,
    heatJPerMm3K: 3.95e-3,
    conductsWPerMK: 16,
    heatSoftens: false,
    isMagnetic: false,
    rusts: false,
    caution: "Stainless pulls more than mild steel and the factors here were found on mild steel: expect a wide band.",
  },
  "stainless 316": {
    label: "Stainless 316",
    eMPa: 200_000,
    nu: 0.29,
    yieldMPa: 240,
    ultimateMPa: 520,
    alphaPerK: 16e-6,
    densityKgPerMm3: 8e-6,
    heatJPerMm3K: 4e-3,
    conductsWPerMK: 15,
    heatSoftens: false,
    isMagnetic: false,
    rusts: false,
    caution: "Stainless pulls more than mild steel and the factors here were found on mild steel: expect a wide band.",
  },
  "aluminium 6061": {
    label: "Aluminium 6061",
    eMPa: 69_000,
    nu: 0.33,
    yieldMPa: 240,
    ultimateMPa: 290,
    alphaPerK: 23.6e-6,
    densityKgPerMm3: 2.7e-6,
    heatJPerMm3K: 2.43e-3,
    conductsWPerMK: 167,
    heatSoftens: true,
    isMagnetic: false,
    rusts: false,
    caution:
      "A heat-treated alloy loses strength beside the weld. Ask the designer before welding anything that carries load.",
  },
  "aluminium 5083": {
    label: "Aluminium 5083",
    eMPa: 71_000,
    nu: 0.33,
    yieldMPa: 145,
    ultimateMPa: 275,
    alphaPerK: 23.8e-6,
    densityKgPerMm3: 2.66e-6,
    heatJPerMm3K: 2.39e-3,
    conductsWPerMK: 117,
    heatSoftens: true,
    isMagnetic: false,
    rusts: false,
    caution:
      "A work-hardened alloy goes back to its soft strength beside the weld. Ask the designer before welding anything that carries load.",
  },
} as const satisfies Record<string, Material>;

export type MaterialName = keyof typeof MATERIALS;
export const MATERIAL_NAMES = Object.keys(MATERIALS) as [MaterialName, ...MaterialName[]];
