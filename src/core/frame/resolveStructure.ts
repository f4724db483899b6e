import { add3, dot3, entry, scale3, sub3, type Vec2, type Vec3 } from "../numeric";
import { type Cutter, meets } from "./cutter";
import type { DrawnFrame, DrawnMember, DrawnSection } from "./drawnSchema";
import { type Cuts, cutsOf, distinct } from "./endCuts";
import { type Clash, findJoints } from "./findJoints";
import { landed } from "./landedFaces";
import { MATERIALS, type MaterialName } from "./materials";
import type { EndName, Placed } from "./meeting";
import { resolvePart } from "./parts";
import { place, placeMembers, shapeOf } from "./placing";
import { quadrilateralOf } from "./quadrilateral";
import { isHollow, outerPerimeterMm } from "./sectionOutline";
import { sectionProperties } from "./sections";
import { type Shape, type ShapeProperties, shapeProperties } from "./shapes";
import type { MemberEnd, Structure, StructureJoint, StructureMember } from "./structure";

/** Middle of an outline by area. */
function centroid(outline: readonly Vec2[]): Vec2 {
  let [area, x, y] = [0, 0, 0];
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length] as Vec2;
    const k = p.x * q.y - q.x * p.y;
    area += k;
    x += (p.x + q.x) * k;
    y += (p.y + q.y) * k;
  });
  return { x: x / (3 * area), y: y / (3 * area) };
}

/** Mean of lengths that run straight from corner to corner of an outline, by way round: exact for a thin wall. */
function meanRound(outline: readonly Vec2[], lengths: readonly number[]): number {
  let [way, sum] = [0, 0];
  outline.forEach((p, i) => {
    const next = (i + 1) % outline.length;
    const q = outline[next] as Vec2;
    const edge = Math.hypot(q.x - p.x, q.y - p.y);
    way += edge;
    sum += (edge * (entry(lengths, i) + entry(lengths, next))) / 2;
  });
  return sum / way;
}

/** A line in a member's section, `a x + b y = c`: where two of its end's cuts meet. */
interface Ridge {
  a: number;
  b: number;
  c: number;
}

function ridges(cutters: readonly Cutter[], m: Placed): Ridge[] {
  // Each plane as s = p - q x - r y along the member.
  const planes = cutters.flatMap((k) => {
    if (k.kind !== "plane") return [];
    const n = m.axes.map((d) => dot3(d, k.normal)) as [number, number, number];
    return Math.abs(n[0]) < 1e-9
      ? []
      : [{ p: dot3(sub3(k.point, m.from), k.normal) / n[0], q: n[1] / n[0], r: n[2] / n[0] }];
  });
  return planes.flatMap((one, i) =>
    planes.slice(i + 1).map((two) => ({ a: one.q - two.q, b: one.r - two.r, c: one.p - two.p })),
  );
}

/** An outline with the points added where ridges cross it, so that the tip of a pointed end is one of its corners. */
function ridged(outline: readonly Vec2[], lines: readonly Ridge[]): Vec2[] {
  if (lines.length === 0) return [...outline];
  return outline.flatMap((p, i) => {
    const q = outline[(i + 1) % outline.length] as Vec2;
    const crossings = lines.flatMap(({ a, b, c }) => {
      const [f, g] = [a * p.x + b * p.y - c, a * q.x + b * q.y - c];
      return f * g < 0 ? [f / (f - g)] : [];
    });
    return [p, ...crossings.sort((x, y) => x - y).map((t) => ({ x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) }))];
  });
}

/** A section of the frame with what follows from it, worked out once for all its members. */
interface Stock {
  shape: Shape;
  properties: ShapeProperties;
  material: MaterialName;
  perimeterMm: number;
}

function stockOf(section: DrawnSection): Stock {
  const shape = shapeOf(section);
  const radius =
    shape.shape === "tube"
      ? sectionProperties({ faceMm: shape.widthMm, depthMm: shape.heightMm, wallMm: shape.wallMm }).outsideRadiusMm
      : 0;
  return {
    shape,
    properties: shapeProperties(shape),
    material: section.material,
    perimeterMm: outerPerimeterMm(shape, radius),
  };
}

function resolveMember(
  { shape, properties, material, perimeterMm }: Stock,
  said: DrawnMember,
  m: Placed,
  cuts: ReadonlyMap<string, Cuts>,
  capped: ReadonlySet<string>,
): StructureMember {
  const [x, y, z] = m.axes;
  const line = (p: Vec2): Vec3 => add3(m.from, add3(scale3(y, p.x), scale3(z, p.y)));
  const own: Record<EndName, Cuts | undefined> = { from: cuts.get(`${m.id} from`), to: cuts.get(`${m.id} to`) };
  const cuttersAt = (end: EndName): Cutter[] => {
    const out = end === "to" ? x : scale3(x, -1);
    const c = own[end];
    if (c && c.cutters.length > 0) return distinct(c.cutters);
    if (c && c.past.length > 0) {
      // Runs past whichever branch reaches farthest.
      const far = (k: Cutter): number => meets(k, m.from, out) ?? 0;
      return [c.past.reduce((best, k) => (far(k) > far(best) ? k : best))];
    }
    return [{ kind: "plane", normal: out, point: end === "to" ? m.to : m.from }];
  };
  const cutters: Record<EndName, Cutter[]> = { from: cuttersAt("from"), to: cuttersAt("to") };
  /** Along x from `from`, where the member ends. A cutter that a line misses is met where it is met on the axis. */
  const ending = (end: EndName, p: Vec2): number => {
    const out = end === "to" ? x : scale3(x, -1);
    let least = Number.POSITIVE_INFINITY;
    for (const c of cutters[end]) {
      const d = meets(c, line(p), out) ?? dot3(c.point, out) - dot3(m.from, out);
      if (d < least) least = d;
    }
    return end === "to" ? least : -least;
  };
  const outline = ridged(m.outline, [...ridges(cutters.from, m), ...ridges(cutters.to, m)]);
  const begins = Float64Array.from(outline, (p) => ending("from", p));
  const finishes = Float64Array.from(outline, (p) => ending("to", p));
  const middle = { x: 0, y: 0 };
  const [start, stop] = [ending("from", middle), ending("to", middle)];
  const lengths = outline.map((_, i) => entry(finishes, i) - entry(begins, i));
  const c = centroid(m.outline);
  const simple =
    [...cutters.from, ...cutters.to].every((k) => k.kind === "plane") && cutters.from.length + cutters.to.length === 2;
  const mean = meanRound(outline, lengths);
  const [cs, ce] = [ending("from", c), ending("to", c)];
  const massLength = simple ? ce - cs : mean;
  const point = (s: number, p: Vec2): Vec3 => add3(line(p), scale3(x, s));
  const endOf = (end: EndName, s: number): MemberEnd => ({
    joints: own[end]?.joints ?? [],
    cutters: cutters[end],
    at: point(s, middle),
    hollow: capped.has(`${m.id} ${end}`) ? "closed" : (own[end]?.hollow ?? "open"),
  });
  return {
    id: m.id,
    section: said.section,
    shape,
    properties,
    material,
    seam: said.seam,
    crown: said.crown,
    axes: m.axes,
    from: m.from,
    to: m.to,
    outline,
    begins,
    finishes,
    ends: { from: endOf("from", start), to: endOf("to", stop) },
    longMm: Math.max(...finishes) - Math.min(...begins),
    shortMm: Math.min(...lengths),
    centreMm: stop - start,
    massKg: Math.max(0, massLength) * properties.areaMm2 * MATERIALS[material].densityKgPerMm3,
    centreOfMass: point((cs + ce) / 2, c),
    surfaceMm2: Math.max(0, simple ? stop - start : mean) * perimeterMm,
  };
}

/** Ends that a cap closes: it stands at the end of the member that it is said to sit on. */
function cappedEnds(frame: DrawnFrame, placed: ReadonlyMap<string, Placed>): Set<string> {
  const out = new Set<string>();
  for (const part of frame.parts) {
    const m = part.kind === "cap" && part.on ? placed.get(part.on) : undefined;
    if (!m) continue;
    const s = dot3(sub3(place(part.at), m.from), m.axes[0]);
    out.add(`${m.id} ${s < m.lengthMm / 2 ? "from" : "to"}`);
  }
  return out;
}

/**
 * Works out a drawn frame: members in their true place and as they are cut, joints found from geometry, parts, weight,
 * centre of mass, surface. Members without length or section are left out (see structureProblems).
 * @returns the structure, and members that clash.
 */
export function resolveStructure(frame: DrawnFrame): {
  structure: Structure;
  clashes: Clash[];
  placed: Map<string, Placed>;
} {
  const placed = placeMembers(frame);
  const { joints: found, clashes } = findJoints([...placed.values()], frame.joints);
  const stock = new Map(frame.sections.map((s) => [s.id, stockOf(s)]));
  const hollow = new Set(
    frame.members.flatMap((m) => {
      const s = stock.get(m.section);
      return s && isHollow(s.shape) ? [m.id] : [];
    }),
  );
  const cuts = cutsOf(placed, found, frame.gap.mm, hollow);
  const capped = cappedEnds(frame, placed);
  const members = frame.members.flatMap((said) => {
    const [m, s] = [placed.get(said.id), stock.get(said.section)];
    return m && s ? [resolveMember(s, said, m, cuts, capped)] : [];
  });
  const joints = withLandedFaces(frame, found, members, placed);
  const parts = frame.parts.map((p) => resolvePart(p, p.like ? placed.get(p.like)?.axes : undefined));
  const all = [...members, ...parts];
  const massKg = all.reduce((s, m) => s + m.massKg, 0);
  const moment = all.reduce<Vec3>((s, m) => add3(s, scale3(m.centreOfMass, m.massKg)), [0, 0, 0]);
  const low: [number, number, number] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const high: [number, number, number] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const take = (p: Vec3) => {
    for (let i = 0; i < 3; i++) {
      low[i] = Math.min(entry(low, i), entry(p, i));
      high[i] = Math.max(entry(high, i), entry(p, i));
    }
  };
  for (const m of members) for (const p of bodyPoints(m)) take(p);
  for (const part of parts) for (const p of part.corners) take(p);
  const empty = all.length === 0;
  return {
    structure: {
      members,
      joints,
      quad: quadrilateralOf({ members, joints }),
      rootGapMm: frame.gap.mm,
      parts,
      groups: frame.groups,
      massKg,
      centreOfMass: massKg > 0 ? scale3(moment, 1 / massKg) : [0, 0, 0],
      surfaceMm2: all.reduce((s, m) => s + m.surfaceMm2, 0),
      low: empty ? [0, 0, 0] : low,
      high: empty ? [0, 0, 0] : high,
    },
    clashes,
    placed,
  };
}

/** Joints with the faces that are there to be welded. */
function withLandedFaces(
  frame: DrawnFrame,
  joints: readonly StructureJoint[],
  members: readonly StructureMember[],
  placed: ReadonlyMap<string, Placed>,
): StructureJoint[] {
  const byId = new Map(members.map((m) => [m.id, m]));
  const beside = new Map<string, Set<string>>(members.map((m) => [m.id, new Set()]));
  for (const { a, b } of joints) {
    beside.get(a)?.add(b);
    beside.get(b)?.add(a);
  }
  return joints.map((j) => {
    // A sub-assembly is welded before anything else stands on it.
    const own = frame.groups.find((g) => g.members.includes(j.a) && g.members.includes(j.b))?.members;
    const near = [...new Set([...(beside.get(j.a) ?? []), ...(beside.get(j.b) ?? [])])].flatMap((id) =>
      id === j.a || id === j.b || (own && !own.includes(id)) ? [] : (byId.get(id) ?? []),
    );
    const said = frame.joints.find((x) => x.between.includes(j.a) && x.between.includes(j.b));
    return landed(j, byId, placed, near, frame.gap.mm, said);
  });
}

/** Corners of a member's body: the outline at its first end, then at its second. */
export function bodyPoints(m: StructureMember): Vec3[] {
  const [x, y, z] = m.axes;
  const at = (p: Vec2, s: number): Vec3 => [
    m.from[0] + x[0] * s + y[0] * p.x + z[0] * p.y,
    m.from[1] + x[1] * s + y[1] * p.x + z[1] * p.y,
    m.from[2] + x[2] * s + y[2] * p.x + z[2] * p.y,
  ];
  return [
    ...m.outline.map((p, i) => at(p, entry(m.begins, i))),
    ...m.outline.map((p, i) => at(p, entry(m.finishes, i))),
  ];
}

/** Middle of a member as it is cut, on its centre line. */
export const middleOf = ({ ends }: StructureMember): Vec3 => scale3(add3(ends.from.at, ends.to.at), 0.5);
