import { bentPlate, keptByPlate, nextShim } from "../fixture";
import { MATERIALS } from "../frame";
import { cellOf, learnedFactors, type NextPreset } from "../learn";
import { formatSmall, type Problem, physical, rangeWords, type UnitPreference } from "../units";
import { FACTORS, heatJPerMm, startingSettings } from "../weld";
import { nextInSeries, SERIES_FROM, seriesWords } from "./camberSeries";
import type { Plan } from "./planSchema";

type Plates = NonNullable<NonNullable<Plan["fixture"]>["plates"]>;

/** What trials of plates are kept under, where those of members have their names. */
export const PLATES = "plates";

/** The share that is kept may be so much more or less than the model says (own judgement: of two facts one agrees within a quarter). */
const SHARE_RANGE = [0.6, 1.5] as const;
const SIZES_MM = { thickness: [0.5, 12], width: [20, 2000], length: [50, 6000] } as const;

/** What of the plates' sizes is a slip, at its field. */
export const platesProblems = ({ fixture, units }: Pick<Plan, "fixture" | "units">): Problem[] =>
  fixture?.plates
    ? (["thickness", "width", "length"] as const).flatMap((key): Problem[] => {
        const { mm } = (fixture.plates as Plates)[key];
        const [least, most] = SIZES_MM[key];
        return mm < least || mm > most
          ? [
              {
                path: `fixture.plates.${key}`,
                message: `The ${key} of plates is ${rangeWords(least, most, units)}. Check the unit.`,
                severity: "error",
              },
            ]
          : [];
      })
    : [];

/** What to bend two plates over, by what they did so far. */
export interface PlateBow {
  heatJPerMm: number;
  zoneMm: number;
  keptShare: number;
  /** How far they bow when nothing bends them: a trial over no shim; null while there is none. */
  freeMm: number | null;
  /** What the whole series of trials says of the next; null before there are enough. */
  series: NextPreset | null;
  /** Shim to try next; null while it takes a free one first, or the trials tell nothing. */
  next: { mm: number; lowMm: number; highMm: number } | null;
  /** From this shim on a plate stays bent by the clamps alone, and the force that holds it there at the next shim, N. */
  firstYieldMm: number;
  shimN: number;
}

/** @returns null while nobody said that there are plates, or their sizes cannot be. */
export function plateBow(plan: Plan): PlateBow | null {
  const plates = plan.fixture?.plates;
  if (!plates || platesProblems(plan).length > 0) return null;
  const material = MATERIALS[plates.material];
  const { weld } = plan;
  const arc =
    weld.from === "starting"
      ? { process: weld.process, ...startingSettings(weld.process, plates.thickness.mm, plates.material) }
      : weld;
  const heat = heatJPerMm(arc);
  const cell = cellOf(arc.process, plates.thickness.mm, plates.material);
  const trials = (plan.fixture?.trials ?? [])
    .filter((t) => t.member === PLATES)
    .map((t) => ({ shimMm: t.shim.mm, leftMm: t.left.mm }));
  const free = trials.findLast((t) => t.shimMm === 0);
  const freeMm = free ? -free.leftMm : null;
  const kept = keptByPlate({
    factor: learnedFactors(FACTORS, plan.learned, cell).longitudinal.value,
    youngMPa: material.eMPa,
    alphaPerK: material.alphaPerK,
    heatJPerMm3K: material.heatJPerMm3K,
    heatJPerMm: heat,
    yieldMPa: material.yieldMPa,
    thicknessMm: plates.thickness.mm,
    widthMm: plates.width.mm,
    shimMm: 0,
    freeMm: freeMm ?? 0,
  });
  const bent = trials.filter((t) => t.shimMm > 0);
  const series = bent.length >= SERIES_FROM && freeMm !== null ? nextInSeries(freeMm, kept.keptShare, trials) : null;
  const bySecant = series
    ? Math.max(0, series.presetMm)
    : trials.length > 1
      ? nextShim(bent.length > 1 ? bent : trials)
      : null;
  const byModel = (free: number, share: number): number => free / Math.min(1, share * kept.keptShare);
  const next =
    bySecant !== null
      ? { mm: bySecant, lowMm: bySecant, highMm: bySecant }
      : freeMm === null || bent.length > 0
        ? null
        : {
            mm: byModel(freeMm, 1),
            lowMm: byModel(freeMm, SHARE_RANGE[1]),
            highMm: byModel(freeMm, SHARE_RANGE[0]),
          };
  const bending = {
    thicknessMm: plates.thickness.mm,
    widthMm: plates.width.mm,
    lengthMm: plates.length.mm,
    youngMPa: material.eMPa,
    yieldMPa: material.yieldMPa,
  };
  return {
    heatJPerMm: heat,
    zoneMm: kept.zoneMm,
    keptShare: kept.keptShare,
    freeMm,
    series,
    next,
    ...bentPlate(bending, next?.mm ?? 0),
  };
}

/** The same in words, each with its number. */
export function plateBowWords(found: PlateBow, units: UnitPreference): string[] {
  const size = (mm: number): string => formatSmall(mm, units, { decimals: units === "mm" ? 1 : 0 });
  const { freeMm, next, keptShare, zoneMm, firstYieldMm, shimN } = found;
  return [
    `With ${physical("heat", found.heatJPerMm, units)} a strip of ${size(zoneMm)} beside the seam yields: about ${Math.round(100 * keptShare)} in 100 of a bend stays.`,
    freeMm === null
      ? "How far they bow free is not known before one is welded: weld one over no shim, and keep what it bowed as left, below nought."
      : `Free they bow by ${size(freeMm)}.`,
    ...(found.series ? [seriesWords(found.series, size)] : []),
    ...(next
      ? [
          next.lowMm === next.highMm
            ? `By what was tried: ${size(next.mm)} next.`
            : `To begin with, a shim of ${size(next.mm)} under the middle, both ends held down until it is cold; anything from ${size(next.lowMm)} to ${size(next.highMm)} may be right.`,
          `It takes ${physical("force", shimN / 1000, units)} on the shim.${next.mm > firstYieldMm ? ` From ${size(firstYieldMm)} on it stays bent by the clamps alone: go there in small steps.` : ` It stays elastic up to ${size(firstYieldMm)}.`}`,
        ]
      : []),
  ];
}
