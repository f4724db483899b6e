import { type Footprint, footprint } from "../bed";
import { type Aim, aimOf, type Limit, type Mouth, resolveLimits } from "../check";
import { type AsCut, asCut, type CutPiece, closingGaps, cutList } from "../cut";
import { MATERIALS, type Structure, type StructureMember, seenAt } from "../frame";
import { CORNERS, type Corner, type Side } from "../geometry";
import { distance, type Vec2 } from "../numeric";
import type { Order } from "../plan";
import { aimedSetUp, growing, memberGrowth, type Prediction } from "../shrink";
import { mouthsOf, type Places, placesOf, type SetUp, setUp } from "../square";
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
function targetOf(structure: Structure, prediction: Prediction | null, growth: Aim): SetUp | null {
  const { quad, joints } = structure;
  if (!quad || (!prediction && growth.lengthMm === 0 && growth.widthMm === 0)) return null;
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
 * How much longer and wider than weld and limits would have it the frame gets from its pieces as they are, mm: as they came off
 * the saw, where both of a pair were measured, else as they are to be cut. What must not move is cut as drawn.
 * @param wanted length of a piece for the weld and the limits, mm.
 */
function fromPieces({ quad, members }: Structure, { cut, asCut }: Pieces, wanted: (m: StructureMember) => number): Aim {
  const off = (sides: readonly Side[]): number => {
    const own = members.filter((m) => sides.some((s) => quad?.sides[s] === m.id));
    const read = own.map((m) => asCut?.pieces.find((p) => p.member === m.id)?.mm);
    const measured = read.every((mm) => mm !== undefined);
    const long = (m: StructureMember, i: number): number =>
      (measured ? read[i] : cut.find((p) => p.members.includes(m.id))?.cutLongPointMm) ?? wanted(m);
    return own.reduce((sum, m, i) => sum + long(m, i) - wanted(m), 0) / Math.max(1, own.length);
  };
  return { lengthMm: off(["AB", "CD"]), widthMm: off(["BC", "DA"]) };
}

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
  const pieces = structure ? fromPieces(structure, whole ?? piecesOf({ cut, cutRounds }), wanted) : aim;
  const growth = { lengthMm: aim.lengthMm + pieces.lengthMm, widthMm: aim.widthMm + pieces.widthMm };
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
  return {
    job,
    problems,
    structure,
    footprint: over,
    places,
    alphaPerK: MATERIALS[structure?.members[0]?.material ?? "mild steel"].alphaPerK,
    prediction,
    target: structure && targetOf(structure, prediction, growth),
    limits: structure && over && !broken("limits") ? resolveLimits(plan.limits, over, structure.quad, mouths) : [],
    rounds,
    cut,
    cutRounds,
    order,
    ticked,
  };
}
