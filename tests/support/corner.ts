import type { BeamSection, MechanicalFrame } from "@/core/mechanics";

/** 50 x 50 x 3 with sharp corners. */
export const section: BeamSection = {
  shape: "tube",
  widthMm: 50,
  heightMm: 50,
  wallMm: 3,
  areaMm2: 564,
  iyMm4: 208_492,
  izMm4: 208_492,
  jMm4: 311_469,
};
/** A mitred corner with a branch on one of its legs: nothing wrong with it. */
export const good: MechanicalFrame = {
  material: { eMPa: 210_000, nu: 0.3, yieldMPa: 355, alphaPerK: 12e-6, heatJPerMm3K: 3.6e-3 },
  points: { P: [0, 0, 0], M: [300, 0, 0], A: [600, 0, 0], B: [0, 500, 0], T: [300, 450, 0] },
  members: [
    { id: "LA", section, points: ["P", "M", "A"] },
    { id: "LB", section, points: ["P", "B"] },
    { id: "TT", section, points: ["M", "T"] },
  ],
  joints: [
    { id: "J", kind: "mitre", a: "LA", b: "LB", point: "P" },
    { id: "K", kind: "tee", a: "LA", b: "TT", point: "M" },
  ],
  supports: [],
};
type Points = Record<string, readonly [number, number, number]>;
/** The same with some points elsewhere. */
export const points = (change: Points): Partial<MechanicalFrame> => ({ points: { ...good.points, ...change } });
