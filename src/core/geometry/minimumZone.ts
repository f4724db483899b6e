import type { Vec2 } from "../numeric";

/** Points that hold the minimum zone, and on which face each lies. */
interface Zone {
  /** Height, mm, along z. */
  zoneMm: number;
  points: [number, number, number, number];
  /** +1 on the upper face, -1 on the lower. */
  faces: [number, number, number, number];
}

/** Exchanges are tried this often at most; a dozen are usual. */
const MOST = 500;
/** Places are moved by this share of their extent, so that no three of them stand exactly in line. */
const SHAKE = 1e-9;
const SLACK = 1e-12;

/** Inverse of a 4 x 4 by elimination with pivots, in place of `out`. @returns false when it is singular. */
function invert4(m: Float64Array, out: Float64Array): boolean {
  out.fill(0);
  for (let i = 0; i < 4; i++) out[5 * i] = 1;
  for (let c = 0; c < 4; c++) {
    let best = c;
    for (let r = c + 1; r < 4; r++) if (Math.abs(m[4 * r + c]) > Math.abs(m[4 * best + c])) best = r;
    const pivot = m[4 * best + c];
    if (Math.abs(pivot) < 1e-300) return false;
    for (let k = 0; k < 4; k++) {
      const [a, b] = [m[4 * c + k], m[4 * best + k]];
      m[4 * c + k] = b / pivot;
      m[4 * best + k] = best === c ? b / pivot : a;
      const [p, q] = [out[4 * c + k], out[4 * best + k]];
      out[4 * c + k] = q / pivot;
      out[4 * best + k] = best === c ? q / pivot : p;
    }
    for (let r = 0; r < 4; r++) {
      if (r === c) continue;
      const f = m[4 * r + c];
      if (f === 0) continue;
      for (let k = 0; k < 4; k++) {
        m[4 * r + k] = m[4 * r + k] - f * m[4 * c + k];
        out[4 * r + k] = out[4 * r + k] - f * out[4 * c + k];
      }
    }
  }
  return true;
}

/**
 * The minimum zone of some places, for as many sets of heights as one likes: exact, by exchanging one point at a time.
 * Source: Stiefel's exchange, which is the dual simplex method of the Chebyshev fit (Cheney, Introduction to Approximation
 * Theory, from memory).
 */
export class MinimumZone {
  private readonly x: Float64Array;
  private readonly y: Float64Array;
  private readonly basis = new Float64Array(16);
  private readonly inverse = new Float64Array(16);
  private start: Zone | null = null;

  /** @param xy four places or more, not all on one line. */
  constructor(xy: readonly Vec2[]) {
    const n = xy.length;
    const cx = xy.reduce((s, p) => s + p.x, 0) / n;
    const cy = xy.reduce((s, p) => s + p.y, 0) / n;
    const size = Math.max(...xy.map((p) => Math.max(Math.abs(p.x - cx), Math.abs(p.y - cy)))) || 1;
    // Golden-ratio steps: spread out, the same every time.
    const shake = (i: number, k: number): number => SHAKE * ((((i + 1) * k) % 1) - 0.5);
    this.x = Float64Array.from(xy, (p, i) => (p.x - cx) / size + shake(i, 0.618_033_988_7));
    this.y = Float64Array.from(xy, (p, i) => (p.y - cy) / size + shake(i, 0.754_877_666_2));
  }

  /** Four places to begin with: spread out, no three of them in line. */
  private first(): [number, number, number, number] {
    const { x, y } = this;
    const n = x.length;
    const area = (i: number, j: number, k: number): number =>
      (x[j] - x[i]) * (y[k] - y[i]) - (y[j] - y[i]) * (x[k] - x[i]);
    const farthest = (of: (i: number) => number): number => {
      let best = 0;
      for (let i = 1; i < n; i++) if (of(i) > of(best)) best = i;
      return best;
    };
    const a = farthest((i) => Math.hypot(x[i], y[i]));
    const b = farthest((i) => Math.hypot(x[i] - x[a], y[i] - y[a]));
    const c = farthest((i) => Math.abs(area(a, b, i)));
    const d = farthest((i) =>
      i === a || i === b || i === c ? -1 : Math.abs(area(a, b, i)) + Math.abs(area(b, c, i)) + Math.abs(area(c, a, i)),
    );
    return [a, b, c, d];
  }

  /** Faces of four places such that they hold a zone of these heights. */
  private facesOf(points: Zone["points"], z: ArrayLike<number>): Zone["faces"] {
    const { x, y } = this;
    const det = (i: number, j: number, k: number): number => {
      const [p, q, r] = [points[i], points[j], points[k]];
      return (x[q] - x[p]) * (y[r] - y[p]) - (y[q] - y[p]) * (x[r] - x[p]);
    };
    const lam = [det(1, 2, 3), -det(0, 2, 3), det(0, 1, 3), -det(0, 1, 2)];
    const sum = lam.reduce((s, l, i) => s + l * z[points[i]], 0);
    return lam.map((l) => (l * (sum < 0 ? -1 : 1) < 0 ? -1 : 1)) as Zone["faces"];
  }

  /** @param z heights, mm, one for each place. @returns the zone; it is also where the next search begins. */
  of(z: ArrayLike<number>): Zone {
    const { x, y, basis, inverse } = this;
    const points = [...(this.start?.points ?? this.first())] as [number, number, number, number];
    const faces = this.facesOf(points, z);
    let half = 0;
    for (let turn = 0; turn < MOST; turn++) {
      // Rows: plane at the point plus its face times half the zone is its height.
      for (let r = 0; r < 4; r++) {
        const i = points[r];
        basis[4 * r] = 1;
        basis[4 * r + 1] = x[i];
        basis[4 * r + 2] = y[i];
        basis[4 * r + 3] = faces[r];
      }
      if (!invert4(basis, inverse)) break;
      let [a, bx, by] = [0, 0, 0];
      half = 0;
      for (let r = 0; r < 4; r++) {
        const zr = z[points[r]];
        a += inverse[r] * zr;
        bx += inverse[4 + r] * zr;
        by += inverse[8 + r] * zr;
        half += inverse[12 + r] * zr;
      }
      let worst = -1;
      let most = Math.abs(half) + SLACK + 1e-12 * Math.abs(a);
      let face = 1;
      for (let i = 0; i < x.length; i++) {
        const off = z[i] - a - bx * x[i] - by * y[i];
        if (Math.abs(off) > most) {
          most = Math.abs(off);
          worst = i;
          face = off < 0 ? -1 : 1;
        }
      }
      if (worst < 0) break;
      // The incoming point as a mixture of the four: the one whose share is used up first goes.
      let leaving = -1;
      let least = Number.POSITIVE_INFINITY;
      for (let r = 0; r < 4; r++) {
        const share = inverse[12 + r] * faces[r];
        const mix =
          (inverse[r] + inverse[4 + r] * x[worst] + inverse[8 + r] * y[worst] + inverse[12 + r] * face) *
          faces[r] *
          face;
        if (mix > 1e-14 && share / mix < least) {
          least = share / mix;
          leaving = r;
        }
      }
      if (leaving < 0) break;
      points[leaving] = worst;
      faces[leaving] = face;
    }
    const found: Zone = { zoneMm: 2 * Math.abs(half), points, faces };
    this.start = found;
    return found;
  }
}
