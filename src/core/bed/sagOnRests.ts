import { bodyPoints, FROM_ABOVE, type Structure, type StructureMember, seenAt, TOLERANCES } from "../frame";
import { nearestOnStretch } from "../geometry";
import { fromStructure, type Station, underWeight } from "../mechanics";
import { add, add3, dot3, norm3, scale3, sub3, type Vec2, type Vec3 } from "../numeric";
import { frameProblems, rigidModel } from "../weld";

/** How a frame sags on rests that lie in one plane. */
interface SagOnRests {
  /** Lowest and highest point against the rests, mm. */
  lowMm: number;
  highMm: number;
  /** Where it sags most, from the footprint's origin. */
  at: Vec2;
  /** Load on each rest, N; a rest that would have to pull carries nothing. */
  loadsN: number[];
}

/** Standard gravity, N/kg. */
export const GRAVITY_N_PER_KG = 9.80665;
/** Stretches that a member is looked at in. */
const STRETCHES = 4;

/** Places of a member that can lie on the bed: all of one that lies there, the foot of one that stands on it. */
function onBed(m: StructureMember, lowMm: number): [Vec3, Vec3] | null {
  const bottom = (p: Vec3): number => {
    const reach = Math.max(...m.outline.map((o) => Math.abs(o.x * m.axes[1][2] + o.y * m.axes[2][2])));
    return p[2] - reach;
  };
  const [p, q] = [m.ends.from.at, m.ends.to.at];
  const low = (v: Vec3): boolean => bottom(v) - lowMm < TOLERANCES.onBedMm;
  if (low(p) && low(q)) return [p, q];
  return low(p) ? [p, p] : low(q) ? [q, q] : null;
}

/** Lowest place of all members, mm. */
const lowestOf = (structure: Structure): number =>
  Math.min(...structure.members.flatMap((m) => bodyPoints(m).map((p) => p[2])));

/** For each rest the nearest place of what lies on the bed; null when nothing does. */
function propped(structure: Structure, rests: readonly Vec2[], origin: Vec2): Station[] | null {
  const lowest = lowestOf(structure);
  const lying = structure.members.flatMap((m) => {
    const places = onBed(m, lowest);
    return places ? [{ id: m.id, from: places[0], to: places[1] }] : [];
  });
  if (lying.length === 0) return null;
  return rests.map((rest): Station => {
    const p = add(rest, origin);
    const found = lying.map((l) => ({
      ...l,
      ...nearestOnStretch(p, seenAt(l.from, FROM_ABOVE), seenAt(l.to, FROM_ABOVE)),
    }));
    const best = found.reduce((a, b) => (b.offMm < a.offMm ? b : a));
    return { member: best.id, at: add3(best.from, scale3(sub3(best.to, best.from), best.share)) };
  });
}

/** Weight of every member with the parts that are nearest to it, N. */
function weightsN(structure: Structure): Map<string, number> {
  const kg = new Map(structure.members.map((m) => [m.id, m.massKg]));
  for (const part of structure.parts) {
    const far = (m: StructureMember): number => {
      const [p, q] = [m.ends.from.at, m.ends.to.at];
      const d = sub3(q, p);
      const share = Math.max(0, Math.min(1, dot3(sub3(part.centreOfMass, p), d) / dot3(d, d)));
      return norm3(sub3(part.centreOfMass, add3(p, scale3(d, share))));
    };
    const nearest = structure.members.reduce((a, b) => (far(b) < far(a) ? b : a));
    kg.set(nearest.id, (kg.get(nearest.id) ?? 0) + part.massKg);
  }
  return new Map([...kg].map(([id, m]) => [id, m * GRAVITY_N_PER_KG]));
}

/** Places between, so that no stretch of a member is longer than a quarter of it. */
const between = (structure: Structure): Station[] =>
  structure.members.flatMap((m) =>
    Array.from({ length: STRETCHES - 1 }, (_, i): Station => {
      const [p, q] = [m.ends.from.at, m.ends.to.at];
      return { member: m.id, at: add3(p, scale3(sub3(q, p), (i + 1) / STRETCHES)) };
    }).filter(() => norm3(sub3(m.to, m.from)) > STRETCHES * m.properties.widthMm),
  );

/**
 * Sag of a frame under its own weight on rests in one plane, once it holds together: every member with its own section,
 * material, level and weight; those that lie on the bed carry those that do not.
 * @param rests places from the footprint's origin; each carries the nearest place that lies on the bed. @param origin of the
 * footprint, in the frame's own place.
 * @returns null when it cannot stand on them, or its members do not make one frame.
 */
export function sagOnRests(structure: Structure, rests: readonly Vec2[], origin: Vec2): SagOnRests | null {
  const props = rests.length < 3 ? null : propped(structure, rests, origin);
  if (!props) return null;
  const { frame, stations } = fromStructure(structure, [...props, ...between(structure)]);
  if (frameProblems(frame).length > 0) return null;
  const model = rigidModel(frame);
  const nodes = props.map((p, i) => model.nodeOf(p.member, stations[i]));
  const lengthMm = new Map<string, number>();
  for (const e of model.elements) lengthMm.set(e.member, (lengthMm.get(e.member) ?? 0) + e.lengthMm);
  const weight = new Map(
    [...weightsN(structure)].map(([id, n]) => [id, n / Math.max(1, lengthMm.get(id) ?? 0)] as const),
  );
  const found = underWeight(model, weight, nodes);
  if (!found) return null;
  const up = model.nodes.map((_, i) => found.movement[6 * i + 2]);
  const lowest = up.reduce((m, v, i) => (v < up[m] ? i : m), 0);
  const [x, y] = model.nodes[lowest]?.at ?? [0, 0];
  return {
    lowMm: Math.min(...up),
    highMm: Math.max(...up),
    at: { x: x - origin.x, y: y - origin.y },
    loadsN: found.loadsN,
  };
}
