import { MATERIALS, type ResolvedFrame } from "../frame";
import type { Estimate } from "../units";
import { endLengths, mitre } from "./ends";

/** One line of the cut list. Nominal lengths and the allowance are stated apart; `cut...` is their sum. */
export interface CutPiece {
  /** Members that this line makes, for example `AB` and `CD`. */
  members: string[];
  quantity: number;
  longPointMm: number;
  shortPointMm: number;
  centreMm: number;
  /** Added to every length so that the cold frame is on nominal. */
  allowanceMm: Estimate;
  cutLongPointMm: number;
  cutShortPointMm: number;
  /** Saw setting from a square cut at each end, deg. */
  sawDeg: [number, number];
  /** How the two cuts lie to each other; `other` when they are copes, compound or pointed. */
  cuts: "opposed" | "parallel" | "square" | "one end" | "other";
  /** In words: what to set and which way. */
  ends: string;
  massKg: number;
}

/** What the allowance is per direction of the frame, mm over the whole side. */
export interface CutAllowance {
  lengthMm: Estimate;
  widthMm: Estimate;
}

/**
 * Cut list of a mitred rectangle with square-cut cross members.
 * @param frame the resolved frame. @param allowance predicted loss per side, mm; cross members take the allowance of the
 * sides that they run beside, so that they fit the frame as it is set up.
 */
export function cutList(frame: ResolvedFrame, allowance: CutAllowance): CutPiece[] {
  const width = frame.section.faceMm;
  const perMm = frame.properties.areaMm2 * MATERIALS[frame.material].densityKgPerMm3;
  const corner = mitre(90, width, width);
  if (!corner.ok) throw new Error(corner.message);
  const saw = corner.value.sawFromSquareDeg[0];
  const pieces: CutPiece[] = [];
  const sides = (members: string[], outer: number, extra: Estimate) => {
    const nominal = endLengths(outer, width, saw, saw);
    const cut = endLengths(outer + extra.value, width, saw, saw);
    pieces.push({
      members,
      quantity: members.length,
      longPointMm: nominal.outerMm,
      shortPointMm: nominal.innerMm,
      centreMm: nominal.centreMm,
      allowanceMm: extra,
      cutLongPointMm: cut.outerMm,
      cutShortPointMm: cut.innerMm,
      sawDeg: [saw, saw],
      cuts: "opposed",
      ends: `${saw}° both ends, opposed, long edge outside`,
      massKg: cut.centreMm * perMm,
    });
  };
  if (frame.lengthMm === frame.widthMm) sides(["AB", "BC", "CD", "DA"], frame.lengthMm, allowance.lengthMm);
  else {
    sides(["AB", "CD"], frame.lengthMm, allowance.lengthMm);
    sides(["BC", "DA"], frame.widthMm, allowance.widthMm);
  }
  const cross = frame.members.filter((m) => m.kind === "cross");
  const [first] = cross;
  if (first) {
    const runsAcross = first.axis[0].x === first.axis[1].x;
    const extra = runsAcross ? allowance.widthMm : allowance.lengthMm;
    pieces.push({
      members: cross.map((m) => m.name),
      quantity: cross.length,
      longPointMm: first.centreMm,
      shortPointMm: first.centreMm,
      centreMm: first.centreMm,
      allowanceMm: extra,
      cutLongPointMm: first.centreMm + extra.value,
      cutShortPointMm: first.centreMm + extra.value,
      sawDeg: [0, 0],
      cuts: "square",
      ends: "square both ends (0°)",
      massKg: (first.centreMm + extra.value) * perMm,
    });
  }
  return pieces;
}
