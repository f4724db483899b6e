import { brick, NODES } from "./brick";

/** A leg of a mitre, cut through its middle by the plane that both legs meet in. */
export interface LegForm {
  /** In the plane of the frame and out of it, mm. */
  widthMm: number;
  heightMm: number;
  wallMm: number;
  /** Between the legs, degrees. */
  angleDeg: number;
  /** Width of the strip that contracts beside a bead, square to the mitre, mm. */
  stripMm: number;
}

/** A node on the cut: along the way inside and up, from the axis, mm. */
export interface CutNode {
  x1Mm: number;
  x3Mm: number;
}

/** Faces in the order of the joint tables. */
export const FACES = ["outside", "inside", "up", "down"] as const;

/** What a leg answers with at its cut, beyond a beam: movement square to the cut. */
export interface Leg {
  nodes: CutNode[];
  /** Movement of node i per force on node j, mm/N at a modulus of 1 MPa: n x n. */
  f: Float64Array;
  /** Movement of each node per mm that a face's line closes (half of it by this leg), n x 4. */
  w: Float64Array;
}

const MATERIAL = { eMPa: 1, nu: 0.3 };
/** Elements of a face between its corners. */
const ACROSS = 8;
/** Length of the leg over its larger side, and its slices beyond the strip, each longer than the one before by a ratio. */
const LENGTH = 4;
const SLICES = 14;
const RATIO = 1.22;

type Place = [number, number];

/** Ring of eight-node quadrilaterals: nodes of the section and, of each element, its corners and mid-sides by sign. */
function ring({ widthMm, heightMm, wallMm }: LegForm) {
  const cuts = (size: number): number[] => {
    const half = size / 2;
    const inner = size - 2 * wallMm;
    return [-half, ...Array.from({ length: ACROSS + 1 }, (_, i) => -half + wallMm + (inner * i) / ACROSS), half];
  };
  const [ys, zs] = [cuts(widthMm), cuts(heightMm)];
  const places: Place[] = [];
  const isCorner: boolean[] = [];
  const known = new Map<string, number>();
  const node = (y: number, z: number, corner: boolean): number => {
    const key = `${y.toFixed(6)} ${z.toFixed(6)}`;
    const had = known.get(key);
    if (had !== undefined) return had;
    isCorner.push(corner);
    known.set(key, places.push([y, z]) - 1);
    return places.length - 1;
  };
  const elements: { nodes: Map<string, number>; face: number }[] = [];
  const n = ACROSS + 2;
  for (let a = 0; a < n; a++)
    for (let b = 0; b < n; b++) {
      if (a > 0 && a < n - 1 && b > 0 && b < n - 1) continue;
      // Inside of the mitre lies at +y. The corners of the tube belong to outside and inside.
      const face = a === 0 ? 0 : a === n - 1 ? 1 : b === n - 1 ? 2 : 3;
      const nodes = new Map<string, number>();
      for (const p of [-1, 0, 1])
        for (const q of [-1, 0, 1]) {
          if (p === 0 && q === 0) continue;
          const y = ((1 - p) * ys[a] + (1 + p) * ys[a + 1]) / 2;
          const z = ((1 - q) * zs[b] + (1 + q) * zs[b + 1]) / 2;
          nodes.set(`${p} ${q}`, node(y, z, p !== 0 && q !== 0));
        }
      elements.push({ nodes, face });
    }
  return { places, isCorner, elements };
}

/** Takes the first `gone` unknowns out of a symmetric matrix; upper half, row-major. Loads go with it. */
function eliminate(k: Float64Array, n: number, gone: number, loads: Float64Array, columns: number): void {
  for (let p = 0; p < gone; p++) {
    const row = p * n;
    const pivot = k[row + p];
    for (let i = p + 1; i < n; i++) {
      const f = k[row + i] / pivot;
      if (f === 0) continue;
      const to = i * n;
      for (let j = i; j < n; j++) k[to + j] -= f * k[row + j];
      for (let c = 0; c < columns; c++) loads[i * columns + c] -= f * loads[p * columns + c];
    }
  }
}

/** Solves k x = b for a symmetric matrix (upper half, row-major); both are overwritten. */
function solveUpper(k: Float64Array, n: number, b: Float64Array, columns: number): void {
  eliminate(k, n, n, b, columns);
  for (let p = n - 1; p >= 0; p--)
    for (let c = 0; c < columns; c++) {
      let sum = b[p * columns + c];
      for (let j = p + 1; j < n; j++) sum -= k[p * n + j] * b[j * columns + c];
      b[p * columns + c] = sum / k[p * n + p];
    }
}

/** Works out a leg: slice by slice from its held end to the cut. */
export function leg(form: LegForm): Leg {
  const { widthMm, heightMm, angleDeg, stripMm } = form;
  const half = ((angleDeg / 2) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(half), Math.sin(half)];
  const n: [number, number, number] = [-sin, cos, 0];
  const { places, isCorner, elements } = ring(form);
  const corners = places.flatMap((_, i) => (isCorner[i] ? [i] : []));
  const midOf = new Map(corners.map((i, at) => [i, at]));
  const lengthMm = LENGTH * Math.max(widthMm, heightMm) + widthMm / 2 / Math.tan(half);
  const stripAlong = stripMm / sin;
  const stations = [0, stripAlong];
  const first = ((lengthMm - stripAlong) * (RATIO - 1)) / (RATIO ** SLICES - 1);
  for (let s = 0; s < SLICES; s++) stations.push((stations.at(-1) as number) + first * RATIO ** s);
  /** A section that is slanted as the cut in the strip, and ever less so towards the far end. */
  const place = (station: number, [y, z]: Place): [number, number, number] => {
    const slant = station <= stripAlong ? 1 : 1 - (station - stripAlong) / (lengthMm - stripAlong);
    return [station + (slant * y * cos) / sin, y, z];
  };
  const plane = 3 * places.length;
  const mid = 3 * corners.length;
  const size = mid + 2 * plane;
  let schur: Float64Array | null = null;
  let carried = new Float64Array(plane * 4);
  for (let s = stations.length - 2; s >= 0; s--) {
    const k = new Float64Array(size * size);
    const loads = new Float64Array(size * 4);
    const [near, far] = [stations[s], stations[s + 1]];
    for (const { nodes, face } of elements) {
      const at: [number, number, number][] = [];
      const freedoms: number[] = [];
      for (const [a, b, c] of NODES) {
        // The brick's third way runs along the leg.
        const id = nodes.get(`${a} ${b}`) as number;
        at.push(place(((1 - c) * near + (1 + c) * far) / 2, places[id]));
        const from = c === 0 ? 3 * (midOf.get(id) as number) : c > 0 ? mid + 3 * id : mid + plane + 3 * id;
        freedoms.push(from, from + 1, from + 2);
      }
      // A bead draws in its own wall, square to itself: along the tube outside and inside, along the normal on the other two.
      const by = -0.5 / stripMm;
      const way = face < 2 ? [by, 0, 0, 0, 0, 0] : [by * n[0] ** 2, by * n[1] ** 2, 0, 2 * by * n[0] * n[1], 0, 0];
      const strain = s === 0 ? way : null;
      const made = brick(at, MATERIAL, strain);
      for (let p = 0; p < 60; p++) {
        loads[freedoms[p] * 4 + face] += made.load[p];
        for (let q = 0; q < 60; q++)
          if (freedoms[q] >= freedoms[p]) k[freedoms[p] * size + freedoms[q]] += made.k[60 * p + q];
      }
    }
    for (let i = 0; i < plane; i++) {
      const row = (mid + i) * size + mid;
      if (schur) for (let j = i; j < plane; j++) k[row + j] += schur[i * plane + j];
      // The far end is held.
      else k[row + i] += 1e9;
      for (let c = 0; c < 4; c++) loads[(mid + i) * 4 + c] += carried[i * 4 + c];
    }
    eliminate(k, size, mid + plane, loads, 4);
    schur = new Float64Array(plane * plane);
    for (let i = 0; i < plane; i++)
      for (let j = i; j < plane; j++) schur[i * plane + j] = k[(mid + plane + i) * size + mid + plane + j];
    carried = loads.slice((mid + plane) * 4);
  }
  const count = places.length;
  const columns = count + 4;
  const b = new Float64Array(plane * columns);
  for (let i = 0; i < count; i++)
    for (let w = 0; w < 3; w++) {
      b[(3 * i + w) * columns + i] = n[w];
      for (let c = 0; c < 4; c++) b[(3 * i + w) * columns + count + c] = carried[(3 * i + w) * 4 + c];
    }
  solveUpper(schur as Float64Array, plane, b, columns);
  const f = new Float64Array(count * count);
  const w = new Float64Array(count * 4);
  const nodes = places.map(([y, z]): CutNode => ({ x1Mm: y / sin, x3Mm: z }));
  const beam = cantilever(form, lengthMm, half);
  for (let i = 0; i < count; i++) {
    const u = (c: number): number =>
      n[0] * b[3 * i * columns + c] + n[1] * b[(3 * i + 1) * columns + c] + n[2] * b[(3 * i + 2) * columns + c];
    for (let j = 0; j < count; j++) f[i * count + j] = u(j) - beam(nodes[i], nodes[j]);
    for (let c = 0; c < 4; c++) w[i * 4 + c] = u(count + c);
  }
  for (let i = 0; i < count; i++)
    for (let j = 0; j < i; j++) {
      const mean = (f[i * count + j] + f[j * count + i]) / 2;
      f[i * count + j] = mean;
      f[j * count + i] = mean;
    }
  return { nodes, f, w };
}

/** Movement square to the cut of a point that is fixed to the end of a beam, per force on another, at a modulus of 1. */
function cantilever({ widthMm, heightMm, wallMm }: LegForm, lengthMm: number, half: number) {
  const [b, h, t] = [widthMm, heightMm, wallMm];
  const [bi, hi] = [b - 2 * t, h - 2 * t];
  const area = b * h - bi * hi;
  /** Second moments for bending in the plane and out of it. */
  const iIn = (h * b ** 3 - hi * bi ** 3) / 12;
  const iOut = (b * h ** 3 - bi * hi ** 3) / 12;
  const g = 1 / (2 * (1 + MATERIAL.nu));
  const mean = (b - t) * (h - t);
  const j = ((4 * mean ** 2 * t) / (2 * (b - t) + 2 * (h - t))) * (1 + (0.6 * t) / Math.min(b, h));
  const shear = (web: number, flange: number): number => {
    const i = (t * web ** 3) / 6 + (flange * t * web ** 2) / 2;
    const q0 = (t * web * flange) / 4;
    const q1 = (t * web ** 2) / 8;
    return (
      (i ** 2 * t) /
      (((4 * q0 ** 2) / 3) * (flange / 2) + 4 * (q0 ** 2 + (4 * q0 * q1) / 3 + (8 * q1 ** 2) / 15) * (web / 2))
    );
  };
  const aIn = (1 + t / Math.min(b, h)) * shear(b - t, h - t);
  const l = lengthMm;
  const [cos, sin] = [Math.cos(half), Math.sin(half)];
  // Forces at the axis from a unit force along n = (-sin, cos, 0) at r = x1 (cos, sin, 0) + x3 z; held at x = l.
  return (p: CutNode, q: CutNode): number => {
    const [nx, ny] = [-sin, cos];
    // Moment r x n: about x: -x3 ny; about y: x3 nx; about z: x1 (cos cos + sin sin) = x1.
    const m = { x: -q.x3Mm * ny, y: q.x3Mm * nx, z: q.x1Mm };
    const ux = (nx * l) / area;
    // A beam that is held at x = l and loaded at x = 0 (its other end): bending in x-y by ny and m.z.
    const uy = ny * (l ** 3 / (3 * iIn) + l / (g * aIn)) - (m.z * l ** 2) / (2 * iIn);
    const rz = (m.z * l) / iIn - (ny * l ** 2) / (2 * iIn);
    const ry = (m.y * l) / iOut;
    const rx = (m.x * l) / (g * j);
    // Movement of p along n: n . (u + r x p).
    return nx * ux + ny * uy + (-p.x3Mm * ny * rx + p.x3Mm * nx * ry + p.x1Mm * rz);
  };
}
