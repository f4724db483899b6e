import { type Footprint, footprint } from "../bed";
import { aimOf, type Limit, type Mouth, resolveLimits } from "../check";
import { type AsCut, asCut, type CutPiece, closingGaps, cutList } from "../cut";
import { MATERIALS, type Structure, type StructureMember, seenAt } from "../frame";
import { CORNERS, type Corner, type Side } from "../geometry";
import { distance, type Vec2 } from "../numeric";
import type { Order } from "../plan";
import { aimedSetUp, type Growth, growing, isNoGrowth, memberGrowth, type Prediction } from "../shrink";
import { footWayMm, mouthsOf, type Places, placesOf, type SetUp, setUp } from "../square";
import type { Problem } from "../units";
import { builtOf } from "./built";
import { inTime } from "./inTime";
import type { Job } from "./jobSchema";
import { planProblems } from "./plan";
import { type Mean, meansOf, type Round, roundsOf } from "./rounds";
import { tickKey } from "./tickId";

/** Points beside the frame, mm. */
const pointsOf = ({ points = [] }: Job["plan"]): Record<string, Vec2> =>
  Object.fromEntries(points.map((p) => [p.id, { x: p.x.mm, y: p.y.mm }]));

/** What every part of an evaluation starts from. */
export interface EvaluationContext {
  job: Job;
  problems: Problem[];
  structure: Structure | null;
  footprint: Footprint | null;
  places: Places | null;
  alphaPerK: number;
  prediction: Prediction | null;
  /** Corners to set up, for a frame that has them. */
  target: SetUp | null;
  limits: Limit[];
  rounds: Round[];
  /** Cut list, aimed at the middle of the limits, and pieces as they came off the saw. */
  cut: CutPiece[];
  cutRounds: CutRound[];
  order: Order | null;
  /** Keys of what stands ticked. */
  ticked: Set<string>;
}

/** Corners of a structure set off by what its prediction says, and by where it is aimed; null where that is nothing. */
function targetOf(structure: Structure, prediction: Prediction | null, growth: Growth): SetUp | null {
  const { quad, joints } = structure;
  if (!quad || (!prediction && isNoGrowth(growth))) return null;
  const grown = growing(structure, growth);
  const offset = (c: Corner): Vec2 => {
    const at = joints.find((j) => j.id === quad.joints[c])?.at ?? quad.at[c];
    return seenAt(prediction?.setUp.offsetsMm[quad.joints[c]] ?? grown(at), quad.view);
  };
  return setUp(quad.corners, Object.fromEntries(CORNERS.map((c) => [c, offset(c)])) as Record<Corner, Vec2>);
}

/** A round of pieces as they were cut. */
export interface CutRound extends Round {
  means: ReadonlyMap<string, Mean>;
  asCut: AsCut;
}

/**
 * How much longer than weld and limits would have it each side gets from its piece as it is, mm: as it came off the saw, where both of a
 * pair were measured, else as it is to be cut. What must not move is cut as drawn, and sides across from each other are cut to one stop.
 * @param wanted length of a piece for the weld and the limits, mm.
 */
function fromPieces(
  { quad, members }: Structure,
  { cut, asCut }: Pieces,
  wanted: (m: StructureMember) => number,
): Record<Side, number> {
  const read = (side: Side): number | undefined => asCut?.pieces.find((p) => p.member === quad?.sides[side])?.mm;
  const off = (side: Side): number => {
    const m = members.find((x) => x.id === quad?.sides[side]);
    if (!m) return 0;
    const measured = PAIR_OF[side].every((s) => read(s) !== undefined);
    const long = measured ? read(side) : cut.find((p) => p.members.includes(m.id))?.cutLongPointMm;
    return (long ?? wanted(m)) - wanted(m);
  };
  return { AB: off("AB"), BC: off("BC"), CD: off("CD"), DA: off("DA") };
}

/** Sides across from each other. */
const PAIR_OF: Record<Side, readonly [Side, Side]> = {
  AB: ["AB", "CD"],
  CD: ["AB", "CD"],
  BC: ["BC", "DA"],
  DA: ["BC", "DA"],
};

/** Pieces as they are to be cut, and as they came off the saw. */
export interface Pieces {
  cut: readonly CutPiece[];
  asCut: AsCut | undefined;
}

/** Pieces of an evaluation, for its sub-assemblies: they are cut with the whole. */
export const piecesOf = ({ cut, cutRounds }: Pick<EvaluationContext, "cut" | "cutRounds">): Pieces => ({
  cut,
  asCut: cutRounds.at(-1)?.asCut,
});

/** @param whole pieces of the whole that the job's frame is a sub-assembly of: it is set up as they are long. */
export function evaluationContext(
  job: Job,
  predicted: Prediction | null,
  whole: Pieces | null = null,
): EvaluationContext {
  const { plan } = job;
  const problems = planProblems(plan);
  const broken = (area: string) => problems.some((p) => p.severity === "error" && p.path.startsWith(area));
  const { structure, order } = builtOf(plan);
  const over = structure && footprint(structure);
  const found = structure && !broken("weld") ? predicted : null;
  const aim = broken("limits") ? { lengthMm: 0, widthMm: 0 } : aimOf(plan.limits);
  const grown = structure ? memberGrowth(structure, aim) : () => 0;
  const cut = structure
    ? cutList(
        structure,
        found?.allowancesMm ?? null,
        grown,
        new Set(plan.fixed ?? []),
        plan.sawScale,
        plan.units,
        closingGaps(structure, plan.closing ?? []),
      )
    : [];
  // What is measured of a sub-assembly by itself says nothing of the whole.
  const rounds = roundsOf(job.entries).filter((r) => r.round.part === undefined);
  const cutRounds = rounds
    .filter((r) => r.round.gate === "cut")
    .map((r): CutRound => {
      const means = meansOf(r, job.instruments);
      const readings = [...means].map(([what, mean]) => [what, { mm: mean.mm, uMm: mean.uMm }]);
      return { ...r, means, asCut: asCut(cut, Object.fromEntries(readings), structure?.quad ?? null) };
    });
  const wanted = (m: StructureMember): number => m.longMm + (found?.allowancesMm[m.id]?.value ?? 0) + grown(m);
  const growth: Growth = structure
    ? { ...aim, sidesMm: fromPieces(structure, whole ?? piecesOf({ cut, cutRounds }), wanted) }
    : aim;
  const prediction = found && structure ? { ...found, setUp: aimedSetUp(structure, found, growth) } : found;
  const ticked = new Set<string>();
  for (const entry of inTime(job.entries)) {
    if (entry.kind !== "tick") continue;
    const key = tickKey(entry.step);
    if (entry.done) ticked.add(key);
    else ticked.delete(key);
  }
  const places = structure && placesOf(structure, pointsOf(plan));
  const mouths = (places ? mouthsOf(places) : []).map(([from, to]): Mouth => {
    const [p, q] = [places?.nodes[from] as Vec2, places?.nodes[to] as Vec2];
    return { from, to, mm: distance(p, q) };
  });
  const feet = (places?.feet.pairs ?? []).flatMap(([from, to]): Mouth[] => {
    const mm = places && footWayMm(places.feet, from, to);
    return mm === null ? [] : [{ from, to, mm }];
  });
  const reachesBeyond = places !== null && places.beyond.length > 0;
  return {
    job,
    problems,
    structure,
    footprint: over,
    places,
    alphaPerK: MATERIALS[structure?.members[0]?.material ?? "mild steel"].alphaPerK,
    prediction,
    target: structure && targetOf(structure, prediction, growth),
    limits:
      structure && over && !broken("limits")
        ? resolveLimits(plan.limits, over, structure.quad, mouths, reachesBeyond, feet)
        : [],
    rounds,
    cut,
    cutRounds,
    order,
    ticked,
  };
}
