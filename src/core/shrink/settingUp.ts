import type { Structure } from "../frame";
import { CORNERS, ends, SPANS, type Span } from "../geometry";
import { type MechanicalFrame, movedFrame, placedBy, type StructureMechanics } from "../mechanics";
import { add3, distance, dot3, norm3, partOf, scale3, squareTo, sub3, type Vec2, type Vec3 } from "../numeric";
import { cornerAngleDeg, footWayMm, mouthsOf, placesOf } from "../square";
import type { Estimate } from "../units";
import { NOMINAL_JOINTS, type ShrinkFactors } from "../weld";
import { frameOutputs } from "./frameOutcomes";
import { type NominalRun, nominalRun } from "./nominalRun";
import { type OutcomeId, outcomeKey } from "./outcomeId";
import { sharedAside } from "./sharedAside";
import type { Simulation } from "./simulate";
import type { SimulationStep } from "./simulationSteps";

/** One thing to set up off nominal. */
export interface SetUpTarget {
  id: OutcomeId;
  unit: "mm" | "°";
  /** What to set it to; the band says how far the cold frame may still scatter about nominal. */
  target: Estimate;
  /** What it shall be when cold. */
  nominal: number;
}

/** What to build off nominal so that the cold frame lands on nominal. */
export interface SetUpShape {
  /** Sides, diagonals, lengths (mm), corner presets (degrees), camber of each member (mm). */
  targets: SetUpTarget[];
  /** How far each joint, and each free end that is measured, is set off its drawn place, mm: by the joint's id, by the place's name. */
  offsetsMm: Record<string, Vec3>;
  /** What stays at the worst place of a member that no straight line lands on nominal everywhere, mm, by member; left out where all do. */
  asideMm?: Record<string, number>;
  /** Rounds that it took, and what was left at the end, mm. */
  rounds: number;
  leftMm: number;
  /** How far a joint would move when that is more than the model can say: then nothing is set off. Null as a rule. */
  beyondMm: number | null;
}

/** What was simulated of a frame, as far as setting it up asks. */
type Simulated = Pick<Simulation, "outcomes" | "points" | "history">;
/** As far as finding the shape asks: the outputs at the end of the last row. */
type Moved = Pick<Simulation, "history">;

/** A frame set up off nominal. */
interface SettingUp {
  beyondMm: number | null;
  /** The frame as it is set up. */
  frame: MechanicalFrame;
  /** What is to be set up instead, by what it was simulated to do; null where it lands on nominal. */
  instead: (simulation: Moved) => SettingUp | null;
  toSetUp: (simulation: Simulated) => SetUpShape;
}

/** The set-up shape is found when another one would change no corner by more than this, mm: a twentieth of what a tape is read to. */
const CLOSE_MM = 5e-3;
const MOST_ROUNDS = 8;
/** Where corners go further than this, mm, the first answer is as a rule not close enough: the likely frame is asked before its bands are. */
const FAR_MM = 1;
/** Movement beyond this share of the frame's second extent is more than a linear model can say. */
const MOST_SHARE = 0.02;

const STILL: Vec3 = [0, 0, 0];

/** How far the model of small movements reaches for a frame, mm. */
function reachMm(structure: Structure): number {
  const size = structure.high.map((v, i) => v - structure.low[i]).sort((a, b) => b - a);
  return MOST_SHARE * Math.max(size[1], 1);
}

/** What the corners of a quadrilateral move by, by point, from the outputs of a run: they come first. Nothing without one. */
function cornersMoved({ quad }: Structure, { joints }: StructureMechanics, out: Float64Array): Record<string, Vec3> {
  const points = quad ? CORNERS.map((c) => joints.get(quad.joints[c])?.a as string) : [];
  return Object.fromEntries(
    points.map((p, i) => [p, [out[3 * i], out[3 * i + 1], out[3 * i + 2]] as unknown as Vec3] as const),
  );
}

/**
 * Finds the corners to set up: nominal less the movement that this very set-up then makes. What lies in the quadrilateral's plane stays
 * in it. The first answer is nominal less what the frame moves by as it is drawn; where that is far, the likely frame is asked again; what
 * is simulated in the end tells whether it stands still, and else what to set up
 * instead. What no quadrilateral places is laid straight by its own movement, once that is known.
 * @param first is told the run of the frame as it is drawn: set up off nominal it moves alike, but for a hundredth.
 * @throws RangeError when frame or steps have an error.
 */
export function* settingUp(
  structure: Structure,
  mechanics: StructureMechanics,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors,
  first: (run: NominalRun) => void = () => undefined,
): Generator<number, SettingUp> {
  const { frame } = mechanics;
  const depth = structure.quad?.view.depth;
  const most = reachMm(structure);
  const asDrawn = (rounds: number, beyondMm: number | null): SettingUp => ({
    beyondMm,
    frame,
    instead: () => null,
    toSetUp: (found) => shapeOf(structure, mechanics, frame, found, { rounds, leftMm: beyondMm ?? 0, beyondMm }),
  });
  /** Where the corners go when outputs are to be on nominal: the opposite of what they move by. */
  const oppositeOf = (out: Float64Array): Record<string, Vec3> =>
    Object.fromEntries(
      Object.entries(cornersMoved(structure, mechanics, out)).map(([name, v]) => [
        name,
        v.map((x, i) => (i === depth ? 0 : -x)) as unknown as Vec3,
      ]),
    );
  const setOffBy = (moves: Record<string, Vec3>, rounds: number): SettingUp => {
    const farthest = Math.max(...Object.values(moves).map(norm3));
    if (!(farthest <= most)) return asDrawn(rounds - 1, farthest);
    const set = movedFrame(frame, moves);
    const nextOf = ({ history }: Moved): Record<string, Vec3> => {
      const last = history.at(-1);
      return last ? oppositeOf(last) : moves;
    };
    const leftOf = (next: Record<string, Vec3>): number =>
      Math.max(...Object.entries(next).map(([p, v]) => norm3(sub3(v, moves[p] ?? STILL))));
    return {
      beyondMm: null,
      frame: set,
      instead: (found) => {
        const next = nextOf(found);
        return leftOf(next) <= CLOSE_MM || rounds === MOST_ROUNDS ? null : setOffBy(next, rounds + 1);
      },
      toSetUp: (found) => {
        const how = { rounds, leftMm: leftOf(nextOf(found)), beyondMm: null };
        return shapeOf(structure, mechanics, set, found, how);
      },
    };
  };
  if (!structure.quad) return asDrawn(0, null);
  const joints = { ...NOMINAL_JOINTS, gapMm: factors.gap.value };
  const outputs = frameOutputs(structure, mechanics.joints);
  const run = yield* partOf(nominalRun(frame, steps, factors, joints, outputs, "drawn"), 0, 0.5);
  first(run);
  const moves = oppositeOf(run.out);
  let shape = setOffBy(moves, 2);
  if (shape.beyondMm !== null || Math.max(...Object.values(moves).map(norm3)) < FAR_MM) return shape;
  for (let next: SettingUp | null = shape; next; ) {
    shape = next;
    const { out } = yield* partOf(nominalRun(shape.frame, steps, factors, joints, outputs, "set up"), 0.5, 0.5);
    next = shape.instead({ history: [out] });
  }
  return shape;
}

/** Points in which a member is joined to another. */
const joinedIn = (frame: MechanicalFrame): Set<string> =>
  new Set(frame.joints.flatMap((j) => [j.point, j.pointB ?? j.point]));

/**
 * The frame as it is laid: by the quadrilateral where that places a point, else off by what the point moves by. Tubes are laid
 * straight: a point between the outermost joints of its member stands on the line between those, for what that member bows by cannot
 * be laid; what no straight line meets is shared among the places of a member. The free end of a member goes along with the one joint that
 * holds it.
 * @param set the frame as the quadrilateral sets it. @param placed points that it places. @param moved what each point moves by, mm.
 * @param measured points of free ends that are measured.
 */
function laidStraight(
  frame: MechanicalFrame,
  set: MechanicalFrame,
  placed: ReadonlySet<string>,
  moved: ReadonlyMap<string, Vec3>,
  measured: ReadonlySet<string>,
): { laid: MechanicalFrame; asideMm: Record<string, number> } {
  const own = (p: string): Vec3 =>
    placed.has(p) ? sub3(set.points[p], frame.points[p]) : scale3(moved.get(p) ?? STILL, -1);
  const wish: Record<string, Vec3> = Object.fromEntries(Object.keys(frame.points).map((p) => [p, own(p)]));
  const joined = joinedIn(frame);
  const landing = new Set(frame.joints.flatMap((j) => (j.kind !== "lap" && j.pointB ? [j.pointB] : [])));
  const asideMm: Record<string, number> = {};
  for (const { id, points } of frame.members) {
    const held = points.filter((p) => joined.has(p));
    // What another member places, or what lands on one with its only joint, goes where that goes.
    if (points.some((p) => placed.has(p)) || (held.length === 1 && landing.has(held[0]))) continue;
    const places = points.filter((p) => joined.has(p) || measured.has(p));
    const [first, last] = [places[0], places.at(-1)];
    if (first === undefined || last === undefined || first === last) continue;
    const way = sub3(frame.points[last], frame.points[first]);
    const axis = scale3(way, 1 / norm3(way));
    const by = sharedAside(
      places.map((p) => {
        const [x, y] = squareTo(own(p), axis);
        // In plan: by how much it lifts is not laid.
        return { s: dot3(sub3(frame.points[p], frame.points[first]), axis), aside: [x, y, 0] };
      }),
    );
    by.forEach((v, i) => {
      wish[places[i]] = add3(wish[places[i]], v);
    });
    if (by.length > 0) asideMm[id] = Math.max(...by.map(norm3));
  }
  const laid = movedFrame(frame, wish);
  for (const { id, points } of frame.members) {
    const held = points.filter((p) => joined.has(p));
    const [joint] = held;
    if (joint === undefined || held.length !== 1 || asideMm[id] !== undefined) continue;
    // By the place on the other member: what the joint itself draws in is set off as it is.
    const at = frame.joints.find((j) => j.kind !== "lap" && j.pointB === joint)?.point ?? joint;
    const along = sub3(sub3(laid.points[at], frame.points[at]), own(at));
    for (const p of points) if (p !== joint && !placed.has(p)) wish[p] = add3(own(p), along);
  }
  return { laid: movedFrame(frame, wish), asideMm };
}

function shapeOf(
  structure: Structure,
  { frame, joints }: StructureMechanics,
  set: MechanicalFrame,
  { outcomes, points, history }: Simulated,
  how: Pick<SetUpShape, "rounds" | "leftMm" | "beyondMm">,
): SetUpShape {
  const { quad } = structure;
  const places = placesOf(structure);
  const roots = new Set(quad ? CORNERS.map((c) => joints.get(quad.joints[c])?.a as string) : []);
  const placed = placedBy(frame, roots);
  const last = history.at(-1);
  // What two ends share goes by the mean of both, not by the one that was looked at last.
  const [shared, single] = [points.filter((p) => p.member === null), points.filter((p) => p.member !== null)];
  const moved = new Map(
    [...single, ...shared].flatMap(({ point, first }) =>
      point !== null && last ? [[point, [0, 1, 2].map((i) => last[first + i]) as unknown as Vec3] as const] : [],
    ),
  );
  /** The point of a free end. */
  const endOf = (name: string): string | undefined => {
    const { member, end } = places.freeEnds[name] ?? {};
    const own = points.filter((p) => p.member === member);
    return (end === "from" ? own[0] : own.at(-1))?.point ?? undefined;
  };
  const measured = new Set(Object.keys(places.freeEnds).flatMap((name) => endOf(name) ?? []));
  const { laid, asideMm } =
    how.beyondMm === null ? laidStraight(frame, set, placed, moved, measured) : { laid: frame, asideMm: {} };
  const joined = joinedIn(frame);
  const offset = (p: string): Vec3 => sub3(laid.points[p], frame.points[p]);
  /** How much farther apart two points are laid than drawn, mm. */
  const apart = (p: string, q: string): number => lengthIn(laid, p, q) - lengthIn(frame, p, q);
  const offsetsMm = Object.fromEntries([
    ...structure.joints.flatMap((j) => {
      const at = joints.get(j.id);
      return at ? [[j.id, offset(at.a)] as const] : [];
    }),
    ...Object.keys(places.freeEnds).flatMap((name) => {
      const p = endOf(name);
      return p ? [[name, offset(p)] as const] : [];
    }),
  ]);
  const known = new Map(outcomes.map((o) => [outcomeKey(o.id), o.estimate]));
  /** The target with the scatter of the change about its likely value. */
  const around = (id: OutcomeId, value: number): Estimate => {
    const e = known.get(outcomeKey(id)) ?? { value: 0, low: 0, high: 0 };
    return { value, low: value - (e.high - e.value), high: value + (e.value - e.low) };
  };
  const opposite = (id: OutcomeId, nominal: number, unit: SetUpTarget["unit"]): SetUpTarget => ({
    id,
    unit,
    target: around(id, nominal - (how.beyondMm === null ? (known.get(outcomeKey(id))?.value ?? 0) : 0)),
    nominal,
  });
  const spans = quad
    ? SPANS.map((span: Span): SetUpTarget => {
        const id: OutcomeId = { kind: "span", span };
        const [p, q] = ends(span).map((c) => quad.at[c]) as [Vec3, Vec3];
        const [u, v] = ends(span).map((c) => offsetsMm[quad.joints[c]] ?? STILL) as [Vec3, Vec3];
        const target = norm3(sub3(add3(q, v), add3(p, u)));
        return { id, unit: "mm", target: around(id, target), nominal: norm3(sub3(q, p)) };
      })
    : [];
  const lengths = structure.members.map((m): SetUpTarget => {
    const id: OutcomeId = { kind: "length", member: m.id };
    const ofMember = frame.members.find((x) => x.id === m.id)?.points ?? [];
    const [from, to] = [ofMember[0], ofMember.at(-1)] as [string, string];
    const isLaid = [from, to].every((p) => placed.has(p)) || [from, to].every((p) => joined.has(p));
    return isLaid
      ? { id, unit: "mm", target: around(id, m.longMm + apart(from, to)), nominal: m.longMm }
      : opposite(id, m.longMm, "mm");
  });
  return {
    targets: [
      ...spans,
      ...(quad ? CORNERS.map((c) => opposite({ kind: "angle", corner: c }, cornerAngleDeg(quad.corners, c), "°")) : []),
      ...mouthsOf(places).map(([from, to]): SetUpTarget => {
        const id: OutcomeId = { kind: "mouth", from, to };
        const nominal = distance(places.nodes[from] as Vec2, places.nodes[to] as Vec2);
        const [p, q] = [endOf(from), endOf(to)];
        return { id, unit: "mm", target: around(id, nominal + (p && q ? apart(p, q) : 0)), nominal };
      }),
      ...places.feet.pairs.flatMap(([from, to]) => {
        const mm = footWayMm(places.feet, from, to);
        return mm === null ? [] : [opposite({ kind: "feet", from, to }, mm, "mm")];
      }),
      ...lengths,
      ...structure.members.flatMap((m) => [
        opposite({ kind: "bow", member: m.id }, 0, "mm"),
        opposite({ kind: "lift", member: m.id }, 0, "mm"),
      ]),
    ],
    offsetsMm,
    ...(Object.keys(asideMm).length > 0 ? { asideMm } : {}),
    ...how,
  };
}

/** Between two points, mm. */
const lengthIn = (frame: MechanicalFrame, from: string, to: string): number =>
  norm3(sub3(frame.points[to], frame.points[from]));
