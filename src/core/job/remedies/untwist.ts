import { twistFrame } from "../../check";
import { type Pushable, tooMuch } from "./pushable";
import { LEAST_EFFECT, mostOf, type Offered, outOfPlane, type RemedyContext } from "./remedy";

/** Minutes, chance to spoil something, scatter with a reading after each push. Source: own judgement. */
const UNTWIST = { effortMin: 8, risk: 0.03, cv: 0.1 } as const;

/** The high corners pressed down past yield. */
export function untwist({ quantities, plan }: RemedyContext, sides: Pushable): Offered {
  const value = quantities.twist?.value ?? 0;
  if (Math.abs(value) <= LEAST_EFFECT) return { offers: [], refused: [] };
  const { lengthMm, heightMm, material, risk, cautions } = sides;
  const plain = { lengthMm, heightMm, rail: outOfPlane(sides.rail), post: outOfPlane(sides.post) };
  const { springbackMm, cornerForceN: forceN } = twistFrame(plain, material, Math.abs(value));
  const why = tooMuch({ springbackMm, forceN, sideMm: Math.min(lengthMm, heightMm) }, plan.units);
  if (why) return { offers: [], refused: [`Untwisting it past yield ${why}.`] };
  return {
    refused: [],
    offers: [
      {
        id: { do: "untwist", high: value > 0 ? "AC" : "BD" },
        counts: "mm",
        push: { springbackMm, forceN, mmPerUnit: 1 },
        cautions: [
          "Blocks under the low corners, weight or clamp on the high ones; hands clear of what springs back.",
          ...cautions,
        ],
        option: { ...UNTWIST, effect: { twist: -Math.sign(value) }, max: mostOf(value), risk: UNTWIST.risk + risk },
      },
    ],
  };
}
