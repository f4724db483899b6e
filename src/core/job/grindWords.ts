import { formatSmall, type UnitPreference } from "../units";

/** What grinding its flush faces does to a frame, mm: change of what it is held to. */
export interface GrindMoves {
  faces: number;
  moves: { what: string; mm: number }[];
}

/** Share of a bead's pull that goes with what is ground off above the face: likely, and what is not excluded. Source: own judgement. */
export const GROUND_OFF = { likely: 0.3, low: 0.1, high: 0.5 } as const;

/** What grinding does, in words. */
export function grindWords({ faces, moves }: GrindMoves, units: UnitPreference): string[] {
  const mm = (x: number): string => formatSmall(x, units, { decimals: units === "mm" ? 2 : 1 });
  const ends = (x: number): string => {
    const [low, high] = [(x * GROUND_OFF.low) / GROUND_OFF.likely, (x * GROUND_OFF.high) / GROUND_OFF.likely];
    return `${mm(Math.min(low, high))} to ${mm(Math.max(low, high))}`;
  };
  return moves.length === 0
    ? [`What ${faces} ground faces do to this frame is not told: it has no corners A to D. Read it again.`]
    : moves.map(({ what, mm: by }) => `${what} moves by about ${mm(by)} (${ends(by)}) as ${faces} faces are ground.`);
}
