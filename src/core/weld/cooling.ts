import { MATERIALS, type MaterialName, type Structure, type StructureJoint } from "../frame";

/** Heat that a bead or tack put into a joint: when it ended, seconds from whatever all count from, and how much. */
export interface HeatPulse {
  atS: number;
  energyJ: number;
}

/** A joint as rods that meet where the heat goes in. */
export interface CoolingJoint {
  /** Section of each rod, mm2, and that over its outer perimeter, mm: the wall, for tube. */
  areaMm2: number;
  depthMm: number;
  /** How many rods the heat runs away in. */
  arms: number;
  /** Heat by volume of the warm metal, J/(mm3 K), and conductivity, W/(mm K). */
  heatJPerMm3K: number;
  conductsWPerMmK: number;
}

/** Warm metal takes more heat than cold: mean up to some hundred degrees over that at room temperature (own judgement). */
const WARM = 1.1;
/** Loss from a surface in a shop, by still air and radiation at an emissivity of 0.8, W/(mm2 K) (from memory). */
export const LOSS_W_PER_MM2_K = 15e-6;
/** The air of a shop, and what bare metal may have that is touched for a few seconds (ISO 13732-1, rounded, from memory), C. */
const SHOP_C = 20;
const TOUCH_C = 50;
/** Warmer than the air by this at which metal can be touched. */
export const TOUCH_RISE_K = TOUCH_C - SHOP_C;
/** Warmer than the air by this at which a frame counts as cold: a metre of steel reads long by less than 0.04 mm. */
export const COLD_RISE_K = 3;
/**
 * How hot a joint may be when the next bead goes on, C (common practice, from memory: austenitic stainless 150, heat-treated and
 * work-hardened aluminium 120, mild steel 250). Hotter, stainless loses its resistance and aluminium its strength; of mild steel it is for
 * thin walls that would burn through.
 */
const INTERPASS_C = { steel: 250, stainless: 150, aluminium: 120 } as const;

/** Warmer than the air by this, a joint waits for its next bead, K. */
export const interpassRiseK = (material: MaterialName): number =>
  (material.startsWith("stainless")
    ? INTERPASS_C.stainless
    : material.startsWith("aluminium")
      ? INTERPASS_C.aluminium
      : INTERPASS_C.steel) - SHOP_C;

/** Nobody waits longer; the answer is no more than that it takes hours, s. */
const LONGEST_S = 6 * 3600;

const ARMS: Record<StructureJoint["kind"], number> = { mitre: 2, butt: 2, tee: 3, lap: 4 };

/** How a joint of a structure cools: the mean of the two members that meet there. */
export function coolingJoint(structure: Structure, joint: StructureJoint): CoolingJoint {
  const members = structure.members.filter((m) => m.id === joint.a || m.id === joint.b);
  const mean = (of: (m: (typeof members)[number]) => number): number =>
    members.reduce((s, m) => s + of(m), 0) / Math.max(1, members.length);
  const material = MATERIALS[members[0]?.material ?? "mild steel"];
  return {
    areaMm2: mean((m) => m.properties.areaMm2),
    depthMm: mean((m) => (m.properties.areaMm2 * m.longMm) / m.surfaceMm2),
    arms: ARMS[joint.kind],
    heatJPerMm3K: WARM * material.heatJPerMm3K,
    conductsWPerMmK: material.conductsWPerMK / 1000,
  };
}

/**
 * How much warmer than the air a joint is, K: heat that spreads from a point into long rods which lose it from their surface, the sum
 * over what was welded. Source: Carslaw and Jaeger, Conduction of Heat in Solids, instantaneous plane source in a rod with loss
 * (from memory). Soon after a bead it is far too hot, for the bead is no plane; minutes later it holds.
 * @param atS when; what is welded later does not count.
 */
export function riseK(joint: CoolingJoint, pulses: readonly HeatPulse[], atS: number): number {
  const { areaMm2, depthMm, arms, heatJPerMm3K: rc, conductsWPerMmK: k } = joint;
  const a = k / rc;
  const b = LOSS_W_PER_MM2_K / (rc * depthMm);
  let sum = 0;
  for (const { atS: from, energyJ } of pulses) {
    const t = atS - from;
    if (t < 0) continue;
    const spread = Math.sqrt(4 * Math.PI * a * Math.max(t, 1));
    sum += (energyJ / (rc * areaMm2 * (arms / 2) * spread)) * Math.exp(-b * t);
  }
  return sum;
}

const HALVINGS = 40;

/**
 * How long from a moment until a joint is no warmer than so much over the air, s; nought when it is so already.
 * @param fromS the moment, after all pulses that count.
 */
export function secondsUntil(joint: CoolingJoint, pulses: readonly HeatPulse[], fromS: number, rise: number): number {
  const done = pulses.filter((p) => p.atS <= fromS);
  if (riseK(joint, done, fromS) <= rise) return 0;
  let low = 0;
  let high = LONGEST_S;
  if (riseK(joint, done, fromS + high) > rise) return high;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (riseK(joint, done, fromS + middle) > rise) low = middle;
    else high = middle;
  }
  return high;
}
