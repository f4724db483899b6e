/** A rectangular tube or a solid bar as it is bent: depth in the plane of bending; sharp corners. */
export interface BentSection {
  widthMm: number;
  depthMm: number;
  /** Left out for a solid bar. */
  wallMm?: number | undefined;
}

/** What a bent piece is made of. */
export interface BentMaterial {
  eMPa: number;
  yieldMPa: number;
}

/** A section with what it bears, elastic and plastic. Source: strength of materials, elastic-perfectly-plastic (from memory). */
export interface PlasticSection {
  areaMm2: number;
  iMm4: number;
  elasticModulusMm3: number;
  plasticModulusMm3: number;
  shapeFactor: number;
  yieldMomentNmm: number;
  plasticMomentNmm: number;
  yieldCurvaturePerMm: number;
  /** Of a thin-walled tube; null for a solid bar. */
  jMm4: number | null;
  plasticTorqueNmm: number | null;
}

/** Half of the inside depth, inside width: nought for a solid bar. */
const inside = ({ widthMm, depthMm, wallMm }: BentSection): { hi: number; wi: number } =>
  wallMm === undefined ? { hi: 0, wi: 0 } : { hi: depthMm / 2 - wallMm, wi: widthMm - 2 * wallMm };

export function plasticSection(section: BentSection, { eMPa, yieldMPa }: BentMaterial): PlasticSection {
  const { widthMm: w, depthMm: h, wallMm: t } = section;
  const { hi, wi } = inside(section);
  const iMm4 = (w * h ** 3 - wi * (2 * hi) ** 3) / 12;
  const elasticModulusMm3 = iMm4 / (h / 2);
  const plasticModulusMm3 = (w * h * h - wi * (2 * hi) ** 2) / 4;
  // Bredt's formulae on the middle line of the wall.
  const enclosed = t === undefined ? 0 : (w - t) * (h - t);
  return {
    areaMm2: w * h - 2 * hi * wi,
    iMm4,
    elasticModulusMm3,
    plasticModulusMm3,
    shapeFactor: plasticModulusMm3 / elasticModulusMm3,
    yieldMomentNmm: yieldMPa * elasticModulusMm3,
    plasticMomentNmm: yieldMPa * plasticModulusMm3,
    yieldCurvaturePerMm: yieldMPa / (eMPa * (h / 2)),
    jMm4: t === undefined ? null : (4 * enclosed ** 2 * t) / (2 * (w - t + h - t)),
    plasticTorqueNmm: t === undefined ? null : (2 * enclosed * t * yieldMPa) / Math.sqrt(3),
  };
}

/** Moment while all within a distance of the middle is still elastic, N mm. @param core that distance, mm. */
export function momentAt(section: BentSection, { yieldMPa: fy }: BentMaterial, core: number): number {
  const { widthMm: w, depthMm: h, wallMm: t = 0 } = section;
  const { hi, wi } = inside(section);
  const full = (fy * (w * h * h - wi * (2 * hi) ** 2)) / 4;
  return core <= hi
    ? full - (2 * fy * t * core ** 2) / 3
    : full - 2 * fy * ((w * core ** 2) / 6 + (wi * hi ** 3) / (3 * core) - (wi * hi ** 2) / 2);
}

/** How that moment falls as the core grows, N. */
function momentSlope(section: BentSection, { yieldMPa: fy }: BentMaterial, core: number): number {
  const { widthMm: w, wallMm: t = 0 } = section;
  const { hi, wi } = inside(section);
  return core <= hi ? (4 * fy * t * core) / 3 : 2 * fy * ((w * core) / 3 - (wi * hi ** 3) / (3 * core ** 2));
}

/** Curvature that stays when the moment of a core is let go, 1/mm. */
export const curvatureLeft = (section: BentSection, material: BentMaterial, core: number, iMm4: number): number =>
  material.yieldMPa / (material.eMPa * core) - momentAt(section, material, core) / (material.eMPa * iMm4);

/** Gauss's places and weights between -1 and 1, eight of them. Source: Abramowitz and Stegun, table 25.4 (from memory). */
const GAUSS = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
].flatMap(([x, w]) => [[-(x ?? 0), w ?? 0] as const, [x ?? 0, w ?? 0] as const]);

/** A stretch is halved so often for the sum. */
const PARTS = 4;

/**
 * What stays along a piece whose moment rises evenly from nought to that of a core: the integrals of the curvature left over the moment,
 * and of it times the moment. N/... as they are: (N mm)(1/mm) and (N mm)^2 (1/mm).
 */
export function leftAlong(section: BentSection, material: BentMaterial, core: number): { g0: number; g1: number } {
  const { iMm4 } = plasticSection(section, material);
  const { hi } = inside(section);
  const outer = section.depthMm / 2;
  let g0 = 0;
  let g1 = 0;
  const over = (from: number, to: number): void => {
    for (let p = 0; p < PARTS; p++) {
      const a = from + ((to - from) * p) / PARTS;
      const half = (to - from) / PARTS / 2;
      for (const [x, weight] of GAUSS) {
        const c = a + half + half * x;
        const moment = momentAt(section, material, c);
        const part = weight * half * curvatureLeft(section, material, c, iMm4) * momentSlope(section, material, c);
        g0 += part;
        g1 += part * moment;
      }
    }
  };
  if (core < hi) over(core, hi);
  if (core < outer) over(Math.max(core, hi), outer);
  return { g0, g1 };
}

/** Core at which a measure that grows as the core shrinks reaches what is asked; nought when only a free hinge can. */
export function coreWhere(section: BentSection, asked: number, measure: (core: number) => number): number {
  let low = 0;
  let high = section.depthMm / 2;
  // The least core stands for a full hinge.
  const least = 1e-9 * high;
  if (measure(least) < asked) return 0;
  for (let i = 0; i < 200 && high - low > 1e-14 * section.depthMm; i++) {
    const middle = (low + high) / 2;
    if (measure(Math.max(middle, least)) > asked) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Thinness of a wall. Source: EN 1993-1-1, table 5.2, parts in compression (from memory). */
export interface WallClass {
  slenderness: number;
  epsilon: number;
  cls: 1 | 2 | 3 | 4;
  /** Whether it may be bent past yield, and turned in a hinge. */
  mayBendPastYield: boolean;
  mayTurn: boolean;
}

const CLASS_LIMITS = [33, 38, 42] as const;
const EPSILON_MPA = 235;

/** Class of a tube's face in compression: what is thinner buckles before it turns. */
export function wallClass(faceMm: number, wallMm: number, yieldMPa: number): WallClass {
  const slenderness = (faceMm - 3 * wallMm) / wallMm;
  const epsilon = Math.sqrt(EPSILON_MPA / yieldMPa);
  const place = CLASS_LIMITS.findIndex((limit) => slenderness <= limit * epsilon);
  const cls = place === -1 ? 4 : place === 0 ? 1 : place === 1 ? 2 : 3;
  return { slenderness, epsilon, cls, mayBendPastYield: cls <= 2, mayTurn: cls === 1 };
}

/**
 * Moment that a weld all round a tube bears, N mm: below the tube's own the weld tears before the tube turns.
 * Source: EN 1993-1-8, 4.5.3 with beta 0.8 and gamma 1.25, on the middle line of the wall (from memory).
 */
export function weldRingMoment(
  { widthMm, depthMm, wallMm = 0 }: BentSection,
  throatMm: number,
  ultimateMPa: number,
): { modulusMm3: number; shearMPa: number; momentNmm: number } {
  const [w, h] = [widthMm - wallMm, depthMm - wallMm];
  const modulusMm3 = throatMm * ((h * h) / 3 + w * h);
  const shearMPa = ultimateMPa / (Math.sqrt(3) * 0.8 * 1.25);
  return { modulusMm3, shearMPa, momentNmm: modulusMm3 * shearMPa };
}

/**
 * Force at which a jack's foot dents the face of a tube, or crushes its sides, N.
 * Source: yield-line and bearing formulae for a plate on a hollow section (EN 1993-1-8, table 7.11, from memory).
 */
export function jackPad(
  { faceMm, wallMm, yieldMPa }: { faceMm: number; wallMm: number; yieldMPa: number },
  { padWidthMm, padLengthMm }: { padWidthMm: number; padLengthMm: number },
): { dentForceN: number; sideCrushN: number } {
  const beta = Math.min(0.85, padWidthMm / faceMm);
  const eta = padLengthMm / faceMm;
  return {
    dentForceN: ((yieldMPa * wallMm ** 2) / (1 - beta)) * (2 * eta + 4 * Math.sqrt(1 - beta)),
    sideCrushN: 2 * wallMm * yieldMPa * (padLengthMm + 5 * wallMm),
  };
}
