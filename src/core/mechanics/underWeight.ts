import { factorSkyline, type Skyline, skyline, solveSkyline, type Vec3 } from "../numeric";
import { freedomOrder } from "./freedomOrder";
import type { MechanicalModel } from "./model";
import { springEntries } from "./springs";

/** A frame under its own weight on props that only push. */
interface UnderWeight {
  /** Movement of every node, mm and rad. */
  movement: Float64Array;
  /** Load on each prop, N; one that would have to pull carries nothing. */
  loadsN: number[];
}

/** Stiffness of a prop, N/mm: far above any tube, far below what would spoil the figures. */
const PROP_N_PER_MM = 1e7;
/** Holds the frame against sliding where it would otherwise drift without any force, N/mm. */
const SLIDE_N_PER_MM = 1e3;

/**
 * Weight of every element shared out to its two nodes: forces, and the moments of a load spread evenly along it.
 * @param weightNPerMm by member, N per mm. @returns a load over the freedoms.
 */
export function weightLoads(model: MechanicalModel, weightNPerMm: ReadonlyMap<string, number>): Float64Array {
  const f = new Float64Array(model.freedoms);
  const put = (i: number, v: number): void => {
    f[i] = f[i] + v;
  };
  for (const { member, from, to, lengthMm } of model.elements) {
    const w = weightNPerMm.get(member) ?? 0;
    const axis = (model.members.get(member) as { axes: readonly Vec3[] }).axes[0];
    put(6 * from + 2, (-w * lengthMm) / 2);
    put(6 * to + 2, (-w * lengthMm) / 2);
    // Fixed-end moments of q = (0, 0, -w): L^2/12 x cross q at the first end, the opposite at the second.
    const k = (w * lengthMm ** 2) / 12;
    const [mx, my] = [-k * axis[1], k * axis[0]];
    put(6 * from + 3, mx);
    put(6 * from + 4, my);
    put(6 * to + 3, -mx);
    put(6 * to + 4, -my);
  }
  return f;
}

/**
 * How a frame hangs between props under its own weight. Props only push: one that would have to hold the frame down is let go,
 * the hardest pulling first.
 * Source: stiffness method; load spread along a beam by its fixed-end moments (closed form).
 * @param model joints as they hold. @param weightNPerMm by member, N per mm. @param props nodes that stand on something.
 * @returns null when it cannot stand on them.
 */
export function underWeight(
  model: MechanicalModel,
  weightNPerMm: ReadonlyMap<string, number>,
  props: readonly number[],
): UnderWeight | null {
  const place = freedomOrder(model);
  const at = (i: number): number => place[i];
  const base: [number, number, number][] = model.entries.map(([i, j, v]) => [at(i), at(j), v]);
  for (const joint of model.joints)
    for (const [i, j, v] of springEntries(joint.rows, joint.contact)) base.push([at(i), at(j), v]);
  const load = weightLoads(model, weightNPerMm);
  const held = new Set(props);
  for (let turn = 0; turn <= props.length; turn++) {
    const standing = [...held];
    const [first, second] = [standing[0], standing.at(-1)];
    if (standing.length < 3 || first === undefined || second === undefined) return null;
    const entries = [...base];
    for (const n of standing) entries.push([at(6 * n + 2), at(6 * n + 2), PROP_N_PER_MM]);
    // Three ways to slide, held without any reaction: loads are upright.
    for (const i of [6 * first, 6 * first + 1]) entries.push([at(i), at(i), SLIDE_N_PER_MM]);
    const [p, q] = [model.nodes[first], model.nodes[second]];
    const across = Math.abs(p.at[0] - q.at[0]) > Math.abs(p.at[1] - q.at[1]) ? 6 * second + 1 : 6 * second;
    entries.push([at(across), at(across), SLIDE_N_PER_MM]);
    const matrix: Skyline = skyline(model.freedoms, entries);
    if (factorSkyline(matrix) >= 0) return null;
    const x = new Float64Array(model.freedoms);
    for (let i = 0; i < x.length; i++) x[at(i)] = load[i];
    solveSkyline(matrix, x);
    const movement = Float64Array.from(load, (_, i) => x[at(i)]);
    if (!movement.every(Number.isFinite)) return null;
    const up = (n: number): number => movement[6 * n + 2];
    const pulling = standing.filter((n) => up(n) > 1e-12);
    if (pulling.length === 0) {
      // A frame that hangs together by nothing falls without end.
      if (movement.some((v) => Math.abs(v) > 1e5)) return null;
      return { movement, loadsN: props.map((n) => (held.has(n) ? -up(n) * PROP_N_PER_MM : 0)) };
    }
    held.delete(pulling.reduce((m, n) => (up(n) > up(m) ? n : m)));
  }
  return null;
}
