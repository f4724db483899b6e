import { bareUnit, type UnitPreference } from "../units";

/** A hollow section as it stands in the frame, mm. */
interface SectionSize {
  /** Width seen in plan, square to the member. */
  faceMm: number;
  /** Height, up from the bed. */
  depthMm: number;
  wallMm: number;
}

/** Properties of a hollow section. */
interface SectionProperties {
  areaMm2: number;
  /** Second moment for bending out of the frame's plane (about the axis that lies in the plane). */
  iOutOfPlaneMm4: number;
  /** Second moment for bending in the frame's plane. */
  iInPlaneMm4: number;
  /** Torsion constant. */
  jMm4: number;
  outsideRadiusMm: number;
}

/** One profile of the table. `largeMm` by `smallMm` by wall; how it stands is chosen with the frame. */
interface Profile {
  name: string;
  largeMm: number;
  smallMm: number;
  wallMm: number;
}

const profile = (largeMm: number, smallMm: number, wallMm: number, name?: string): Profile => ({
  name: name ?? `${largeMm}×${smallMm}×${wallMm}`,
  largeMm,
  smallMm,
  wallMm,
});
const IN = 25.4;
const inchProfile = (name: string, large: number, small: number, wallMm: number): Profile =>
  profile(large * IN, small * IN, wallMm, name);

/**
 * Common stock. Metric sizes: series of EN 10219-2 (cold formed). Inch sizes: series of ASTM A500 with the nominal wall.
 * Both from memory; a size that is missing can be typed.
 */
export const PROFILES: readonly Profile[] = [
  profile(20, 20, 2),
  profile(25, 25, 2),
  profile(30, 30, 2),
  profile(30, 30, 3),
  profile(40, 20, 2),
  profile(40, 40, 2),
  profile(40, 40, 3),
  profile(40, 40, 4),
  profile(50, 30, 2),
  profile(50, 30, 3),
  profile(50, 50, 3),
  profile(50, 50, 4),
  profile(50, 50, 5),
  profile(60, 40, 3),
  profile(60, 40, 4),
  profile(60, 60, 3),
  profile(60, 60, 4),
  profile(80, 40, 3),
  profile(80, 40, 4),
  profile(80, 80, 4),
  profile(100, 50, 4),
  profile(100, 100, 4),
  inchProfile("1×1×1/8 in", 1, 1, 3.175),
  inchProfile("1 1/2×1 1/2×1/8 in", 1.5, 1.5, 3.175),
  inchProfile("1 1/2×1 1/2×3/16 in", 1.5, 1.5, 4.7625),
  inchProfile("2×1×1/8 in", 2, 1, 3.175),
  inchProfile("2×2×1/8 in", 2, 2, 3.175),
  inchProfile("2×2×3/16 in", 2, 2, 4.7625),
  inchProfile("3×2×1/8 in", 3, 2, 3.175),
  inchProfile("4×2×3/16 in", 4, 2, 4.7625),
];

/** Common stock, that of the unit that somebody works in first. */
export const profilesFor = (units: UnitPreference): Profile[] => {
  const isOther = ({ name }: Profile): boolean => name.endsWith(" in") !== (bareUnit(units) === "in");
  return [...PROFILES].sort((a, b) => Number(isOther(a)) - Number(isOther(b)));
};

/** Outside and inside corner radius that EN 10219-2 uses for its section tables, as multiples of the wall. */
function cornerRadii(wallMm: number): { outside: number; inside: number } {
  if (wallMm <= 6) return { outside: 2 * wallMm, inside: wallMm };
  if (wallMm <= 10) return { outside: 2.5 * wallMm, inside: 1.5 * wallMm };
  return { outside: 3 * wallMm, inside: 2 * wallMm };
}

/** Second moment of a rounded rectangle, `width` along the bending axis, `height` across it, corner radius `r`. */
function roundedRectangleI(width: number, height: number, r: number): number {
  const full = (width * height ** 3) / 12;
  // The four spandrels between a square corner and its quarter circle.
  const area = (1 - Math.PI / 4) * r * r;
  const own = (1 / 3 - Math.PI / 16 - 1 / (3 * (12 - 3 * Math.PI))) * r ** 4;
  const fromEdge = ((10 - 3 * Math.PI) / (12 - 3 * Math.PI)) * r;
  return full - 4 * (own + area * (height / 2 - fromEdge) ** 2);
}

/**
 * Area, second moments and torsion constant of a square or rectangular hollow section with rounded corners.
 * Source: EN 10219-2, annex B (formulae from memory, checked in the tests against its tables).
 * @param size outside sizes and wall in mm; the wall must be under half of the smaller side.
 */
export function sectionProperties(size: SectionSize): SectionProperties {
  const { faceMm: b, depthMm: h, wallMm: t } = size;
  const { outside, inside } = cornerRadii(t);
  // A thick wall on a small tube leaves no room for the standard radius.
  const ro = Math.min(outside, b / 2, h / 2);
  const ri = Math.max(0, Math.min(inside, (b - 2 * t) / 2, (h - 2 * t) / 2));
  const areaMm2 = 2 * t * (b + h - 2 * t) - (4 - Math.PI) * (ro * ro - ri * ri);
  const i = (width: number, height: number) =>
    roundedRectangleI(width, height, ro) - roundedRectangleI(width - 2 * t, height - 2 * t, ri);
  const rc = (ro + ri) / 2;
  const perimeter = 2 * (b - t + (h - t)) - 2 * rc * (4 - Math.PI);
  const enclosed = (b - t) * (h - t) - rc * rc * (4 - Math.PI);
  const k = (2 * enclosed * t) / perimeter;
  return {
    areaMm2,
    iOutOfPlaneMm4: i(b, h),
    iInPlaneMm4: i(h, b),
    jMm4: (t ** 3 * perimeter) / 3 + 2 * k * enclosed,
    outsideRadiusMm: ro,
  };
}
