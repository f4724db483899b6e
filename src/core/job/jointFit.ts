import type { Limit } from "../check";
import { closedGap, type GapAdvice, gapAdvice } from "../fixture";
import type { FaceLine, Structure, StructureJoint } from "../frame";
import { faceAlone, jointWords } from "../plan";
import { type GapStiffness, type OutcomeId, outcomeKey } from "../shrink";
import { formatSmall, plainLength, stated, type UnitPreference } from "../units";
import { chanceWords } from "./forecast";
import type { FrameRound } from "./frameRound";
import { EQUAL, type OrderOutlook } from "./orderOutlook";
import type { Plan } from "./planSchema";
import { shortForce } from "./releaseWords";

/** A gap that was read at a joint. */
export interface ReadGap {
  joint: string;
  mm: number;
  /** Face by face where it differs, mm; all round when left out. A face that is not named is shut. */
  faces?: { line: FaceLine; mm: number }[];
}

/** Gaps smaller than this are as good as shut, mm. */
const SHUT_MM = 0.05;

/** Gaps read at joints, the newest reading of each that counts. */
export function readGaps(rounds: readonly FrameRound[], joints: Readonly<Record<string, string>>): ReadGap[] {
  const found = new Map<string, number>();
  for (const round of rounds)
    for (const { what, mm } of round.means.values()) {
      const joint = what.kind === "gap" ? joints[what.at] : undefined;
      if (joint !== undefined) found.set(joint, mm);
    }
  return [...found].flatMap(([joint, mm]) => (mm > SHUT_MM ? [{ joint, mm }] : []));
}

/** A plan in which a gap is filled as it was found. */
export const withFilled = (plan: Plan, { joint, mm, faces }: ReadGap): Plan =>
  withFound(plan, joint, {
    id: joint,
    gap: stated(mm, plan.units),
    ...(faces ? { faces: faces.map((f) => ({ line: f.line, gap: stated(f.mm, plan.units) })) } : {}),
  });

/** A plan in which a joint is shut again. */
export const withShut = (plan: Plan, joint: string): Plan => withFound(plan, joint, null);

function withFound(plan: Plan, joint: string, own: NonNullable<Plan["found"]>[number] | null): Plan {
  const { found = [], ...rest } = plan;
  const others = found.filter((f) => f.id !== joint);
  const next = own === null ? others : [...others, own];
  return next.length > 0 ? { ...rest, found: next } : rest;
}

/** What a gap at a joint does, filled as it is and with the joint fitted shut. */
export interface JointFit {
  gap: ReadGap;
  filled: OrderOutlook;
  shut: OrderOutlook;
  stiffness: GapStiffness | null;
  wallMm: number;
  /** How much more the seam that is open widest closes when it is filled, mm. */
  closesMm: number;
}

/** The joint that a gap is at. */
export const jointOf = (structure: Structure, id: string): StructureJoint | undefined =>
  structure.joints.find((j) => j.id === id);

/** What of a shape each limit is about. */
const ABOUT: Partial<Record<OutcomeId["kind"], Limit["kind"]>> = { square: "diagonal", flat: "flat" };
/** Where no limit is said, what a shape is held to, mm: as much as a tape tells (own judgement). */
const UNSAID_MM = 1;

/** What filling a gap moves most, as a share of what it is held to; null where nothing is predicted. */
function worstShift({ filled, shut }: JointFit): { id: OutcomeId; mm: number; limitMm: number } | null {
  const shifts = filled.shape.flatMap(({ id, estimate }) => {
    const other = shut.shape.find((s) => outcomeKey(s.id) === outcomeKey(id));
    const limit = filled.limits.find((l) => l.limit.kind === ABOUT[id.kind])?.limit;
    const limitMm = Math.min(
      ...[limit?.upper, limit?.lower].flatMap((v) => (typeof v === "number" && v !== 0 ? [Math.abs(v)] : [])),
      Number.POSITIVE_INFINITY,
    );
    return other
      ? [
          {
            id,
            mm: estimate.value - other.estimate.value,
            limitMm: Number.isFinite(limitMm) ? limitMm : UNSAID_MM,
          },
        ]
      : [];
  });
  return shifts.sort((x, y) => Math.abs(y.mm) / y.limitMm - Math.abs(x.mm) / x.limitMm)[0] ?? null;
}

/** What is advised about a gap, with the numbers that bear it. */
export interface JointFitAdvice {
  advice: GapAdvice;
  words: string[];
}

/** How far a joint stands open: face by face where that differs. */
export function gapWords(structure: Structure, gap: ReadGap, units: UnitPreference): string {
  const joint = jointOf(structure, gap.joint);
  if (!gap.faces || !joint) return plainLength(gap.mm, units);
  return gap.faces
    .map(({ line, mm }) => {
      const face = joint.faces.find((f) => f.line === line);
      return `${plainLength(mm, units)} at its ${face ? faceAlone(structure, joint, face) : line}`;
    })
    .join(", ");
}

/** @param structure that the gap was found on. @param limitMm that the gap itself is held to; null where it is held to none. */
export function jointFitAdvice(
  structure: Structure,
  fit: JointFit,
  limitMm: number | null,
  units: UnitPreference,
): JointFitAdvice {
  const { gap, filled, shut, stiffness, wallMm } = fit;
  const joint = jointOf(structure, gap.joint);
  const name = joint ? jointWords(structure, joint) : gap.joint;
  const shift = worstShift(fit);
  const closed = closedGap(gap.mm, stiffness?.frameNPerMm ?? Number.POSITIVE_INFINITY, stiffness?.jointNPerMm ?? 0);
  const advice = gapAdvice(gap.mm, wallMm, shift?.limitMm ?? UNSAID_MM, closed, Math.abs(shift?.mm ?? 0));
  const size = (mm: number): string => formatSmall(mm, units, { decimals: units === "mm" ? 2 : 0, signed: true });
  const chances =
    filled.chance !== null && shut.chance !== null
      ? [
          `Chance that every limit is kept, filled: ${chanceWords(filled.chance)}; shut: ${chanceWords(shut.chance)}${Math.abs(filled.chance - shut.chance) < EQUAL ? ": no difference that tells" : ""}.`,
        ]
      : [];
  const over =
    limitMm !== null && gap.mm > limitMm
      ? [
          `It is over the ${plainLength(limitMm, units)} that a joint may stand open: filled or not, that limit is not kept.`,
        ]
      : [];
  const does: Record<GapAdvice, string> = {
    leave: "Leave it: so small a gap is filled as it comes.",
    clamp: stiffness
      ? `Draw it shut with a clamp before it is tacked: about ${shortForce(closed.closeN, units)}; ${formatSmall(closed.springsBackMm, units, { decimals: 2 })} springs back, the rest stays sprung in the joint.`
      : "Draw it shut with a clamp before it is tacked.",
    fill: "Fill it, in two passes if it drops through: it pulls little more than a shut joint.",
    "re-cut":
      "Re-cut the piece, or swap it with one that fits: filled it pulls too much, and a clamp would only spring it.",
  };
  return {
    advice,
    words: [
      `${name} stands open by ${gapWords(structure, gap, units)}. ${does[advice]}`,
      ...(shift && Math.abs(shift.mm) > 0.005
        ? [
            `Filled, it takes more metal and more heat: the widest seam closes about ${formatSmall(fit.closesMm, units, { decimals: units === "mm" ? 2 : 0 })} more, and ${wordsOf(shift.id)} goes ${size(shift.mm)} further than with the joint shut.`,
          ]
        : []),
      ...chances,
      ...over,
    ],
  };
}

const wordsOf = (id: OutcomeId): string =>
  id.kind === "square" ? "AC less BD" : id.kind === "mouth" ? `the mouth ${id.from} to ${id.to}` : "flatness";
