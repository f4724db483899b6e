import { overlapMm, partingDirections } from "../geometry";
import { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import type { StructureJointKind } from "./frameWords";
import { type EndName, endOf, intoMember, type Placed, reach } from "./meeting";
import { goesRound } from "./mitre";
import type { PieceAlong } from "./structure";
import { TOLERANCES } from "./tolerances";

export const UP: Vec3 = [0, 0, 1];

export const angleOf = (a: Vec3, b: Vec3): number => (Math.atan2(norm3(cross3(a, b)), dot3(a, b)) * 180) / Math.PI;

const { sharpDeg: SHARP_DEG, overlapMm: TOUCHING_MM, straightDeg: STRAIGHT_DEG } = TOLERANCES;

/** From this angle between two members on, they are one that bends. */
const BEND_DEG = 135;

const upright = (m: Placed): boolean => Math.abs(m.axes[0][2]) > 0.9;

const lying = (m: Placed): boolean => Math.abs(m.axes[0][2]) < 0.35;

/** A place lies at a member's face, and not on its line, from this share of its reach on. */
const AT_FACE = 0.8;

/** Whether an end was drawn on the face of another member, which runs on as far as the first one's far side: a butt that nobody need be asked about. */
function endsOn(m: Placed, end: EndName, n: Placed, other: EndName): boolean {
  const [into, along] = [intoMember(m, end), intoMember(n, other)];
  const across = unit3(squareTo(into, n.axes[0]));
  const aside = unit3(squareTo(along, m.axes[0]));
  const off = dot3(sub3(endOf(m, end), n.from), across);
  const past = dot3(sub3(m.from, endOf(n, other)), aside);
  return off >= AT_FACE * reach(n, across) && past >= AT_FACE * reach(m, aside);
}

/** Lengths nearer to each other than this are alike, mm. */
const ALIKE_MM = 1;

/** Landings this near to each other are as square, cosine. */
const ALIKE_SQUARE = 1e-3;

/** Whether one runs through rather than the other: the larger tube, of two alike the longer, else whichever name comes first. */
function isLarger(m: Placed, n: Placed): boolean {
  const girth = (x: Placed): number => reach(x, x.axes[1]) + reach(x, x.axes[2]);
  const larger = girth(m) - girth(n);
  if (Math.abs(larger) > 0.5) return larger > 0;
  const longer = m.lengthMm - n.lengthMm;
  if (Math.abs(longer) > ALIKE_MM) return longer > 0;
  return m.id < n.id;
}

/** What a corner of two ends is made as by habit, and which of the two runs through. */
export function habit(m: Placed, n: Placed, ends: [EndName, EndName], landed: Landed): Usual {
  const [a, b] = [intoMember(m, ends[0]), intoMember(n, ends[1])];
  const angle = angleOf(a, b);
  const mitre = { kind: "mitre" as const, through: null };
  const butt = (through: Placed) => ({ kind: "butt" as const, through: through.id });
  if (angle > STRAIGHT_DEG) return butt(m);
  for (const [leg, rail] of [
    [m, n],
    [n, m],
  ] as const)
    if (upright(leg) && lying(rail)) {
      // A leg that ends at the rail's face stands under it; one that goes on beside it runs through.
      const end = leg === m ? ends[0] : ends[1];
      const below = dot3(squareTo(sub3(endOf(leg, end), rail.from), rail.axes[0]), intoMember(leg, end));
      return below > 0.6 * reach(rail, UP) ? butt(rail) : butt(leg);
    }
  const w = angle < 0.5 ? UP : unit3(cross3(a, b));
  const [ha, hb] = [reach(m, w), reach(n, w)];
  const offset = Math.abs(dot3(sub3(n.from, m.from), w));
  const larger = isLarger(m, n) ? m : n;
  // Two that are mitred already stay so; a third lands on them.
  const [takenM, takenN] = [landed.mitred(m.id, ends[0]), landed.mitred(n.id, ends[1])];
  if (takenM || takenN) return butt(takenM ? m : n);
  if (endsOn(m, ends[0], n, ends[1])) return butt(n);
  if (endsOn(n, ends[1], m, ends[0])) return butt(m);
  if (m.round !== n.round) return butt(m.round ? n : m);
  // A bend of one tube, whichever way it goes: its walls meet near enough for a mitre, and there is no face to butt on.
  if (angle > BEND_DEG && offset <= 0.5 && goesRound(m, n, a, b)) return mitre;
  if (angle < SHARP_DEG || Math.abs(ha - hb) > 0.5 || offset > 0.5) return butt(larger);
  return mitre;
}

/** Whether a leg meets a rail, which is settled before the rails' own corner is. */
export const legOnRail = (m: Placed, n: Placed): boolean => (upright(m) && lying(n)) || (upright(n) && lying(m));

/** What ends have been settled so far: which faces each lands on, and which are mitred. */
export class Landed {
  private readonly faces = new Map<string, { on: string; normal: Vec3; point: Vec3; square: number }[]>();
  private readonly mitres = new Set<string>();

  mitred(id: string, end: EndName): boolean {
    return this.mitres.has(`${id} ${end}`);
  }

  take(f: JointCandidate): void {
    if (f.kind === "lap" || !f.endB) return;
    if (f.kind === "mitre") {
      this.mitres.add(`${f.through.id} ${f.endA}`);
      this.mitres.add(`${f.branch.id} ${f.endB}`);
      return;
    }
    const key = `${f.branch.id} ${f.endB}`;
    const into = intoMember(f.branch, f.endB);
    const across = squareTo(into, f.through.axes[0]);
    if (norm3(across) < 1e-6) return;
    const normal = unit3(across);
    const point = add3(f.at, scale3(normal, reach(f.through, normal)));
    this.faces.set(key, [
      ...(this.faces.get(key) ?? []),
      { on: f.through.id, normal, point, square: dot3(into, normal) },
    ]);
  }

  at(id: string, end: EndName) {
    return this.faces.get(`${id} ${end}`) ?? [];
  }
}

/** Corners of a member that ends on the faces it lands on so far: by each corner of its outline where it comes from, then where it ends. */
export function trimmed(m: Placed, end: EndName, landed: Landed): Vec3[] {
  const [x, y, z] = m.axes;
  const out = end === "to" ? x : scale3(x, -1);
  const far = end === "to" ? m.from : m.to;
  return m.outline.flatMap((p): Vec3[] => {
    const off = add3(scale3(y, p.x), scale3(z, p.y));
    const origin = add3(far, off);
    let s = m.lengthMm;
    for (const f of landed.at(m.id, end)) s = Math.min(s, dot3(sub3(f.point, origin), f.normal) / dot3(out, f.normal));
    return [origin, add3(origin, scale3(out, s))];
  });
}

/**
 * Two ends that both land on a third member have no corner of their own, unless one would then lie in the other: the one
 * that lands less square then lands on the other too.
 */
export function contested(m: Placed, n: Placed, ends: [EndName, EndName], landed: Landed): "none" | "free" | Placed {
  const [onM, onN] = [landed.at(m.id, ends[0]), landed.at(n.id, ends[1])];
  const shared = onM.filter((f) => onN.some((g) => g.on === f.on));
  if (shared.length === 0) return "free";
  const normals = [...onM, ...onN].map((f) => f.normal);
  const directions = [...partingDirections(m.axes, n.axes), ...normals];
  if (overlapMm(trimmed(m, ends[0], landed), trimmed(n, ends[1], landed), directions) < TOUCHING_MM) return "none";
  const square = (list: typeof onM): number => Math.max(...list.map((f) => f.square));
  const squarer = square(onM) - square(onN);
  return squarer > ALIKE_SQUARE || (squarer > -ALIKE_SQUARE && isLarger(m, n)) ? m : n;
}

interface Usual {
  kind: StructureJointKind;
  through: string | null;
}

export interface JointCandidate {
  kind: StructureJointKind;
  through: Placed;
  branch: Placed;
  endA: EndName | null;
  endB: EndName | null;
  at: Vec3;
  atB: Vec3;
  along?: PieceAlong;
}
