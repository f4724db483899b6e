import { GRAVITY_N_PER_KG } from "../bed";
import { gripped } from "../fixture";
import { type Bar, barName } from "../plan";
import type { Replay } from "../shrink";
import { formatSmall, physical, type UnitPreference } from "../units";

/** What is let go with less is not told, N. */
const TOLD_N = 50;
/** A hammer that energy is told by, kg. */
const HAMMER_KG = 1;
/** Energy that is told, J: less does nothing. */
const TOLD_J = 0.02;

type Released = Replay["released"][number];

/** A force that one feels, N: to the tenth of what a hand tells. */
export const shortForce = (n: number, units: UnitPreference): string =>
  physical("force", n / 1000, units, units === "mm" && n < 1000 ? 2 : undefined);

/** An energy as a hammer that falls so far. */
const energyWords = (j: number, units: UnitPreference): string =>
  `as much as a ${units === "mm" ? "1 kg" : "2.2 lb"} hammer that falls ${formatSmall((1000 * j) / (HAMMER_KG * GRAVITY_N_PER_KG), units, { decimals: 0 })}`;

/**
 * What is let go at a step, in words: of a bar or block by itself, of clamps and stops together; none where nothing to speak of is.
 * @param tacksBearN what the tacks of one end of a bar bear.
 */
export function releaseWords(
  { released, ids }: Pick<Replay, "released" | "ids">,
  key: string,
  bars: readonly Bar[],
  tacksBearN: number,
  units: UnitPreference,
): string[] {
  const own = released.filter((r) => ids[r.step] === key && r.highN >= TOLD_N);
  const barOf = (r: Released): Bar | undefined => bars.find((b) => b.id === r.what);
  const moves = (r: Released): string =>
    `the frame goes ${formatSmall(r.movedMm, units, { decimals: 1 })} there${r.energyJ >= TOLD_J ? `, ${energyWords(r.energyJ, units)}` : ""}`;
  const each = own.flatMap((r): string[] => {
    const bar = barOf(r);
    if (!bar) return [];
    const name = barName(bar).replace(/^./, (c) => c.toUpperCase());
    if (bar.kind !== "block")
      return [
        `${name} holds about ${shortForce(r.forceN, units)}, up to ${shortForce(r.highN, units)}. When it is let go, ${moves(r)}.${
          r.highN > tacksBearN
            ? ` Its tacks bear about ${shortForce(tacksBearN, units)} an end: make them longer, or they tear first.`
            : ""
        }`,
      ];
    const out = gripped(r.highN);
    // What it is set back by: as far as the frame would come in without it, at the upper end.
    const setBackMm = r.forceN > 0 ? (r.movedMm * r.highN) / r.forceN : 0;
    return [
      `${name} is gripped by about ${shortForce(r.forceN, units)}, up to ${shortForce(r.highN, units)}: up to ${shortForce(out.knockOutN, units)} to knock it out${
        setBackMm > 0
          ? `; ${formatSmall(setBackMm, units, { decimals: 1 })} shorter, or with a taper of over ${Math.ceil(out.selfReleasingDeg)}° a side, it comes out by itself`
          : ""
      }. When it is out, ${moves(r)}.`,
    ];
  });
  const rest = own.filter((r) => !barOf(r));
  if (rest.length === 0) return each;
  const worst = rest.reduce((a, r) => (r.highN > a.highN ? r : a));
  const energyJ = rest.reduce((sum, r) => sum + r.energyJ, 0);
  return [
    ...each,
    `${rest.length === 1 ? "One clamp or stop is" : `${rest.length} clamps and stops are`} under force here, the most about ${shortForce(worst.forceN, units)}, up to ${shortForce(worst.highN, units)}${energyJ >= TOLD_J ? `; together ${energyWords(energyJ, units)}` : ""}. Let them go slowly, one after the other, standing on the clamp side.`,
  ];
}
