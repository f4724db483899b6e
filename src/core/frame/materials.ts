/** Constants of one material at room temperature. */
export interface Material {
  label: string;
  /** Young's modulus, MPa. */
  eMPa: number;
  /** Thermal expansion, 1/K. */
  alphaPerK: number;
  /** Density, kg/mm3. */
  densityKgPerMm3: number;
  /** Specific heat by volume, J/(mm3 K). */
  heatJPerMm3K: number;
  /** What a person must know before trusting a prediction; null when there is nothing. */
  caution: string | null;
}

/**
 * Room-temperature handbook values, rounded, from memory. The shrinkage factors were fitted on mild steel; for the others
 * only alpha and the heat capacity change, so their bands are widened (see shrink/constants).
 */
export const MATERIALS = {
  "mild steel": {
    label: "Mild steel",
    eMPa: 210_000,
    alphaPerK: 12e-6,
    densityKgPerMm3: 7.85e-6,
    heatJPerMm3K: 3.6e-3,
    caution: null,
  },
  "stainless 304": {
    label: "Stainless 304",
    eMPa: 200_000,
    alphaPerK: 16.5e-6,
    densityKgPerMm3: 7.9e-6,
    heatJPerMm3K: 3.95e-3,
    caution: "Stainless pulls more than mild steel and the factors here were found on mild steel: expect a wide band.",
  },
  "aluminium 6061": {
    label: "Aluminium 6061",
    eMPa: 69_000,
    alphaPerK: 23.6e-6,
    densityKgPerMm3: 2.7e-6,
    heatJPerMm3K: 2.43e-3,
    caution:
      "A heat-treated alloy loses strength beside the weld. Ask the designer before welding anything that carries load.",
  },
} as const satisfies Record<string, Material>;

export type MaterialName = keyof typeof MATERIALS;
export const MATERIAL_NAMES = Object.keys(MATERIALS) as [MaterialName, ...MaterialName[]];
