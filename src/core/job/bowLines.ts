import { directionWord, type Structure, type StructureMember } from "../frame";
import { dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { bowWays, type OutcomeId, outcomeKey, outcomeWords, type Prediction } from "../shrink";
import type { Estimate } from "../units";

type BowId = Extract<OutcomeId, { kind: "bow" | "lift" }>;

/** A member that bows, with the words that go before how far. */
export interface BowLine {
  id: string;
  say: string;
  /** How far its ends go against its middle, the likely value not below nought. */
  bow: Estimate;
}

/** A bow is told when nine frames in ten bow that way by more than this, mm. */
const STANDS_OUT_MM = 0.05;
/** The members that bow most are told, so many. */
const MOST = 6;
/** A branch points to one side when it leans there by this share of its length. */
const LEANS = 0.3;

/** Where other members land on one between its ends: how far along it, mm, and which way they go off. In order along it. */
export function landingOn(structure: Structure, m: StructureMember): { member: string; alongMm: number; off: Vec3 }[] {
  const long = norm3(sub3(m.to, m.from)) || 1;
  const way = scale3(sub3(m.to, m.from), 1 / long);
  return structure.joints
    .filter((j) => j.a === m.id && j.endA === null)
    .flatMap((j) => {
      const branch = structure.members.find((b) => b.id === j.b);
      if (!branch) return [];
      const isFrom = norm3(sub3(branch.from, j.at)) < norm3(sub3(branch.to, j.at));
      const off = unit3(isFrom ? sub3(branch.to, branch.from) : sub3(branch.from, branch.to));
      return [{ member: branch.id, alongMm: dot3(sub3(j.at, m.from), way), off }];
    })
    .sort((a, b) => a.alongMm - b.alongMm);
}

/** Which way the ends of a member go against its middle. @param value of its bow; outward and up from the middle are positive. */
export function endsGo(structure: Structure, { kind, member }: BowId, value: number): string {
  const m = structure.members.find((x) => x.id === member);
  if (!m) return outcomeWords({ kind, member });
  const { out, up, lies } = bowWays(m, structure);
  if (lies && kind === "lift") return `ends of ${member} ${value > 0 ? "drop" : "rise"}`;
  const ends = scale3(kind === "bow" ? out : up, value > 0 ? -1 : 1);
  const { quad } = structure;
  const isSide = quad !== null && Object.values(quad.sides).includes(member);
  const landing = isSide ? [] : landingOn(structure, m);
  const sides = landing.map(({ off }) => dot3(off, ends));
  const names = landing.map((l) => l.member);
  const which = names.length > 2 ? `${names[0]} … ${names.at(-1)}` : names.join(" and ");
  if (names.length > 0 && sides.every((s) => s > LEANS)) return `ends of ${member} towards ${which}`;
  if (names.length > 0 && sides.every((s) => s < -LEANS)) return `ends of ${member} away from ${which}`;
  if (isSide && lies) return `ends of ${member} ${value > 0 ? "inward" : "outward"}`;
  return lies ? `ends of ${member} to the ${directionWord(ends)}` : outcomeWords({ kind, member });
}

/** A bow with its sign turned so that what is likely is not below nought: which way it goes is in `endsGo`. */
export const bowSize = ({ value, low, high }: Estimate): Estimate =>
  value < 0 ? { value: -value, low: -high, high: -low } : { value, low, high };

/** The members whose bow stands out of its scatter, most first. */
export const bowLines = (prediction: Pick<Prediction, "outcomes">, structure: Structure): BowLine[] =>
  prediction.outcomes
    .flatMap(({ id, estimate }): BowLine[] =>
      (id.kind === "bow" || id.kind === "lift") && bowSize(estimate).low > STANDS_OUT_MM
        ? [{ id: outcomeKey(id), say: endsGo(structure, id, estimate.value), bow: bowSize(estimate) }]
        : [],
    )
    .sort((a, b) => b.bow.value - a.bow.value)
    .slice(0, MOST);
