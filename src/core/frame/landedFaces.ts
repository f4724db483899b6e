import { add3, cross3, dot3, entry, norm3, scale3, squareTo, sub3, unit3, type Vec2, type Vec3 } from "../numeric";
import type { Cutter } from "./cutter";
import type { DrawnJoint } from "./drawnSchema";
import { landing } from "./endCuts";
import { type EndName, intoMember, type Placed, reach } from "./meeting";
import { mitreReaches } from "./mitre";
import type { StructureFace, StructureJoint, StructureMember } from "./structure";

/** Places that are looked at along a seam; round an end so many for each of four walls, however many it has. */
const PLACES = 24;
const ROUND_END = 4 * PLACES;
/** How near a place must be to a plane to lie on it, mm. */
const ON_PLANE_MM = 0.1;
/** How far from a seam, off both of its members, a torch must find air, mm: about the leg of a bead. */
const CLEAR_MM = 3;
/** A seam of less than this share of its wall is none: what a wall's own thickness makes of a corner. */
const LEAST_SHARE = 0.15;
/** A branch that stands with so much of its end stands with all of it. */
const WHOLE = 0.95;
/** A seam is covered when less than this share of it can be seen. */
const LEAST_BARE = 0.2;

/** A place of a seam, with the way from it into the corner that the bead fills. */
interface SeamPlace {
  at: Vec3;
  clear: Vec3;
}

/** Whether a place lies short of a cutter of the member: on the member's side of it. */
function isShortOf(cutter: Cutter, p: Vec3): boolean {
  if (cutter.kind === "plane") return dot3(cutter.normal, sub3(p, cutter.point)) <= ON_PLANE_MM;
  const off = sub3(p, cutter.point);
  return norm3(sub3(off, scale3(cutter.axis, dot3(off, cutter.axis)))) >= cutter.radiusMm - ON_PLANE_MM;
}

const isWithinEnds = ({ ends }: StructureMember, p: Vec3): boolean =>
  [...ends.from.cutters, ...ends.to.cutters].every((c) => isShortOf(c, p));

/** Whether a place lies in a member's body, its hollow counted. Even and odd crossings of the outline. */
function isInBody(m: StructureMember, p: Vec3): boolean {
  const off = sub3(p, m.from);
  const [y, z] = [dot3(off, m.axes[1]), dot3(off, m.axes[2])];
  let isIn = false;
  m.outline.forEach((a, i) => {
    const b = m.outline[(i + 1) % m.outline.length] as Vec2;
    if (a.y > z !== b.y > z && y < a.x + ((z - a.y) / (b.y - a.y)) * (b.x - a.x)) isIn = !isIn;
  });
  return isIn && isWithinEnds(m, p);
}

/** Half of a section's diagonal, mm. */
const halfDiagonalMm = ({ outline }: Pick<StructureMember, "outline">): number =>
  Math.max(...outline.map(({ x, y }) => Math.hypot(x, y)));

/** Whether a member comes so near to a place that it may cover what lies within a reach of it. */
function comesNear(m: StructureMember, p: Vec3, reachMm: number): boolean {
  const { from, to } = m.ends;
  const way = sub3(to.at, from.at);
  const share = Math.min(1, Math.max(0, dot3(sub3(p, from.at), way) / dot3(way, way)));
  return norm3(sub3(p, add3(from.at, scale3(way, share)))) < reachMm + halfDiagonalMm(m);
}

/** Sum of an outline's turns: above nought when it goes round to the left. */
const windsLeft = (outline: readonly Vec2[]): boolean =>
  outline.reduce((sum, p, i) => {
    const q = outline[(i + 1) % outline.length] as Vec2;
    return sum + p.x * q.y - q.x * p.y;
  }, 0) > 0;

/** Walls of a member's end: where each is cut, place by place, and which way it looks. */
function wallsAt(m: StructureMember, end: EndName): { wayMm: number; out: Vec3; places: Vec3[] }[] {
  const [x, y, z] = m.axes;
  const cut = end === "from" ? m.begins : m.finishes;
  const turn = windsLeft(m.outline) ? 1 : -1;
  const each = Math.max(1, Math.round(ROUND_END / m.outline.length));
  const corner = (i: number): Vec3 => {
    const p = m.outline[i] as Vec2;
    return add3(m.from, add3(scale3(x, entry(cut, i)), add3(scale3(y, p.x), scale3(z, p.y))));
  };
  return m.outline.map((p, i) => {
    const next = (i + 1) % m.outline.length;
    const q = m.outline[next] as Vec2;
    const wayMm = Math.hypot(q.x - p.x, q.y - p.y);
    const out = add3(scale3(y, (turn * (q.y - p.y)) / wayMm), scale3(z, (turn * (p.x - q.x)) / wayMm));
    const [from, way] = [corner(i), sub3(corner(next), corner(i))];
    const places = Array.from({ length: each }, (_, k) => add3(from, scale3(way, (k + 0.5) / each)));
    return { wayMm, out, places };
  });
}

/** Whether a place of a branch's end stands on the member that runs through: on its face, and within its ends. */
const standsOn = (a: StructureMember, on: Cutter & { kind: "plane" }, at: Vec3): boolean =>
  Math.abs(dot3(on.normal, sub3(at, on.point))) <= ON_PLANE_MM && isWithinEnds(a, at);

/** Seams of a branch by their lines: which places of its walls stand on the member that runs through, as shares of the walls. */
function landedSeams(j: StructureJoint, a: StructureMember, b: StructureMember, on: Cutter & { kind: "plane" }) {
  const walls = wallsAt(b, j.endB as EndName);
  const off = scale3(on.normal, -1);
  return j.faces.map((face) => {
    const own = walls.filter(
      ({ out }) =>
        j.faces.reduce((best, f) => (dot3(f.toward, out) > dot3(best.toward, out) + 1e-9 ? f : best)) === face,
    );
    let [whole, landed] = [0, 0];
    const seam: SeamPlace[] = [];
    for (const { wayMm, out, places } of own)
      for (const at of places) {
        whole += wayMm;
        if (!standsOn(a, on, at)) continue;
        landed += wayMm;
        seam.push({ at, clear: scale3(unit3(add3(out, off)), CLEAR_MM) });
      }
    return { face, share: whole > 0 ? landed / whole : 1, seam };
  });
}

/**
 * From where to where a branch stands along the member that runs through, mm from where its middle line meets the face, and which part of its
 * end that is; null where it is as good as all of it.
 * @param branch the same as b, as it is drawn.
 */
function standsFromTo(
  j: StructureJoint,
  a: StructureMember,
  b: StructureMember,
  branch: Placed,
  on: Cutter & { kind: "plane" },
): { landedMm: readonly [number, number]; part: number } | null {
  const way = a.axes[0];
  const steep = dot3(b.axes[0], on.normal);
  const middle = add3(b.from, scale3(b.axes[0], dot3(on.normal, sub3(on.point, b.from)) / steep));
  const marks = wallsAt(b, j.endB as EndName).flatMap(({ places: [first, second], places }) => {
    const half = first && second ? Math.abs(dot3(way, sub3(second, first))) / 2 : 0;
    return places
      .filter((at) => standsOn(a, on, at))
      .flatMap((at) => [-half, half].map((off) => dot3(way, sub3(at, middle)) + off));
  });
  if (marks.length === 0) return null;
  const [from, to] = [Math.min(...marks), Math.max(...marks)];
  const wholeMm = (2 * reach(branch, unit3(squareTo(way, b.axes[0])))) / Math.abs(steep);
  return to - from < WHOLE * wholeMm ? { landedMm: [from, to], part: (to - from) / wholeMm } : null;
}

/** Seams of a corner: its inner and outer edge, and what runs between them on top and below. */
function mitreSeams(
  j: StructureJoint,
  a: Placed,
  b: Placed,
): { face: StructureFace; share: number; seam: SeamPlace[] }[] {
  const [ia, ib] = [intoMember(a, j.endA as EndName), intoMember(b, j.endB as EndName)];
  const [wa, wb] = mitreReaches(a, b, ia, ib);
  const inner = scale3(add3(scale3(ia, wb), scale3(ib, wa)), 1 / norm3(cross3(ia, ib)));
  const up = j.faces.find((f) => f.line === "top")?.toward ?? unit3(cross3(ia, ib));
  const high = Math.min(reach(a, up), reach(b, up));
  const along = (from: Vec3, to: Vec3, toward: Vec3): SeamPlace[] =>
    Array.from({ length: PLACES }, (_, k) => ({
      at: add3(j.at, add3(from, scale3(sub3(to, from), (k + 0.5) / PLACES))),
      clear: scale3(toward, CLEAR_MM),
    }));
  return j.faces.map((face) => {
    const side = scale3(inner, face.line === "outside" ? -1 : 1);
    const level = scale3(up, face.line === "bottom" ? -high : high);
    const seam =
      face.line === "inside" || face.line === "outside"
        ? along(sub3(side, level), add3(side, level), face.toward)
        : along(sub3(level, inner), add3(level, inner), face.toward);
    return { face, share: 1, seam };
  });
}

/**
 * A joint with the faces that are there to be welded: a branch that fits into a corner of others stands on each of them with some of its walls
 * only. A face that another member stands on or fits into can be seen no more once that is there: it gets no bead unless somebody says so.
 * @param byId members as they are cut. @param placed the same as they are drawn. @param near members that are joined to either.
 */
export function landed(
  j: StructureJoint,
  byId: ReadonlyMap<string, StructureMember>,
  placed: ReadonlyMap<string, Placed>,
  near: readonly StructureMember[],
  gapMm: number,
  said: DrawnJoint | undefined,
): StructureJoint {
  const [a, b] = [byId.get(j.a), byId.get(j.b)];
  const [through, branch] = [placed.get(j.a), placed.get(j.b)];
  if (!a || !b || !through || !branch || j.kind === "lap" || !j.endB) return j;
  const isCorner = j.faces.some((f) => f.line === "inside");
  const reachMm = Math.max(...j.faces.map((f) => f.lengthMm)) / 2 + halfDiagonalMm(a) + CLEAR_MM;
  const about = near.filter((m) => comesNear(m, j.at, reachMm));
  const isAmidst = [a.ends.from, a.ends.to].every(({ at }) => norm3(sub3(at, j.at)) > reachMm);
  // Nothing else comes near: a corner of two, or a branch on the middle of a tube.
  if (about.length === 0 && (isCorner || (isAmidst && b.ends[j.endB].cutters.length === 1))) return j;
  const on = isCorner ? null : landing(through, branch, j, gapMm);
  const seams =
    on?.kind === "plane" ? landedSeams(j, a, b, on) : j.kind === "mitre" ? mitreSeams(j, through, branch) : [];
  const there = seams.filter(({ share }) => share >= LEAST_SHARE);
  // What stands on nothing of the other's face is drawn past it: nothing is known of its seams.
  if (there.length === 0) return j;
  const stands = on?.kind === "plane" ? standsFromTo(j, a, b, branch, on) : null;
  const faces = there.map(({ face, share, seam }): StructureFace => {
    const isAlong = face.line === "top" || face.line === "bottom";
    const ofPart = stands && isAlong ? Math.min(1, share / stands.part) : share;
    const own = { ...face, lengthMm: face.lengthMm * share, share: ofPart };
    const over = about.find(
      (m) => seam.filter(({ at, clear }) => isInBody(m, add3(at, clear))).length > (1 - LEAST_BARE) * seam.length,
    );
    if (!over) return own;
    const bead = said?.faces.find((f) => f.line === face.line)?.bead ?? false;
    return { ...own, bead, under: over.id };
  });
  // A joint that is covered all round is welded before all the same.
  const open = faces.some((f) => f.bead) ? faces : faces.map((f, i) => ({ ...f, bead: there[i]?.face.bead ?? true }));
  return { ...j, ...(stands ? { landedMm: stands.landedMm } : {}), faces: open };
}
