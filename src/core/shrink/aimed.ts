import { type Quadrilateral, type Structure, type StructureMember, seenAt } from "../frame";
import { CORNERS, type Corner, ends, SIDES, type Side } from "../geometry";
import { add, add3, dot3, norm3, scale3, solveSmall, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import { cornerAngleDeg, placesOf } from "../square";
import type { Estimate } from "../units";
import type { Prediction } from "./prediction";
import type { SetUpShape, SetUpTarget } from "./settingUp";

/** How much longer (along AB) and wider than drawn the finished frame shall be, mm. */
export interface Growth {
  lengthMm: number;
  widthMm: number;
  /** How much longer each side gets besides, by the pieces that it is made of, mm. */
  sidesMm?: Readonly<Record<Side, number>>;
}

const NONE: Vec3 = [0, 0, 0];
type Move = (at: Vec3) => Vec3;

/** Whether a frame is made as it is drawn. */
export const isNoGrowth = ({ lengthMm, widthMm, sidesMm }: Growth): boolean =>
  lengthMm === 0 && widthMm === 0 && SIDES.every((side) => (sidesMm?.[side] ?? 0) === 0);

/** Corners of a quadrilateral where its centre lines meet, with its own axes and extents. */
function axesOf({ joints }: Structure, quad: Quadrilateral) {
  const at = Object.fromEntries(
    CORNERS.map((c) => [c, joints.find((j) => j.id === quad.joints[c])?.at ?? quad.at[c]]),
  ) as Record<Corner, Vec3>;
  const along = sub3(at.B, at.A);
  const u = unit3(along);
  const across = squareTo(sub3(at.D, at.A), u);
  const [v, long, wide] = [unit3(across), norm3(along), norm3(across)];
  const of = (p: Vec3): [s: number, t: number] => [dot3(sub3(p, at.A), u) / long, dot3(sub3(p, at.A), v) / wide];
  const corners = CORNERS.map((c) => of(at[c]));
  const within = (x: number, all: readonly number[]): number =>
    Math.min(Math.max(...all), Math.max(Math.min(...all), x));
  /** How far along and across a place lies, in shares; beyond the corners as far as those: what reaches beyond them goes along, and gets no longer. */
  const shares = (p: Vec3): [s: number, t: number] => {
    const [s, t] = of(p);
    return [
      within(
        s,
        corners.map((c) => c[0]),
      ),
      within(
        t,
        corners.map((c) => c[1]),
      ),
    ];
  };
  return { at, u, v, long, wide, shares };
}

/**
 * How far each place moves when every side gets so much longer: corners by as little as it takes, which neither turns nor leans the frame
 * (least norm; to first order in the lengths); what lies between, in proportion along and across.
 */
function stretchedBy({ at, u, v, shares }: ReturnType<typeof axesOf>, sidesMm: Readonly<Record<Side, number>>): Move {
  const rows = SIDES.map((side) => {
    const [p, q] = ends(side);
    const way = unit3(sub3(at[q], at[p]));
    return CORNERS.flatMap((c) => {
      const sign = c === q ? 1 : c === p ? -1 : 0;
      return [sign * dot3(way, u), sign * dot3(way, v)];
    });
  });
  const product = (p: readonly number[], q: readonly number[]): number =>
    p.reduce((sum, x, i) => sum + x * (q[i] ?? 0), 0);
  const pulls = solveSmall(
    rows.map((p) => rows.map((q) => product(p, q))),
    SIDES.map((side) => sidesMm[side]),
  );
  const bilinear = (p: Vec3): number[] => {
    const [s, t] = shares(p);
    return [1, s, t, s * t];
  };
  const between = (axis: 0 | 1): number[] | null =>
    pulls &&
    solveSmall(
      CORNERS.map((c) => bilinear(at[c])),
      CORNERS.map((_, i) => rows.reduce((sum, row, k) => sum + (row[2 * i + axis] ?? 0) * (pulls[k] ?? 0), 0)),
    );
  const [x, y] = [between(0), between(1)];
  if (!x || !y) return () => NONE;
  return (p) => add3(scale3(u, product(x, bilinear(p))), scale3(v, product(y, bilinear(p))));
}

/**
 * How far each place moves when a quadrilateral is made longer and wider than drawn: tubes keep their width, so it is the
 * centre lines of opposite sides that move apart. Nothing moves in a frame without corners.
 */
export function growing(structure: Structure, growth: Growth): Move {
  const { quad } = structure;
  if (!quad || isNoGrowth(growth)) return () => NONE;
  const { lengthMm, widthMm, sidesMm } = growth;
  const axes = axesOf(structure, quad);
  const { u, v, shares } = axes;
  const bySides = sidesMm ? stretchedBy(axes, sidesMm) : () => NONE;
  return (p) => {
    const [s, t] = shares(p);
    const even = add3(scale3(u, lengthMm * (s - 0.5)), scale3(v, widthMm * (t - 0.5)));
    return add3(even, bySides(p));
  };
}

/** How much longer a member gets with the frame, mm: what its two joints move apart along it. */
export const memberGrowth = (structure: Structure, growth: Growth): ((m: StructureMember) => number) =>
  stretching(structure, growing(structure, growth));

function stretching(structure: Structure, move: Move): (m: StructureMember) => number {
  const joints = new Map(structure.joints.map((j) => [j.id, j.at]));
  return (m) => {
    const end = (which: "from" | "to"): Vec3 => move(joints.get(m.ends[which].joints[0] ?? "") ?? m.ends[which].at);
    return dot3(sub3(end("to"), end("from")), m.axes[0]);
  };
}

/** What the weld is likely to lean a quadrilateral by, where that is less than its scatter: noise, that nobody can aim at. */
export function leanNoise({ outcomes }: Pick<Prediction, "outcomes">): Estimate | null {
  const lean = outcomes.find((o) => o.id.kind === "square")?.estimate;
  return lean && lean.value !== 0 && Math.abs(lean.value) < (lean.high - lean.low) / 2 ? lean : null;
}

/** The lean in a set-up, as a movement of every place: the side CD slides along AB, what lies between goes along in proportion. */
function leaning(structure: Structure, offsetsMm: SetUpShape["offsetsMm"]): Move {
  const { quad } = structure;
  if (!quad) return () => NONE;
  const { u, v, long, wide, shares } = axesOf(structure, quad);
  const off = (c: Corner): Vec3 => offsetsMm[quad.joints[c]] ?? NONE;
  const slides = (dot3(off("C"), u) + dot3(off("D"), u) - dot3(off("A"), u) - dot3(off("B"), u)) / 2;
  const rises = (dot3(off("B"), v) + dot3(off("C"), v) - dot3(off("A"), v) - dot3(off("D"), v)) / 2;
  // Whichever pair of sides turned, it is one shear.
  const lean = slides + (rises * wide) / long;
  return (p) => scale3(u, lean * (shares(p)[1] - 0.5));
}

/**
 * The set-up of a frame that shall end longer and wider than drawn: every place is set off by that besides. A lean that is
 * noise is left out.
 */
export function aimedSetUp(
  structure: Structure,
  prediction: Pick<Prediction, "outcomes" | "setUp">,
  growth: Growth,
): SetUpShape {
  const { quad } = structure;
  const { setUp } = prediction;
  const noise = leanNoise(prediction) !== null;
  if (!quad || (isNoGrowth(growth) && !noise)) return setUp;
  const grown = growing(structure, growth);
  const lean = noise ? leaning(structure, setUp.offsetsMm) : () => NONE;
  const move = (p: Vec3): Vec3 => sub3(grown(p), lean(p));
  const longer = stretching(structure, move);
  const { freeEnds } = placesOf(structure);
  const at = new Map([
    ...structure.joints.map((j) => [j.id, j.at] as const),
    ...structure.members.flatMap((m) =>
      Object.entries(freeEnds).flatMap(([name, { member, end }]) =>
        member === m.id ? [[name, m.ends[end].at] as const] : [],
      ),
    ),
  ]);
  const off = Object.fromEntries(CORNERS.map((c) => [c, move(at.get(quad.joints[c]) ?? quad.at[c])])) as Record<
    Corner,
    Vec3
  >;
  const flat = Object.fromEntries(
    CORNERS.map((c) => [c, add(quad.corners[c], seenAt(off[c], quad.view))]),
  ) as typeof quad.corners;
  const by = ({ id }: SetUpTarget): number => {
    if (id.kind === "length") {
      const m = structure.members.find((x) => x.id === id.member);
      return m ? longer(m) : 0;
    }
    if (id.kind === "angle") return cornerAngleDeg(flat, id.corner) - cornerAngleDeg(quad.corners, id.corner);
    if (id.kind !== "span") return 0;
    const [p, q] = ends(id.span);
    const drawn = sub3(quad.at[q], quad.at[p]);
    return norm3(add3(drawn, sub3(off[q], off[p]))) - norm3(drawn);
  };
  return {
    ...setUp,
    offsetsMm: Object.fromEntries(
      Object.entries(setUp.offsetsMm).map(([id, v]) => [id, add3(v, at.has(id) ? move(at.get(id) as Vec3) : NONE)]),
    ),
    targets: setUp.targets.map((t) => {
      const more = by(t);
      const { value, low, high } = t.target;
      return more === 0 ? t : { ...t, target: { value: value + more, low: low + more, high: high + more } };
    }),
  };
}
