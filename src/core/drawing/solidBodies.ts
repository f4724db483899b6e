import earcut from "earcut";
import { isHollow, meets, type Structure, type StructureMember } from "../frame";
import { add3, entry, norm3, scale3, sub3, type Vec2, type Vec3 } from "../numeric";

/** A closed body as triangles that look outward: three numbers a corner, mm, three corners a triangle. */
export interface SolidBody {
  name: string;
  positions: Float64Array;
  triangles: Uint32Array;
}

/** So many pieces an edge is cut into where an end is no flat cut. */
const FINE = 12;

/** An outline with its edges cut into pieces. */
const finer = (outline: readonly Vec2[], pieces: number): Vec2[] =>
  outline.flatMap((p, i) => {
    const q = outline[(i + 1) % outline.length] as Vec2;
    return Array.from({ length: pieces }, (_, k) => ({
      x: p.x + ((q.x - p.x) * k) / pieces,
      y: p.y + ((q.y - p.y) * k) / pieces,
    }));
  });

/** The inside of a tube's outline, corner by corner. */
function inside(m: StructureMember, outline: readonly Vec2[]): Vec2[] {
  const { widthMm: w, heightMm: h, wallMm } = m.properties;
  return outline.map((p) => ({ x: p.x * (1 - (2 * wallMm) / w), y: p.y * (1 - (2 * wallMm) / h) }));
}

/** Where a line along the member ends at one end, mm from where it begins. */
function endAt(m: StructureMember, end: "from" | "to", p: Vec2): number {
  const [x, y, z] = m.axes;
  const plain = end === "from" ? 0 : norm3(sub3(m.to, m.from));
  const origin = add3(m.from, add3(scale3(y, p.x), scale3(z, p.y)));
  const out = end === "to" ? x : scale3(x, -1);
  const far = m.ends[end].cutters.flatMap((c) => meets(c, origin, out) ?? []);
  if (far.length === 0) return plain;
  return end === "to" ? Math.min(...far) : -Math.min(...far);
}

/** Collects corners and triangles. */
class Mesh {
  private readonly positions: number[] = [];
  private readonly triangles: number[] = [];

  ring(points: readonly Vec3[]): number {
    const first = this.positions.length / 3;
    for (const p of points) this.positions.push(...p);
    return first;
  }

  /** Between two rings of n corners; seen from outside the first lies at the near end and corners run anticlockwise about the way. */
  wall(a: number, b: number, n: number, isInner: boolean): void {
    for (let i = 0; i < n; i++) {
      const k = (i + 1) % n;
      const [p, q] = isInner ? [a + k, a + i] : [a + i, a + k];
      const [r, s] = isInner ? [b + k, b + i] : [b + i, b + k];
      this.triangles.push(p, q, s, p, s, r);
    }
  }

  flat(indices: readonly number[], offset: number, isFlipped: boolean): void {
    for (let i = 0; i + 2 < indices.length; i += 3) {
      const [a, b, c] = [indices[i], indices[i + 1], indices[i + 2]] as [number, number, number];
      this.triangles.push(offset + a, ...(isFlipped ? [offset + c, offset + b] : [offset + b, offset + c]));
    }
  }

  body(name: string): SolidBody {
    return { name, positions: Float64Array.from(this.positions), triangles: Uint32Array.from(this.triangles) };
  }
}

function memberBody(m: StructureMember): SolidBody {
  const isPlain = (["from", "to"] as const).every(
    (end) => m.ends[end].cutters.length < 2 && m.ends[end].cutters.every((c) => c.kind === "plane"),
  );
  const outer = finer(m.outline, isPlain || m.outline.length > 2 * FINE ? 1 : FINE);
  const n = outer.length;
  const mesh = new Mesh();
  const [x, y, z] = m.axes;
  const place = (p: Vec2, s: number): Vec3 => add3(m.from, add3(scale3(x, s), add3(scale3(y, p.x), scale3(z, p.y))));
  const ring = (outline: readonly Vec2[], end: "from" | "to"): number =>
    mesh.ring(outline.map((p) => place(p, endAt(m, end, p))));
  const [a, b] = [ring(outer, "from"), ring(outer, "to")];
  mesh.wall(a, b, n, false);
  if (isHollow(m.shape)) {
    const inner = inside(m, outer);
    const [c, d] = [ring(inner, "from"), ring(inner, "to")];
    mesh.wall(c, d, n, true);
    // The cut ends of the wall.
    mesh.wall(c, a, n, false);
    mesh.wall(b, d, n, false);
  } else {
    const cap = earcut(outer.flatMap((p) => [p.x, p.y]));
    mesh.flat(cap, a, true);
    mesh.flat(cap, b, false);
  }
  return mesh.body(m.id);
}

/** A plate, foot or cap: one side of it, then the other. */
function partBody(id: string, corners: readonly Vec3[]): SolidBody {
  const n = corners.length / 2;
  const mesh = new Mesh();
  mesh.ring(corners);
  const fan = Array.from({ length: n - 2 }, (_, i) => [0, i + 1, i + 2]).flat();
  mesh.wall(0, n, n, false);
  mesh.flat(fan, 0, true);
  mesh.flat(fan, n, false);
  return outward(mesh.body(id));
}

/** A body's volume, mm3: negative where its triangles look inward. */
function volumeMm3({ positions, triangles }: SolidBody): number {
  const at = (i: number): Vec3 => [entry(positions, 3 * i), entry(positions, 3 * i + 1), entry(positions, 3 * i + 2)];
  let six = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [p, q, r] = [0, 1, 2].map((k) => at(entry(triangles, t + k))) as [Vec3, Vec3, Vec3];
    six += p[0] * (q[1] * r[2] - q[2] * r[1]) - p[1] * (q[0] * r[2] - q[2] * r[0]) + p[2] * (q[0] * r[1] - q[1] * r[0]);
  }
  return six / 6;
}

/** The same body with its triangles looking outward. */
function outward(body: SolidBody): SolidBody {
  if (volumeMm3(body) >= 0) return body;
  const triangles = Uint32Array.from(body.triangles);
  for (let t = 0; t < triangles.length; t += 3)
    [triangles[t + 1], triangles[t + 2]] = [entry(triangles, t + 2), entry(triangles, t + 1)];
  return { ...body, triangles };
}

/** Every member of a frame as it is cut, hollow where it is a tube, and every part, each a closed body. */
export const solidBodies = (structure: Structure): SolidBody[] => [
  ...structure.members.map((m) => outward(memberBody(m))),
  ...structure.parts.map((p) => partBody(p.id, p.corners)),
];
