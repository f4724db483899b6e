import { type Limit, type LimitVerdict, type Overall, overall, verdicts } from "../check";
import { type Structure, seenAt } from "../frame";
import { CORNERS, type Corner, ends, type FourCorners, flatness, fourCorners, SIDES, type Span } from "../geometry";
import { add, distance, dot3, sub, type Vec3 } from "../numeric";
import { hangingTogether, stillTurns } from "../plan";
import {
  type GeneralCheck,
  generalCheck,
  heightPlaces,
  type Impossible,
  impossible,
  leanShare,
  type Measured,
  marksTell,
  nearerBy,
  type Places,
  type Quad,
  REAL_CORNERS_MM,
  type Reading,
  type SquareCheck,
  spanReadings,
  squareCheck,
  type Tape,
  tapedTo,
} from "../square";
import type { EvaluationContext } from "./evaluationContext";
import { levelOf } from "./levelled";
import { type MisreadHelp, misreadHelp } from "./misreadHelp";
import { quantityKey, spanOf } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

import { fullU, type Mean, meansOf, type Round, spansOf, type ToCorners, uOfHeights } from "./rounds";

/** A round of sides, diagonals and corner heights with what follows from it. */
export interface FrameRound extends Round {
  /** Nothing slides or hinges any more: it is welded, or every tack is in. */
  locked: boolean;
  means: ReadonlyMap<string, Mean>;
  /** The same with what stands of earlier rounds: what limits are judged by. */
  standing: ReadonlyMap<string, Mean>;
  /** Null for a frame without corners A to D, and before anything is taped. */
  square: SquareCheck | null;
  /** Where all places that were measured lie, and how they would have to move. */
  general: GeneralCheck | null;
  /** Whether they are held against where the frame is set up, off the drawing for what the weld takes, and not against the drawing. */
  isToSetUp: boolean;
  /** Flatness from heights, or from a rock, mm. */
  flatMm: (Measured & { by: string }) | null;
  /** Twist of the corners A to D from their heights; null until all four are read. */
  twist: FourCorners | null;
  impossible: Impossible | null;
  /** When one of the readings looks misread and the numbers cannot say which: what else is known, and what to measure. */
  help: MisreadHelp | null;
  verdicts: LimitVerdict[];
  overall: Overall;
}

/** Readings may contradict the triangle rule by this before it is called impossible, mm. */
const SLACK_MM = 5;

/** Readings of distances, angles and offsets besides the sides and diagonals, for the fit. */
function moreReadings(
  means: ReadonlyMap<string, Mean>,
  places: Places,
): { readings: Reading[]; tapes: Record<string, Tape> } {
  const readings: Reading[] = [];
  const tapes: Record<string, Tape> = {};
  const all = tapedTo(places);
  const known = (...names: string[]): boolean => names.every((n) => all[n]) && new Set(names).size === names.length;
  for (const [id, mean] of means) {
    const q = mean.what;
    const tape = mean.tape ? { tape: mean.tape.id } : {};
    if (q.kind === "distance" && spanOf(q) === null && known(q.from, q.to))
      readings.push({
        kind: "distance",
        id,
        from: q.from,
        to: q.to,
        valueMm: mean.mm,
        uMm: mean.uMm,
        realMm: REAL_CORNERS_MM,
        ...tape,
      });
    else if (q.kind === "angle" && known(q.from, q.at, q.to)) {
      // Angles are kept as the arc at one metre.
      const valueRad = mean.mm / 1000;
      readings.push({ kind: "angle", id, from: q.from, at: q.at, to: q.to, valueRad, uRad: fullU(mean) / 1000 });
    } else if (q.kind === "offset" && known(q.of, q.from, q.to))
      readings.push({ kind: "offset", id, of: q.of, from: q.from, to: q.to, valueMm: mean.mm, uMm: mean.uMm });
    else continue;
    if (mean.tape) tapes[mean.tape.id] = { uZeroMm: mean.tape.uZeroMm, uScale: mean.tape.uScale };
  }
  return { readings, tapes };
}

/**
 * The largest gap with one corner held down: a rock as it was read, or what four corner heights rock by (closed form: the
 * sum of one diagonal's heights less the other's).
 */
function heldOf(means: ReadonlyMap<string, Mean>, twist: FourCorners | null): FrameRound["flatMm"] {
  const rocks = [...means.values()].filter((m) => m.what.kind === "rock");
  const worst = rocks.reduce<Mean | null>((w, m) => (!w || m.mm > w.mm ? m : w), null);
  if (worst) return { value: worst.mm, u: worst.uMm, by: "the rock" };
  return twist && { value: Math.abs(twist.twistMm), u: twist.uTwistMm, by: "4 heights, one corner held" };
}

/** A height that was read, less what the drawing has there: tubes of unlike height, or a rail that rises, are no want of flatness. */
const overDrawn = ({ what, mm }: Mean, { heights }: Places): number =>
  mm - (what.kind === "height" ? (heights[what.at] ?? 0) : 0);

/** Flatness from heights at places, or else from edges across the diagonals, or from a rock: half of what rocks. */
function flatOf(means: ReadonlyMap<string, Mean>, places: Places): FrameRound["flatMm"] {
  const known = heightPlaces(places);
  const heights = [...means].flatMap(([key, mean]) => {
    const at = mean.what.kind === "height" ? known[mean.what.at] : undefined;
    return at ? [{ at, mm: overDrawn(mean, places), key }] : [];
  });
  const u = uOfHeights(
    means,
    heights.map((h) => h.key),
  );
  if (heights.length >= 4) {
    const found = flatness(
      heights.map((h) => h.at),
      heights.map((h) => h.mm),
      u,
    );
    if (found.zoneMm !== null && found.uZoneMm !== null)
      return { value: found.zoneMm, u: found.uZoneMm, by: `${heights.length} heights` };
  }
  const [ac, bd] = ["AC", "BD"].map((at) => means.get(quantityKey({ kind: "edge", at })));
  // Edges or strings across the diagonals pass half of the twist from each other where they cross (closed form).
  if (ac && bd)
    return { value: Math.abs(ac.mm - bd.mm), u: Math.hypot(ac.uMm, bd.uMm), by: "edges across both diagonals" };
  const held = [...means.values()].filter((m) => m.what.kind === "rock");
  const worst = held.reduce<Mean | null>((w, m) => (!w || m.mm > w.mm ? m : w), null);
  return worst && { value: worst.mm / 2, u: worst.uMm / 2, by: "half of the rock" };
}

/** Twist of four corners that were read, with the unevenness of one gauge shared by them dropping out. */
function twistOf(means: ReadonlyMap<string, Mean>, places: Places): FourCorners | null {
  const heightOf = (c: Corner): string => quantityKey({ kind: "height", at: c });
  const names = CORNERS.map(heightOf);
  const read = names.map((n) => means.get(n)).filter((m) => m !== undefined);
  if (read.length < CORNERS.length) return null;
  const z = Object.fromEntries(CORNERS.map((c, i) => [c, overDrawn(read[i] as Mean, places)])) as Record<
    Corner,
    number
  >;
  return fourCorners(z, uOfHeights(means, names));
}

/** Kinds that are read at one gate and stand until they are read again: a gap is closed before it is welded. */
const STANDING: readonly QuantityId["kind"][] = ["gap", "flush", "straightness"];

/** Readings that a round is held against limits with: its own, and what stands of earlier rounds of the frame. */
function standing({ rounds, job, alphaPerK }: EvaluationContext, round: Round, means: ReadonlyMap<string, Mean>) {
  const all = new Map<string, Mean>();
  for (const r of rounds) {
    if (r.round.id === round.round.id) break;
    if (r.round.gate === "bed" || r.round.gate === "cut") continue;
    for (const [key, mean] of meansOf(r, job.instruments, alphaPerK))
      if (STANDING.includes(mean.what.kind)) all.set(key, mean);
  }
  for (const [key, mean] of means) all.set(key, mean);
  return all;
}

/** The worst reading of one kind, with where it was. */
function worstReading(
  means: ReadonlyMap<string, Mean>,
  kind: "straightness" | "gap" | "flush",
): (Measured & { where: string }) | null {
  let worst: (Measured & { where: string }) | null = null;
  for (const mean of means.values()) {
    if (mean.what.kind !== kind) continue;
    if (!worst || Math.abs(mean.mm) > worst.value)
      worst = { value: Math.abs(mean.mm), u: fullU(mean), where: mean.what.at };
  }
  return worst;
}

/** What was read of a size that is limited: between two free ends it may have been taped either way. */
export const sizeRead = (means: ReadonlyMap<string, Mean>, { id, mouth }: Limit): Mean | undefined =>
  means.get(id) ?? (mouth && means.get(`${mouth[1]}-${mouth[0]}`));

/** The place that is judged by how far it is off: the farthest; of a frame with corners the farthest of those beyond them, once all of them are read. */
function placeJudged(general: GeneralCheck | null, { beyond }: Places, isToSetUp: boolean) {
  const isWhole = beyond.every((name) => general?.fit.points[name]);
  const far = beyond.length > 0 ? (isWhole ? general?.farthestBeyond : null) : general?.farthest;
  return far ? { ...far, where: isToSetUp ? `${far.place}, from where it is set up` : far.place } : null;
}

/** Works out a round of the frame: shape, places, flatness, verdicts. */
export function workOutFrameRound(context: EvaluationContext, places: Places, round: Round): FrameRound {
  const { job, limits, structure } = context;
  const quad = structure?.quad ?? null;
  const offSet = job.plan.aim !== "drawing" && context.prediction ? context.prediction.setUp.offsetsMm : null;
  const target = offSet && context.target;
  const before = round.round.gate !== "cold" && round.round.gate !== "hot";
  const isToSetUp = before && offSet !== null;
  const shape = (corners: Quad | null) => {
    const means = meansOf(round, job.instruments, context.alphaPerK, corners && toCornersOf(corners));
    const { spans, tapes } = spansOf(means);
    const more = moreReadings(means, places);
    const mm = Object.fromEntries(Object.entries(spans).map(([k, v]) => [k, v.mm])) as Partial<Record<Span, number>>;
    const wrong = quad ? impossible(mm, SLACK_MM, job.plan.units) : null;
    const allTapes = { ...tapes, ...more.tapes };
    // Read while the frame had these corners: it may have been drawn anew since.
    const taped = spanReadings(spans).filter((r) => places.nodes[r.from] && places.nodes[r.to]);
    const readings = [...taped, ...more.readings];
    const general =
      wrong || readings.length === 0
        ? null
        : generalCheck(
            tapedTo(places),
            readings,
            allTapes,
            wantedPlaces(places, isToSetUp ? offSet : null),
            // Loose pieces are pushed as wanted, joints open; once tacked only what hinges moves.
            round.round.gate === "dry fit" ? [] : rodsOf(structure, places),
            places.points,
            places.beyond,
          );
    const square =
      !quad || wrong || Object.keys(spans).length === 0
        ? null
        : squareCheck(
            quad.corners,
            spans,
            allTapes,
            (before && target ? target : quad).squareDifferenceMm2,
            general?.fit ?? null,
            sidesBefore(context, before && target ? target.corners : quad.corners),
          );
    return { means, readings, allTapes, wrong, general, square };
  };
  let found = shape(quad?.corners ?? null);
  // Marks set in from the corners say less of a lean than the corners do, by a share that hangs on the lean itself.
  if (quad && round.all.some((r) => r.taken?.setIn))
    for (let i = 0; i < SET_IN_ROUNDS && found.square?.corners; i++) found = shape(found.square.corners);
  const { means, readings, allTapes, wrong, general, square } = found;
  const twist = quad ? twistOf(means, places) : null;
  const flatMm = job.plan.limits.flatBy === "held" ? heldOf(means, twist) : flatOf(means, places);
  const held = standing(context, round, means);
  const list = verdicts(
    limits,
    {
      sides: Object.fromEntries(
        limits.flatMap((limit) => {
          const mean = limit.kind === "size" ? sizeRead(means, limit) : undefined;
          return mean ? [[limit.id, { value: mean.mm, u: fullU(mean) }]] : [];
        }),
      ),
      square,
      flatMm,
      worst: {
        place: placeJudged(general, places, isToSetUp),
        straight: worstReading(held, "straightness"),
        level: levelOf(held, structure, limits.find((l) => l.id === "level")?.upper ?? null),
        gap: worstReading(held, "gap"),
        flush: worstReading(held, "flush"),
      },
    },
    job.plan.units,
  );
  const fit = square?.fit ?? general?.fit ?? null;
  const help =
    fit && !square?.bySides && fit.diagnosis.status === "detected_not_located"
      ? misreadHelp(places, readings, allTapes, fit, piecesAsCut(context))
      : null;
  return {
    ...round,
    locked: !before || isLocked(context),
    means,
    standing: held,
    square,
    general,
    isToSetUp,
    flatMm,
    twist,
    impossible: wrong,
    help,
    verdicts: list,
    overall: overall(list),
  };
}

/** Each brings the shape nearer by twenty times or more. */
const SET_IN_ROUNDS = 4;

/** Brings what was taped between marks set in from the corners to the corners of a shape. */
const toCornersOf =
  (corners: Quad): ToCorners =>
  (what, mm, setInMm) => {
    const span = spanOf(what);
    return span && marksTell(corners, setInMm)
      ? { mm: mm + nearerBy(corners, span, setInMm), uTimes: leanShare(corners, span, setInMm) }
      : { mm, uTimes: 1 };
  };

/** How far a side may differ from the drawing, where its piece was not measured, mm (common practice, no source). */
const U_AS_DRAWN_MM = 3;

/** Sides before any of them was taped: by the pieces as they were cut, else by what is to be set up. */
function sidesBefore(context: EvaluationContext, wanted: Quad): Reading[] {
  const cut = piecesAsCut(context);
  return SIDES.map((side): Reading => {
    const [from, to] = ends(side);
    const drawn = { kind: "distance" as const, id: `${side} as drawn`, from, to, uMm: U_AS_DRAWN_MM };
    return cut.find((r) => r.id === `${side} as cut`) ?? { ...drawn, valueMm: distance(wanted[from], wanted[to]) };
  });
}

/** How far a side of a frame that is put together may differ from its piece as it was cut, mm (metrology of fit-up, u). */
const U_AS_CUT_MM = 2;

/** Sides as far as their pieces' cut lengths tell them: gaps and grinding make them no better than a couple of millimetres. */
function piecesAsCut({ rounds, structure, job }: EvaluationContext): Reading[] {
  const quad = structure?.quad;
  if (!quad) return [];
  const sideOf = new Map(SIDES.map((s) => [quad.sides[s], s]));
  const found = new Map<string, Reading>();
  for (const r of rounds) {
    if (r.round.gate !== "cut") continue;
    for (const mean of meansOf(r, job.instruments).values()) {
      const { what } = mean;
      const piece = what.kind === "piece" ? structure.members.find((m) => m.id === what.member) : undefined;
      const side = piece && sideOf.get(piece.id);
      if (!side) continue;
      const [from, to] = ends(side);
      // A piece that stands between others is shorter than its side; what it differs by is the side's.
      const valueMm = distance(quad.corners[from], quad.corners[to]) + mean.mm - piece.longMm;
      const uMm = Math.hypot(U_AS_CUT_MM, fullU(mean));
      found.set(side, { kind: "distance", id: `${side} as cut`, from, to, valueMm, uMm });
    }
  }
  return [...found.values()];
}

/** Places of each member in order along it: what a tacked frame keeps when it is moved. */
function rodsOf(structure: Structure | null, places: Places): string[][] {
  if (!structure) return [];
  return structure.members.map((m) => {
    // Joints that lie within the tube's width of each other share a place.
    const near = Math.max(m.properties.widthMm, m.properties.heightMm);
    const own = structure.joints.flatMap((j) => {
      if (j.a !== m.id && j.b !== m.id) return [];
      const at = sub(seenAt(j.at, places.view), places.origin);
      const [found] = Object.entries(places.nodes)
        .map(([name, p]) => ({ name, far: places.joints[name] === j.id ? 0 : distance(p, at) }))
        .sort((p, q) => p.far - q.far);
      return found && found.far < near ? [{ name: found.name, along: dot3(j.at, m.axes[0]) }] : [];
    });
    for (const [name, { member, end }] of Object.entries(places.freeEnds))
      if (member === m.id) own.push({ name, along: dot3(m.ends[end].at, m.axes[0]) });
    return [...new Set(own.sort((p, q) => p.along - q.along).map((p) => p.name))];
  });
}

/** Tacks with which a joint turns no more. */
const HOLDS = 2;

/**
 * Whether nothing hinges any more: every tack is in, or each joint has one and the frame is stiff on those. A joint that has two, or a bead,
 * turns no more.
 */
export function isLocked({ order, ticked, structure }: EvaluationContext): boolean {
  const steps = order?.steps ?? [];
  const tacks = steps.filter((s) => s.id.do === "tack");
  if (!structure || tacks.length === 0) return false;
  if (tacks.every((s) => ticked.has(s.key))) return true;
  const count = new Map<string, number>();
  for (const { id, key, joint } of steps)
    if (joint !== null && ticked.has(key)) count.set(joint, (count.get(joint) ?? 0) + (id.do === "bead" ? HOLDS : 1));
  if (!tacks.every((s) => count.has(s.joint ?? ""))) return false;
  const tacked = structure.joints.filter((j) => count.has(j.id));
  const [hinged, held] = [tacked.filter((j) => count.get(j.id) === 1), tacked.filter((j) => count.get(j.id) !== 1)];
  return (
    hinged.length === 0 ||
    !stillTurns(
      structure,
      hinged,
      hangingTogether(
        structure.members.map((m) => m.id),
        held,
      ),
    )
  );
}

/** Where places shall be: as drawn, set off with the joint that they belong to; a free end by its own. */
export function wantedPlaces(places: Places, offsetsMm: Readonly<Record<string, Vec3>> | null): Places["nodes"] {
  if (!offsetsMm) return tapedTo(places);
  return Object.fromEntries(
    Object.entries(tapedTo(places)).map(([name, p]) => {
      const offset = offsetsMm[places.joints[name] ?? name];
      return [name, offset ? add(p, seenAt(offset, places.view)) : p];
    }),
  );
}
