import {
  type BentMaterial,
  type BentSection,
  coreWhere,
  curvatureLeft,
  leftAlong,
  momentAt,
  plasticSection,
} from "./plasticSection";

/** Poisson's ratio by which shear follows from Young's modulus. */
const NU = 0.3;
const shearMPa = ({ eMPa }: BentMaterial): number => eMPa / (2 * (1 + NU));

/** A push past yield: how hard, how far, and what comes back. */
export interface Push {
  forceN: number;
  firstYieldForceN: number;
  momentNmm: number;
  momentOverYield: number;
  /** How far it is pushed beyond where it lay, and how much of that comes back, mm. */
  pushMm: number;
  springbackMm: number;
  /** What is turned in all, and by a hinge that turns without more force, rad. */
  kinkRad: number;
  hingeFreeRad: number;
  /** Strain of the outer fibre; null in a free hinge. */
  outerStrain: number | null;
}

const strainAt = (section: BentSection, { eMPa, yieldMPa }: BentMaterial, core: number): number | null =>
  core > 0 ? (yieldMPa * (section.depthMm / 2)) / (eMPa * core) : null;

/** Curvature past yield and what is left of it. @param over curvature over that at first yield, 1 and more. */
export function momentCurvature(
  section: BentSection,
  material: BentMaterial,
  over: number,
): { momentNmm: number; momentOverYield: number; leftPerMm: number; springbackShare: number; outerStrain: number } {
  const s = plasticSection(section, material);
  const core = section.depthMm / 2 / over;
  const momentNmm = momentAt(section, material, core);
  return {
    momentNmm,
    momentOverYield: momentNmm / s.yieldMomentNmm,
    leftPerMm: curvatureLeft(section, material, core, s.iMm4),
    springbackShare: momentNmm / (material.eMPa * s.iMm4) / (over * s.yieldCurvaturePerMm),
    outerStrain: (over * material.yieldMPa) / material.eMPa,
  };
}

/** Takes an even bow out by an equal moment all along. */
export function evenPress(section: BentSection, material: BentMaterial, removeMm: number, lengthMm: number) {
  const s = plasticSection(section, material);
  const asked = (8 * removeMm) / lengthMm ** 2;
  const core = coreWhere(section, asked, (c) => curvatureLeft(section, material, c, s.iMm4));
  const momentNmm = momentAt(section, material, core);
  const springbackMm = ((momentNmm / (material.eMPa * s.iMm4)) * lengthMm ** 2) / 8;
  return {
    momentNmm,
    momentOverPlastic: momentNmm / s.plasticMomentNmm,
    underLoadMm: springbackMm + removeMm,
    springbackMm,
    outerStrain: strainAt(section, material, core),
  };
}

/** Core and moment at which `stays` reaches what is asked, and what a free hinge must add. */
function pushed(section: BentSection, material: BentMaterial, asked: number, stays: (m: number, g: Left) => number) {
  const at = (core: number): number => stays(momentAt(section, material, core), leftAlong(section, material, core));
  const core = coreWhere(section, asked, at);
  const momentNmm = momentAt(section, material, core);
  const left = leftAlong(section, material, core);
  return { core, momentNmm, left, short: core > 0 ? 0 : asked - stays(momentNmm, left) };
}
type Left = ReturnType<typeof leftAlong>;

/**
 * A jack in the middle of a span, to take so much bow out of the whole member: moment linear to both supports.
 * Source: virtual work with the curvature left (strength of materials, from memory).
 */
export function pressMidspan(
  section: BentSection,
  material: BentMaterial,
  { spanMm, removeMm, lengthMm }: { spanMm: number; removeMm: number; lengthMm: number },
): Push & { travelAtFirstYieldMm: number; leftAtQuartersMm: number } {
  const s = plasticSection(section, material);
  const bow = (m: number, { g0, g1 }: Left): number =>
    (spanMm ** 2 * g1) / (4 * m * m) + (((spanMm * g0) / m) * (lengthMm - spanMm)) / 4;
  const { core, momentNmm: m, left, short } = pushed(section, material, removeMm, bow);
  const hingeFreeRad = (short * 4) / lengthMm;
  const forceN = (4 * m) / spanMm;
  const flex = spanMm ** 3 / (48 * material.eMPa * s.iMm4);
  const firstYieldForceN = (4 * s.yieldMomentNmm) / spanMm;
  return {
    forceN,
    firstYieldForceN,
    momentNmm: m,
    momentOverYield: m / s.yieldMomentNmm,
    springbackMm: forceN * flex,
    pushMm: forceN * flex + (spanMm ** 2 * left.g1) / (4 * m * m) + (hingeFreeRad * spanMm) / 4,
    kinkRad: (spanMm * left.g0) / m + hingeFreeRad,
    hingeFreeRad,
    outerStrain: strainAt(section, material, core),
    travelAtFirstYieldMm: firstYieldForceN * flex,
    // A broken line of one kink against an even bow.
    leftAtQuartersMm: removeMm / 4,
  };
}

/** A push at the free end of an arm that stands on a stiff joint, so that its tip stays moved by so much. */
export function pressOverhang(
  section: BentSection,
  material: BentMaterial,
  { armMm, moveMm }: { armMm: number; moveMm: number },
): Push {
  const s = plasticSection(section, material);
  const {
    core,
    momentNmm: m,
    left,
    short,
  } = pushed(section, material, moveMm, (moment, { g1 }) => (armMm ** 2 * g1) / moment ** 2);
  const hingeFreeRad = short / armMm;
  const forceN = m / armMm;
  const springbackMm = (forceN * armMm ** 3) / (3 * material.eMPa * s.iMm4);
  return {
    forceN,
    firstYieldForceN: s.yieldMomentNmm / armMm,
    momentNmm: m,
    momentOverYield: m / s.yieldMomentNmm,
    pushMm: springbackMm + moveMm,
    springbackMm,
    kinkRad: (armMm * left.g0) / m + hingeFreeRad,
    hingeFreeRad,
    outerStrain: strainAt(section, material, core),
  };
}

/** Two pairs of sides, each of one section, bent in their plane. */
export interface PlainRectangle {
  lengthMm: number;
  heightMm: number;
  rail: BentSection;
  post: BentSection;
}

/**
 * Rights a plain rectangle by pulling its long diagonal in (or pushing the short one out): corners bend past yield, moments run from
 * corner to corner. Source: slope deflection of a sway frame, with the curvature left (from memory).
 * @param changeMm by which AC less BD is to change.
 */
export function rackByDiagonal(
  { lengthMm: l, heightMm: h, rail, post }: PlainRectangle,
  material: BentMaterial,
  changeMm: number,
) {
  const diagonal = Math.hypot(l, h);
  const [r, p] = [plasticSection(rail, material), plasticSection(post, material)];
  const weak = r.plasticMomentNmm <= p.plasticMomentNmm ? rail : post;
  const other = weak === rail ? post : rail;
  const of = weak === rail ? { weak: r, other: p } : { weak: p, other: r };
  const [weakMm, otherMm] = weak === rail ? [l, h] : [h, l];
  const asked = (changeMm * diagonal) / (2 * l * h);
  const leftOf = (moment: number): number => {
    if (moment <= of.other.yieldMomentNmm) return 0;
    const core = coreWhere(other, moment, (c) => momentAt(other, material, c));
    return leftAlong(other, material, core).g1;
  };
  const { momentNmm: m, short } = pushed(
    weak,
    material,
    asked,
    (moment, { g1 }) => (weakMm * g1 + otherMm * leftOf(moment)) / (2 * moment ** 2),
  );
  const elastic = (moment: number): number =>
    (moment / 6) * (l / (material.eMPa * r.iMm4) + h / (material.eMPa * p.iMm4));
  const springbackRad = elastic(m);
  const toDiagonal = (l * h) / diagonal;
  const first = Math.min(r.yieldMomentNmm, p.yieldMomentNmm);
  const forceOf = (moment: number): number => (4 * moment * diagonal) / (l * h);
  return {
    forceN: forceOf(m),
    cornerMomentNmm: m,
    momentOverYield: m / of.weak.yieldMomentNmm,
    rackingRad: asked,
    springbackRad,
    pullMm: (asked + springbackRad) * toDiagonal,
    springbackMm: springbackRad * toDiagonal,
    hingeFreeRad: short,
    firstYieldForceN: forceOf(first),
    elasticAtFirstYieldMm: elastic(first) * toDiagonal,
  };
}

/** Takes twist out of one tube by turning its end. Source: Bredt, all of the wall yields at once (from memory). */
export function twistTube(section: BentSection, material: BentMaterial, lengthMm: number, keepRad: number) {
  const { jMm4, plasticTorqueNmm } = plasticSection(section, material);
  const torque = plasticTorqueNmm ?? 0;
  const springbackRad = (torque * lengthMm) / (shearMPa(material) * (jMm4 ?? Number.NaN));
  return {
    plasticTorqueNmm: torque,
    springbackRad,
    twistToRad: springbackRad + keepRad,
    leverForceAt1mN: torque / 1000,
  };
}

/** Moments at the ends of a plain rectangle's sides, and the force at each corner, per mm of twist of its corners. */
function twistStiffness({ lengthMm: l, heightMm: h, rail, post }: PlainRectangle, material: BentMaterial) {
  const [r, p] = [plasticSection(rail, material), plasticSection(post, material)];
  const g = shearMPa(material);
  const perMm = (own: typeof r, length: number, across: typeof r, width: number): number => {
    const bending = (6 * material.eMPa * own.iMm4) / length;
    const turning = (2 * g * (across.jMm4 ?? 0)) / width;
    return ((1 / (2 * length)) * (bending * turning)) / (bending + turning);
  };
  const railNmm = perMm(r, l, p, h);
  const postNmm = perMm(p, h, r, l);
  return { railNmm, postNmm, cornerNPerMm: (2 * railNmm) / l + (2 * postNmm) / h, r, p };
}

/**
 * Takes twist out of a plain rectangle by forcing its corners: each side bends, and twists the other. What bears both at once is a lower
 * bound (own judgement): (M/Mp)^2 + (T/Tp)^2 = 1.
 */
export function twistFrame(frame: PlainRectangle, material: BentMaterial, removeMm: number) {
  const { railNmm, postNmm, cornerNPerMm, r, p } = twistStiffness(frame, material);
  const limit = (bends: number, own: typeof r, twists: number): number =>
    1 / Math.hypot(bends / own.plasticMomentNmm, twists / (own.plasticTorqueNmm ?? Number.NaN));
  const springbackMm = Math.min(limit(railNmm, r, postNmm), limit(postNmm, p, railNmm));
  return {
    cornerNPerMm,
    railEndNmmPerMm: railNmm,
    postEndNmmPerMm: postNmm,
    springbackMm,
    pushMm: springbackMm + removeMm,
    cornerForceN: cornerNPerMm * springbackMm,
  };
}

/** A wedge under one foot of a frame on four: mostly tilts it; a stiff, light frame hangs two feet in the air. */
export function footWedge(frame: PlainRectangle, material: BentMaterial, weightN: number, wedgeMm: number) {
  const { cornerNPerMm } = twistStiffness(frame, material);
  const largestMm = weightN / 4 / cornerNPerMm;
  return {
    riseAtCentreMm: wedgeMm / 4,
    tiltAlongMmPerM: (wedgeMm / 2 / frame.lengthMm) * 1000,
    tiltAcrossMmPerM: (wedgeMm / 2 / frame.heightMm) * 1000,
    twistForcedMm: Math.min(wedgeMm, largestMm),
    loadMovedN: Math.min(cornerNPerMm * wedgeMm, weightN / 4),
    allTouch: wedgeMm <= largestMm,
    largestAllTouchMm: largestMm,
  };
}

/** How many presses, evenly spread, bring an even bow within what is allowed. A broken line of n kinks leaves bow/(n+1)^2. */
export function pressesToStraighten(bowMm: number, allowedMm: number) {
  const presses = Math.max(0, Math.ceil(Math.sqrt(bowMm / allowedMm) - 1 - 1e-9));
  return {
    presses,
    leftMm: bowMm / (presses + 1) ** 2,
    kinkTimesLengthMm: presses > 0 ? (8 * bowMm) / (presses + 1) : 0,
  };
}
