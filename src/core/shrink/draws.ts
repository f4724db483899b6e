import type { Draws } from "../mechanics";
import { cholesky, normalDraw, seeded } from "../numeric";
import { type FactorName, type ShrinkFactors, TOGETHER } from "../weld";

/** Factors that all of a frame shares in a draw. */
const SHARED = ["transverse", "longitudinal", "filletClosing", "tackHeat", "day", "otherMaterial", "yield"] as const;
/** What a stiffness of the joints is scattered by. */
const STIFFNESS = "stiffness of joints";

/** Where scatter comes from, in groups that somebody could do something about. */
export const SCATTERS = ["heat", "tacks", "beads", "gaps", "joints", "strength"] as const;
export type ScatterName = (typeof SCATTERS)[number];

/** A source of scatter: its group and its standard normal value in each draw (nought in draw 0). */
interface Column {
  of: ScatterName;
  z: Float64Array;
}

const logSd = (cv: number): number => Math.sqrt(Math.log(1 + cv * cv));
/** Lognormal with mean-free logarithm: half of the draws lie above 1. */
const lognormal = (cv: number, z: number): number => Math.exp(logSd(cv) * z);

function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}

/** Tacks, beads and joints of a frame, by their ids. */
export interface Scattered {
  tacks: readonly string[];
  beads: readonly string[];
  joints: readonly string[];
}

/** Draws that can also say which scatter an outcome hangs on. */
export interface FrameDraws extends Draws {
  /** Normal values that the stiffness of all joints is scattered by. */
  stiffness: Float64Array;
  /** Share of an outcome's variance that each group makes, as far as it is linear in it. @param values one per draw. */
  sharesOf: (values: ArrayLike<number>) => Record<ScatterName, number>;
}

/**
 * Fixed draws from the stated scatters. Every source of scatter has a column of normal values; columns are made mean-free, of unit variance
 * and free of each other (Gram and Schmidt, in the order of their names), so that what is linear in them has exactly its variance
 * however few draws there are. The same order of beads or another gives the same draws.
 * @param factors with their coefficients of variation. @param count how many, draw 0 being nominal. @param seed any integer.
 * @param of the beads and joints that scatter. @param beadsFirst where not all can be free of each other, the beads are: a search among their
 * orders would else find what is common to them by chance.
 */
export function drawsOf(
  factors: ShrinkFactors,
  count: number,
  seed: number,
  of: Scattered,
  beadsFirst = false,
): FrameDraws {
  const columns = new Map<string, Column>();
  const basis: Float64Array[] = [];
  const n = count - 1;
  const add = (name: string, group: ScatterName): void => {
    const random = seeded(seed ^ hash(name));
    const z = new Float64Array(count);
    for (let d = 1; d < count; d++) z[d] = normalDraw(random);
    // As many as can be free of each other with room to spare; beyond, columns are as they fall.
    if (2 * basis.length < n) {
      setApart(z, basis);
      basis.push(z);
    }
    columns.set(name, { of: group, z });
  };
  for (const name of SHARED) add(name, name === "yield" ? "strength" : "heat");
  const beads = [...new Set(of.beads)].sort();
  if (beadsFirst) for (const id of beads) add(`bead ${id}`, "beads");
  add(STIFFNESS, "joints");
  for (const id of [...of.joints].sort()) add(`gap ${id}`, "gaps");
  for (const id of [...of.joints].sort()) add(`joint ${id}`, "joints");
  for (const id of [...new Set(of.tacks)].sort()) add(`bead ${id}`, "tacks");
  if (!beadsFirst) for (const id of beads) add(`bead ${id}`, "beads");

  const column = (name: string): Float64Array => {
    const known = columns.get(name);
    if (!known) throw new RangeError(`${name} does not scatter in these draws.`);
    return known.z;
  };
  const scattered = (name: string, cv: number): Float64Array => column(name).map((z) => lognormal(cv, z));
  const common = inCommon(factors, column);
  const shared = Object.fromEntries(
    SHARED.map((f) => [f, (common.get(f) ?? column(f)).map((z) => lognormal(factors[f].cv, z))]),
  ) as Partial<Record<FactorName, Float64Array>>;
  const made = new Map<string, Float64Array>();
  const kept = (key: string, make: () => Float64Array): Float64Array => {
    const known = made.get(key) ?? make();
    made.set(key, known);
    return known;
  };
  return {
    count,
    shared: (names) =>
      kept(names.join(), () =>
        Float64Array.from({ length: count }, (_, d) =>
          names.reduce((p, name) => p * (shared[name as FactorName]?.[d] ?? 1), 1),
        ),
      ),
    gap: (joint) => kept(`gap ${joint}`, () => scattered(`gap ${joint}`, factors.gap.cv)),
    joint: (id) => kept(`joint ${id}`, () => scattered(`joint ${id}`, factors.unfitted.cv)),
    bead: (id, besides) =>
      kept(`bead ${id} ${besides}`, () =>
        scattered(`bead ${id}`, Math.hypot(factors.perBead.cv, factors.fit.cv, besides)),
      ),
    stiffness: column(STIFFNESS),
    sharesOf: (values) => sharesOf(values, [...columns.values()]),
  };
}

/** Normal values of factors that have something in common, made of columns that have not. Source: Cholesky factor of their correlation. */
function inCommon(factors: ShrinkFactors, column: (name: string) => Float64Array): Map<string, Float64Array> {
  const { together } = factors;
  const made = new Map<string, Float64Array>();
  if (!together) return made;
  const sds = TOGETHER.map((f) => logSd(factors[f].cv));
  const l = cholesky(
    TOGETHER.map((_, i) =>
      TOGETHER.map((__, j) => (i === j ? 1 : sds[i] * sds[j] > 0 ? together[i][j] / (sds[i] * sds[j]) : 0)),
    ),
  );
  if (!l) return made;
  const own = TOGETHER.map(column);
  TOGETHER.forEach((f, i) => {
    made.set(
      f,
      own[i].map((_, d) => own.slice(0, i + 1).reduce((s, z, j) => s + l[i][j] * z[d], 0)),
    );
  });
  return made;
}

/** Takes the mean and what others have in common with it out of a column; draw 0 stays nought. */
function setApart(z: Float64Array, basis: readonly Float64Array[]): void {
  const n = z.length - 1;
  let mean = 0;
  for (let d = 1; d <= n; d++) mean += z[d] / n;
  for (let d = 1; d <= n; d++) z[d] = z[d] - mean;
  for (const b of basis) {
    let common = 0;
    for (let d = 1; d <= n; d++) common += (z[d] * b[d]) / n;
    for (let d = 1; d <= n; d++) z[d] = z[d] - common * b[d];
  }
  let square = 0;
  for (let d = 1; d <= n; d++) square += z[d] ** 2 / n;
  if (square > 0) for (let d = 1; d <= n; d++) z[d] = z[d] / Math.sqrt(square);
}

function sharesOf(values: ArrayLike<number>, columns: readonly Column[]): Record<ScatterName, number> {
  const n = values.length - 1;
  let mean = 0;
  for (let d = 1; d <= n; d++) mean += values[d] / n;
  let variance = 0;
  for (let d = 1; d <= n; d++) variance += (values[d] - mean) ** 2 / n;
  const shares = Object.fromEntries(SCATTERS.map((s) => [s, 0])) as Record<ScatterName, number>;
  if (!(variance > 0)) return shares;
  for (const { of, z } of columns) {
    let common = 0;
    for (let d = 1; d <= n; d++) common += ((values[d] - mean) * z[d]) / n;
    // What chance alone would make of a column that has no part in it is taken off.
    shares[of] += common ** 2 / variance - 1 / n;
  }
  for (const s of SCATTERS) shares[s] = Math.min(1, Math.max(0, shares[s]));
  return shares;
}
