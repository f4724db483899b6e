import { CORNERS, type Corner, MATERIALS, type ResolvedFrame, SIDES, type Side } from "../frame";
import type { Vec2 } from "../numeric";
import { type Estimate, plainMm } from "../units";
import { estimate, type Part } from "./band";
import { FACTORS, type FactorName } from "./constants";
import { heatJPerMm } from "./heat";
import type { Prediction, Predictor } from "./prediction";
import type { Weld } from "./weldSchema";

/** Heat share that reaches the chord of a tee: 2 tc / (tb + 2 tc); equal walls here. */
const CHORD_SHARE = 2 / 3;
/** Correction of chord shrinkage across and along the chord (fitted on finite elements, see the model notes). */
const CHORD = { across: 0.93, along: 0.78 } as const;

/**
 * Loss by welding from the closed-form transverse shrinkage: each bead closes its joint by mu alpha Q / (rho c t).
 * Order, clamps and the stiffness of the half-welded ring are not in it; the stepwise simulation takes its place behind
 * the same interface.
 */
export const predictClosedForm: Predictor = (frame: ResolvedFrame, weld: Weld): Prediction => {
  const material = MATERIALS[frame.material];
  const strain = material.alphaPerK / material.heatJPerMm3K;
  const { faceMm, depthMm, wallMm } = frame.section;
  const heat = heatJPerMm(weld);
  const closingMm = (FACTORS.transverse.value * strain * heat) / wallMm;
  const always: FactorName[] = frame.material === "mild steel" ? [] : ["otherMaterial"];

  // A mitre closes square to its cut; each of the two sides takes closing / sqrt(2) of it at that end.
  const mitreEnd: Part = {
    mm: (FACTORS.mitreShare.value * closingMm) / Math.SQRT2,
    factors: ["transverse", "mitreShare", ...always],
    beads: 4,
  };
  // Fillets of a tee shrink the member that runs through: contracted volume over its area.
  const perVolume = (strain * CHORD_SHARE * heat) / frame.properties.areaMm2;
  const teeParts: Part[] = [
    {
      mm: 2 * depthMm * perVolume * FACTORS.transverse.value * CHORD.across,
      factors: ["transverse", ...always],
      beads: 2,
    },
    {
      mm: 2 * faceMm * perVolume * FACTORS.longitudinal.value * CHORD.along,
      factors: ["longitudinal", ...always],
      beads: 2,
    },
  ];
  const sidesMm = Object.fromEntries(
    SIDES.map((side) => {
      const tees = frame.joints.filter((j) => j.kind === "tee" && j.members[1] === side).length;
      return [side, estimate([mitreEnd, mitreEnd, ...Array.from({ length: tees }, () => teeParts).flat()])];
    }),
  ) as Record<Side, Estimate>;
  const pull = estimate(
    [0, 1].map(() => ({
      mm: FACTORS.filletClosing.value * closingMm,
      factors: ["transverse", "filletClosing", ...always],
      beads: 4,
    })),
  );
  const half = (a: Side, b: Side): number => (sidesMm[a].value + sidesMm[b].value) / 4;
  const inward: Record<Corner, [number, number]> = { A: [1, 1], B: [-1, 1], C: [-1, -1], D: [1, -1] };
  const cornerMovesMm = Object.fromEntries(
    CORNERS.map((c): [Corner, Vec2] => [c, { x: inward[c][0] * half("AB", "CD"), y: inward[c][1] * half("BC", "DA") }]),
  ) as Record<Corner, Vec2>;
  return {
    method: "closed form",
    heatJPerMm: heat,
    closingMm,
    sidesMm,
    crossPullMm: frame.members.filter((m) => m.kind === "cross").map((m) => ({ member: m.name, pullMm: pull })),
    cornerMovesMm,
    reasons: [
      `${Math.round(heat)} J/mm on a wall of ${plainMm(wallMm)} closes each fully beaded mitre by about ${closingMm.toFixed(2)} mm, square to its cut.`,
      "Bands hold about nine frames in ten. They are wide because no coupon of this shop has been measured.",
      "The order of welding, clamps and heat build-up are not in this figure.",
      ...(material.caution ? [material.caution] : []),
    ],
  };
};
