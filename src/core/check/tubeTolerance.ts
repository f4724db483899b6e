import { a500Tolerance, en10219Tolerance, type Structure, type StructureMember } from "../frame";
import { formatSmall, type UnitPreference } from "../units";
import { steelTubes } from "./steelTubes";

/** What the tube itself may be off by as it was bought, and what that does to a fit. */
interface TubeFit {
  standard: "EN 10219-2" | "ASTM A500";
  what: string;
  limitMm: number;
  does: string;
}

const FOOT_MM = 304.8;
const INCH_MM = 25.4;

/**
 * Tolerances of a frame's longest tube and what they do to joints and flatness. Source: EN 10219-2 or ASTM A500, from memory;
 * both are about plain steel, and of stainless or aluminium nothing is said.
 * @param units inches take the American standard.
 */
export function tubeFits(structure: Structure, units: UnitPreference): TubeFit[] {
  const tube = steelTubes(structure).reduce<StructureMember | null>(
    (longest, m) => (longest && longest.longMm >= m.longMm ? longest : m),
    null,
  );
  if (!tube) return [];
  const { widthMm, heightMm, wallMm } = tube.properties;
  const large = Math.max(widthMm, heightMm);
  const long = tube.longMm;
  const say = (mm: number): string => formatSmall(mm, units, { decimals: 1 });
  const american = units !== "mm";
  const a = a500Tolerance(large / INCH_MM, long / FOOT_MM);
  const e = en10219Tolerance(large, wallMm, long);
  const side = american ? a.sideIn * INCH_MM : e.sideMm;
  const straight = american ? a.straightnessIn * INCH_MM : e.straightnessMm;
  const twist = american ? a.twistIn * INCH_MM : e.twistMm;
  const squarenessDeg = american ? 2 : e.squarenessDeg;
  const lean = heightMm * Math.tan((squarenessDeg * Math.PI) / 180);
  const standard = american ? "ASTM A500" : "EN 10219-2";
  return [
    {
      standard,
      what: "outside size",
      limitMm: side,
      does: `two tubes side by side may differ by ${say(2 * side)}: a flush step of that on one face, or ${say(side)} on both`,
    },
    {
      standard,
      what: `straightness over ${formatSmall(long, units, { decimals: 0 })}`,
      limitMm: straight,
      does: `a bow of ${say(straight)} is good tube: turn crowns the same way, outward or down, and measure sizes at the ends`,
    },
    {
      standard,
      what: `twist over ${formatSmall(long, units, { decimals: 0 })}`,
      limitMm: twist,
      does: `the two ends of a long side may stand ${say(twist)} over its ${say(large)} face out of line: set the joint, not the tube, level`,
    },
    {
      standard,
      what: `squareness of the section, ${squarenessDeg}°`,
      limitMm: lean,
      does: `faces lean up to ${say(lean)} over the depth: measure always on the same edge`,
    },
  ];
}
