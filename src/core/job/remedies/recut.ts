import { lineOfFace } from "../../mechanics";
import { remedyEffects, type UnitDeed } from "../../shrink";
import { MOST_N } from "./pushable";
import { longDiagonal, rackEffect } from "./rack";
import { LEAST_EFFECT, mostOf, type Offered, type RemedyContext } from "./remedy";

/** Minutes, chance to spoil something, scatter of the effect. Source: own judgement. */
const RECUT = { effortMin: 20, risk: 0.02, cv: 0.4 } as const;
/** Where less of a pull stays, cutting is no remedy. */
const LEAST_STAYS = 0.1;
const NONE: Offered = { offers: [], refused: [] };

/**
 * A corner cut but for its inside, pulled and welded again: of a pull stays what the cut frame was softer by, 1 - flexibility whole over
 * flexibility cut. A generator: yields the share done.
 */
export function* recut(context: RemedyContext, pulls: readonly UnitDeed[]): Generator<number, Offered> {
  const { structure, mechanics, factors, elastic, quantities } = context;
  const value = quantities.square?.value ?? 0;
  const long = longDiagonal(value);
  const pull = pulls.find((p) => p.id === long);
  const whole = Math.abs(elastic.get(long)?.[long] ?? 0);
  const at = long === "AC" ? "A" : "B";
  const { quad } = structure;
  // On a post two joints hold a corner: one cut opens none.
  const corner = quad && !quad.posts[at] ? quad.joints[at] : null;
  const joint = structure.joints.find((j) => j.id === corner);
  const cutLines = joint?.faces.map((f) => f.line).filter((l) => l !== "inside") ?? [];
  if (Math.abs(value) <= LEAST_EFFECT || !pull || !joint || !(whole > 0)) return NONE;
  if (cutLines.length === 0 || cutLines.length === joint.faces.length) return NONE;
  const open = cutLines.map((line) => ({ joint: joint.id, line: lineOfFace(joint, line) }));
  const cut = yield* remedyEffects(structure, mechanics, factors, [pull], open);
  const opened = Math.abs(cut.get(long)?.[long] ?? 0);
  const stays = Math.max(0, 1 - whole / opened);
  const forceN = Math.abs(value) / 2 / stays / opened;
  if (stays < LEAST_STAYS || forceN > MOST_N) return NONE;
  return {
    refused: [],
    offers: [
      {
        id: { do: "recut", joint: joint.id, long },
        counts: "mm",
        // So much is pulled that what springs back leaves what is wanted.
        push: { springbackMm: 0, forceN, mmPerUnit: 0.5 / stays },
        cautions: [
          "Cutting alone gives back almost nothing: what is pulled before it is welded again is what counts.",
          "Guard on, sparks away from people; the frame may spring when the cut goes through.",
        ],
        option: { ...RECUT, effect: rackEffect(context, value), max: mostOf(value), loosens: true },
      },
    ],
  };
}
