import { CORNERS, type Corner, type ResolvedFrame, SIDES } from "../frame";
import type { MechanicalModel } from "../mechanics";
import type { Vec3 } from "../numeric";
import { cornerQuantities } from "./cornerQuantities";
import { bow, distanceChange, flatnessOf, type OutputPoint, type Outputs, outputsOf, type Quantity } from "./outputs";

const UP: Vec3 = [0, 0, 1];

/** Outside corners as a tape takes them, and every member along its axis. */
export const frameOutputs =
  (frame: ResolvedFrame) =>
  (model: MechanicalModel): Outputs =>
    outputsOf(
      model,
      CORNERS.map((c) => ({ point: c, at: [frame.corners[c].x, frame.corners[c].y, 0] })),
    );

/** Points of a side at which flatness is asked about, besides the corners: enough for its shape, few for the work. */
const FLAT_POINTS = 5;

/** Points of a member that are nodes between its ends. */
const nodesOf = (along: readonly OutputPoint[]): OutputPoint[] => along.filter((_, i) => i % 2 === 0).slice(1, -1);

/** At most so many of a list, evenly. */
function spread(list: readonly OutputPoint[]): OutputPoint[] {
  if (list.length <= FLAT_POINTS) return [...list];
  return Array.from(
    { length: FLAT_POINTS },
    (_, i) => list[Math.round((i * (list.length - 1)) / (FLAT_POINTS - 1))] as OutputPoint,
  );
}

/** What is reported of a rectangle: sides, diagonals, angles, skew, tapers, bows, pulls, twist, flatness. Changes, mm. */
export const frameQuantities =
  (frame: ResolvedFrame) =>
  (model: MechanicalModel, outputs: Outputs): Quantity[] => {
    const corner = Object.fromEntries(
      CORNERS.map((c) => [c, outputs.points.find((p) => p.member === null && p.id === c) as OutputPoint]),
    ) as Record<Corner, OutputPoint>;
    const shape = cornerQuantities(corner);
    const members = [...model.members.values()];
    const along = (id: string): OutputPoint[] => outputs.points.filter((p) => p.member === id);
    const centre = { x: frame.lengthMm / 2, y: frame.widthMm / 2 };
    const outward = (id: string): Vec3 => {
      const at = along(id)[0]?.at ?? [0, 0, 0];
      const m = model.members.get(id)?.axes[0] ?? [1, 0, 0];
      const across: Vec3 = [-m[1], m[0], 0];
      // Sides: positive is outward. Cross members: positive is away from corner A.
      const sign = across[0] * (at[0] - centre.x) + across[1] * (at[1] - centre.y);
      const cross = frame.members.find((x) => x.name === id)?.kind === "cross";
      return (cross ? across[0] + across[1] < 0 : sign < 0) ? [-across[0], -across[1], 0] : across;
    };
    const node = (id: string, point: string): OutputPoint =>
      outputs.points.find((p) => p.id === `${id}/${point}`) as OutputPoint;
    const pulls = frame.members
      .filter((m) => m.kind === "cross")
      .flatMap((m) => {
        const [a, b] = frame.joints.filter((j) => j.kind === "tee" && j.members[0] === m.name);
        return a && b
          ? [
              distanceChange(
                `pull ${m.name}`,
                `between the sides at ${m.name}`,
                node(a.members[1], a.name),
                node(b.members[1], b.name),
              ),
            ]
          : [];
      });
    const flatPoints = [...CORNERS.map((c) => corner[c]), ...SIDES.flatMap((s) => spread(nodesOf(along(s))))];
    return [
      ...shape.plan,
      ...pulls,
      flatnessOf("flat", "out of flat", flatPoints, UP),
      shape.twist,
      ...members.flatMap((m) => [
        bow(`bow ${m.id}`, `bow of ${m.id}, along the bed`, along(m.id), outward(m.id)),
        bow(`lift ${m.id}`, `bow of ${m.id}, up`, along(m.id), UP),
      ]),
    ];
  };
