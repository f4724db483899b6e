import { CORNERS, type Corner, ends, SIDES } from "../frame";
import type { Vec3 } from "../numeric";
import { angleChange, combined, distanceChange, type OutputPoint, type Quantity, twist } from "./outputs";

const UP: Vec3 = [0, 0, 1];

/** What four corners say of a rectangle: in plan its sides, diagonals, angles, skew and tapers; and its twist. Changes, mm. */
export function cornerQuantities(corner: Record<Corner, OutputPoint>): { plan: Quantity[]; twist: Quantity } {
  const span = (name: string, label: string): Quantity => {
    const [p, q] = ends(name);
    return distanceChange(name, label, corner[p], corner[q]);
  };
  const side = Object.fromEntries(SIDES.map((s) => [s, span(s, `side ${s}`)])) as Record<string, Quantity>;
  const [ac, bd] = [span("AC", "diagonal AC"), span("BD", "diagonal BD")];
  const angle = CORNERS.map((c, i) => {
    const before = CORNERS[(i + 3) % 4] as Corner;
    const after = CORNERS[(i + 1) % 4] as Corner;
    return angleChange(`angle ${c}`, `corner ${c}`, corner[c], corner[before], corner[after]);
  });
  const skew = (1000 * Math.PI) / 180 / 4;
  return {
    plan: [
      ...SIDES.map((s) => side[s] as Quantity),
      ac,
      bd,
      combined("square", "AC less BD", "mm", [
        [1, ac],
        [-1, bd],
      ]),
      ...angle,
      combined(
        "shear",
        "out of square",
        "mm/m",
        angle.map((q, i) => [i % 2 === 0 ? skew : -skew, q] as const),
      ),
      combined("taper length", "AB less CD", "mm", [
        [1, side.AB as Quantity],
        [-1, side.CD as Quantity],
      ]),
      combined("taper width", "BC less DA", "mm", [
        [1, side.BC as Quantity],
        [-1, side.DA as Quantity],
      ]),
    ],
    twist: twist(
      "twist",
      "twist",
      CORNERS.map((c) => corner[c]),
      UP,
    ),
  };
}
