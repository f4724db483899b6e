import { CORNERS, type Corner, ends, SIDES, type Span } from "../geometry";
import type { Vec3 } from "../numeric";
import { angleChange, combined, distanceChange, type Outcome, twist } from "./outcomes";
import type { OutputPoint } from "./outputs";

/** What four corners say of a quadrilateral: in plan its sides, diagonals, angles, skew and tapers; and its twist. Changes, mm. */
export function cornerOutcomes(corner: Record<Corner, OutputPoint>, up: Vec3): { plan: Outcome[]; twist: Outcome } {
  const span = (name: Span): Outcome => {
    const [p, q] = ends(name);
    return distanceChange({ kind: "span", span: name }, corner[p], corner[q]);
  };
  const side = Object.fromEntries(SIDES.map((s) => [s, span(s)])) as Record<string, Outcome>;
  const [ac, bd] = [span("AC"), span("BD")];
  const angle = CORNERS.map((c, i) => {
    const before = CORNERS[(i + 3) % 4];
    const after = CORNERS[(i + 1) % 4];
    return angleChange({ kind: "angle", corner: c }, corner[c], corner[before], corner[after]);
  });
  const skew = (1000 * Math.PI) / 180 / 4;
  return {
    plan: [
      ...SIDES.map((s) => side[s]),
      ac,
      bd,
      combined({ kind: "square" }, "mm", [
        [1, ac],
        [-1, bd],
      ]),
      ...angle,
      combined(
        { kind: "shear" },
        "mm/m",
        angle.map((q, i) => [i % 2 === 0 ? skew : -skew, q] as const),
      ),
      combined({ kind: "taper length" }, "mm", [
        [1, side.AB],
        [-1, side.CD],
      ]),
      combined({ kind: "taper width" }, "mm", [
        [1, side.BC],
        [-1, side.DA],
      ]),
    ],
    twist: twist(
      { kind: "twist" },
      CORNERS.map((c) => corner[c]),
      up,
    ),
  };
}
