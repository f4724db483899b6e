import { type Bending, bent, keptByHinges, nextShim } from "../fixture";
import { MATERIALS, type Structure, type StructureMember } from "../frame";
import type { NextPreset } from "../learn";
import { norm3, sub3 } from "../numeric";
import type { Prediction } from "../shrink";
import { formatSmall, physical, type UnitPreference } from "../units";
import { endsGo, landingOn } from "./bowLines";
import { nextInSeries, SERIES_FROM, seriesWords } from "./camberSeries";
import type { Plan } from "./planSchema";

/** How much of a section's plastic modulus is left while one wall is hot, likely, and what is not excluded (own judgement). */
const HOT_SHARE = { likely: 0.5, low: 0.3, high: 0.7 } as const;
/** A bow under this nobody bends against, mm. */
const WORTH_MM = 0.3;
const HALVINGS = 40;

/** A member that the welds on it bow. */
export interface Bowed {
  member: string;
  /** Along the bed, or up. */
  kind: "bow" | "lift";
  /** How far it would bow, when cold and free, mm; the likely value without its sign. */
  freeMm: number;
  /** Which way its ends go against its middle, in words. */
  ends: string;
}

/** What to bend a member over, and what comes of it. */
export interface BackBow extends Bowed {
  /** Where what is welded to it stands along it, mm. */
  uprightsMm: number[];
  longMm: number;
  /** Shim to begin with: likely, and as far as the hot part is unsure; null where none would do. */
  begin: { likelyMm: number; lowMm: number; highMm: number | null } | null;
  /** What to try next, by the trials; null without one, or where they tell nothing. */
  nextMm: number | null;
  /** What the whole series of trials says of the next; null before there are enough. */
  series: NextPreset | null;
  /** From this shim on it stays bent by the clamps alone, mm. */
  firstYieldMm: number;
  /** On the shim that is up next, N. */
  shimN: number;
}

/** Members that are predicted to bow by so much that one might bend against it, most first. */
export function bowedMembers(structure: Structure, prediction: Prediction): Bowed[] {
  return prediction.outcomes
    .flatMap(({ id, estimate }): Bowed[] =>
      (id.kind === "bow" || id.kind === "lift") && Math.abs(estimate.value) >= WORTH_MM
        ? [
            {
              member: id.member,
              kind: id.kind,
              freeMm: Math.abs(estimate.value),
              ends: endsGo(structure, id, estimate.value),
            },
          ]
        : [],
    )
    .filter(({ member }) => {
      const m = structure.members.find((x) => x.id === member);
      // A hardened alloy is not bent hot, nor cold.
      return m?.shape.shape === "tube" && !MATERIALS[m.material].heatSoftens && landingOn(structure, m).length > 0;
    })
    .sort((a, b) => b.freeMm - a.freeMm);
}

/** A tube as it is bent that way. */
function bendingOf(m: StructureMember, kind: Bowed["kind"]): Bending | null {
  if (m.shape.shape !== "tube") return null;
  const { widthMm, heightMm, wallMm } = m.shape;
  const material = MATERIALS[m.material];
  return {
    section: kind === "bow" ? { widthMm: heightMm, heightMm: widthMm, wallMm } : { widthMm, heightMm, wallMm },
    lengthMm: norm3(sub3(m.to, m.from)),
    youngMPa: material.eMPa,
    yieldMPa: material.yieldMPa,
  };
}

/** The shim that leaves a bow of so much, by the hot hinges; null where not even a shim of a tenth of the length does. */
function shimFor(bending: Bending, uprightsMm: readonly number[], share: number, freeMm: number): number | null {
  const left = (shim: number): number => keptByHinges(bending, uprightsMm, share, freeMm, shim).finalMm;
  let [low, high] = [0, bending.lengthMm / 10];
  if (left(high) < 0) return null;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (left(middle) < 0) low = middle;
    else high = middle;
  }
  return high;
}

/** The hot share by which one trial comes out as it did; null where none between a tenth and nine does. */
function shareOf(
  bending: Bending,
  uprightsMm: readonly number[],
  freeMm: number,
  trial: { shimMm: number; leftMm: number },
): number | null {
  const left = (share: number): number => keptByHinges(bending, uprightsMm, share, freeMm, trial.shimMm).finalMm;
  let [low, high] = [0.1, 0.9];
  // The softer it is, the more it keeps.
  if (left(low) < trial.leftMm || left(high) > trial.leftMm) return null;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (left(middle) > trial.leftMm) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * What to bend a member over so that it is straight when cold: to begin with by the hot hinges, with the range of what is not known; after one
 * trial by what that one kept; after two by the line through both (secant), from three on by the line that fits all of them best.
 * @returns null for a member of which it cannot be told.
 */
export function backBow(plan: Plan, structure: Structure, bowed: Bowed): BackBow | null {
  const m = structure.members.find((x) => x.id === bowed.member);
  const bending = m && bendingOf(m, bowed.kind);
  if (!m || !bending) return null;
  const uprightsMm = landingOn(structure, m).map((u) => u.alongMm);
  const { freeMm } = bowed;
  const by = (share: number): number | null => shimFor(bending, uprightsMm, share, freeMm);
  const [likely, low, high] = [by(HOT_SHARE.likely), by(HOT_SHARE.low), by(HOT_SHARE.high)];
  const trials = (plan.fixture?.trials ?? [])
    .filter((t) => t.member === m.id)
    .map((t) => ({ shimMm: t.shim.mm, leftMm: t.left.mm }));
  const [only] = trials;
  const share = trials.length === 1 && only ? shareOf(bending, uprightsMm, freeMm, only) : null;
  const series =
    trials.length >= SERIES_FROM && likely !== null && likely > 0
      ? nextInSeries(freeMm, freeMm / likely, trials)
      : null;
  const nextMm = series
    ? Math.max(0, series.presetMm)
    : trials.length > 1
      ? nextShim(trials)
      : share === null
        ? null
        : by(share);
  const { firstYieldMm } = bent(bending, 0);
  return {
    ...bowed,
    uprightsMm,
    longMm: bending.lengthMm,
    begin: likely !== null && low !== null ? { likelyMm: likely, lowMm: low, highMm: high } : null,
    nextMm,
    series,
    firstYieldMm,
    shimN: bent(bending, nextMm ?? likely ?? 0).shimN,
  };
}

/** The same in words, each with its number. */
export function backBowWords(found: BackBow, units: UnitPreference): string[] {
  const size = (mm: number): string => formatSmall(mm, units, { decimals: units === "mm" ? 1 : 0 });
  const { begin, nextMm, firstYieldMm, shimN } = found;
  const force = `${physical("force", shimN / 1000, units)} on the shim, half of that at each end`;
  const wanted = nextMm ?? begin?.likelyMm ?? null;
  return [
    `Free, ${found.member} is likely to bow by ${size(found.freeMm)} over ${size(found.longMm)}: ${found.ends}.`,
    begin
      ? `To begin with, a shim of ${size(begin.likelyMm)} under its middle, both ends held down; anything from ${size(begin.lowMm)} ${begin.highMm === null ? "up" : `to ${size(begin.highMm)}`} may be right, for how soft it gets under the arc is not known. Weld it bent, let it cool, let go, read what is left.`
      : "No shim would leave it straight by this model: bend it back when it is cold.",
    ...(nextMm !== null ? [`By what was tried: ${size(nextMm)} next.`] : []),
    ...(found.series ? [seriesWords(found.series, size)] : []),
    ...(wanted === null
      ? []
      : [
          `It takes ${force}.${wanted > firstYieldMm ? ` From ${size(firstYieldMm)} on it stays bent by the clamps alone: go there in small steps.` : ` It stays elastic up to ${size(firstYieldMm)}.`}`,
        ]),
  ];
}
