/** Corner signs of a brick, then its twelve edges' middles: 20 nodes, the mid-edge ones with a nought. */
export const NODES: readonly (readonly [number, number, number])[] = [
  ...[-1, 1].flatMap((c) => [-1, 1].flatMap((b) => [-1, 1].map((a): [number, number, number] => [a, b, c]))),
  ...[-1, 1].flatMap((c) => [-1, 1].map((b): [number, number, number] => [0, b, c])),
  ...[-1, 1].flatMap((c) => [-1, 1].map((a): [number, number, number] => [a, 0, c])),
  ...[-1, 1].flatMap((b) => [-1, 1].map((a): [number, number, number] => [a, b, 0])),
];

/** Derivatives of the 20 serendipity functions after the three local ways, three rows of 20. */
function slopes(at: readonly number[]): Float64Array {
  const out = new Float64Array(60);
  NODES.forEach((node, k) => {
    const one = [0, 1, 2].map((i) => (node[i] === 0 ? 1 - at[i] ** 2 : 1 + node[i] * at[i]));
    const zero = node.indexOf(0);
    for (let w = 0; w < 3; w++) {
      const own = node[w] === 0 ? -2 * at[w] : node[w];
      const others = one[(w + 1) % 3] * one[(w + 2) % 3];
      if (zero >= 0) out[20 * w + k] = 0.25 * own * others;
      else {
        const sum = node[0] * at[0] + node[1] * at[1] + node[2] * at[2] - 2;
        out[20 * w + k] = 0.125 * others * (own * sum + one[w] * node[w]);
      }
    }
  });
  return out;
}

/** Isotropic elasticity, 6 x 6, for strains xx, yy, zz, xy, yz, zx (engineering shear). */
function elasticity(eMPa: number, nu: number): Float64Array {
  const d = new Float64Array(36);
  const lame = (eMPa * nu) / ((1 + nu) * (1 - 2 * nu));
  const g = eMPa / (2 * (1 + nu));
  for (let i = 0; i < 3; i++) {
    for (let j = 0; j < 3; j++) d[6 * i + j] = lame;
    d[7 * i] = lame + 2 * g;
    d[7 * (i + 3)] = g;
  }
  return d;
}

const GAUSS = [-Math.sqrt(1 / 3), Math.sqrt(1 / 3)];

/**
 * Stiffness of a 20-node brick, reduced integration (eight points).
 * @param at the nodes in the order of NODES, mm. @param strain a strain it has by itself: xx, yy, zz, xy, yz, zx; null without.
 * @returns 60 x 60 and the nodal loads of that strain.
 */
export function brick(
  at: readonly (readonly [number, number, number])[],
  { eMPa, nu }: { eMPa: number; nu: number },
  strain: readonly number[] | null,
): { k: Float64Array; load: Float64Array } {
  const d = elasticity(eMPa, nu);
  const k = new Float64Array(3600);
  const load = new Float64Array(60);
  for (const c of GAUSS)
    for (const b of GAUSS)
      for (const a of GAUSS) {
        const local = slopes([a, b, c]);
        const j = new Float64Array(9);
        for (let w = 0; w < 3; w++)
          for (let i = 0; i < 3; i++) {
            let sum = 0;
            for (let n = 0; n < 20; n++) sum += local[20 * w + n] * at[n][i];
            j[3 * w + i] = sum;
          }
        const cofactor = (r: number, s: number): number =>
          j[3 * ((r + 1) % 3) + ((s + 1) % 3)] * j[3 * ((r + 2) % 3) + ((s + 2) % 3)] -
          j[3 * ((r + 1) % 3) + ((s + 2) % 3)] * j[3 * ((r + 2) % 3) + ((s + 1) % 3)];
        const det = j[0] * cofactor(0, 0) + j[1] * cofactor(0, 1) + j[2] * cofactor(0, 2);
        const rows = new Float64Array(360);
        for (let n = 0; n < 20; n++) {
          const g = [0, 1, 2].map((i) => {
            let sum = 0;
            for (let w = 0; w < 3; w++) sum += cofactor(w, i) * local[20 * w + n];
            return sum / det;
          });
          const put = (row: number, way: number, v: number) => {
            rows[60 * row + 3 * n + way] = v;
          };
          put(0, 0, g[0]);
          put(1, 1, g[1]);
          put(2, 2, g[2]);
          put(3, 0, g[1]);
          put(3, 1, g[0]);
          put(4, 1, g[2]);
          put(4, 2, g[1]);
          put(5, 2, g[0]);
          put(5, 0, g[2]);
        }
        const size = Math.abs(det);
        const stress = new Float64Array(360);
        for (let p = 0; p < 6; p++)
          for (let q = 0; q < 6; q++) {
            const v = d[6 * p + q];
            if (v !== 0) for (let n = 0; n < 60; n++) stress[60 * p + n] += v * rows[60 * q + n];
          }
        for (let p = 0; p < 6; p++)
          for (let m = 0; m < 60; m++) {
            const v = size * rows[60 * p + m];
            if (strain) load[m] += size * stress[60 * p + m] * strain[p];
            if (v !== 0) for (let n = 0; n < 60; n++) k[60 * m + n] += v * stress[60 * p + n];
          }
      }
  return { k, load };
}
