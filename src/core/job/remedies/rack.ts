import { rackByDiagonal } from "../../check";
import { crossing, type Pushable, tooMuch } from "./pushable";
import { inPlane, LEAST_EFFECT, mostOf, type Offered, type RemedyContext } from "./remedy";

/** Minutes, chance to spoil something, scatter with a reading after each push. Source: own judgement. */
const RACK = { effortMin: 6, risk: 0.02, cv: 0.1 } as const;

/** The diagonal that is too long. */
export const longDiagonal = (square: number): "AC" | "BD" => (square > 0 ? "AC" : "BD");

/** What racking by one mm of AC less BD does to what is judged: the shear of a pull along the long diagonal. */
export function rackEffect({ elastic, quantities }: RemedyContext, square: number): Record<string, number> {
  const pull = elastic.get(longDiagonal(square)) ?? {};
  const per = pull.square ?? 0;
  if (per === 0) return { square: -Math.sign(square) };
  const times = -Math.sign(square) / per;
  return Object.fromEntries(
    Object.keys(quantities).flatMap((k) => {
      // Axial give of a pull goes back when it is let go: only the shear stays.
      const isShear = k === "square" || k.startsWith("angle");
      return isShear && pull[k] !== undefined ? [[k, times * pull[k]] as const] : [];
    }),
  );
}

/** The long diagonal drawn in past yield. */
export function rack(context: RemedyContext, sides: Pushable): Offered {
  const value = context.quantities.square?.value ?? 0;
  if (Math.abs(value) <= LEAST_EFFECT) return { offers: [], refused: [] };
  const long = longDiagonal(value);
  const { lengthMm, heightMm, material, risk, cautions } = sides;
  const plain = { lengthMm, heightMm, rail: inPlane(sides.rail), post: inPlane(sides.post) };
  const alone = rackByDiagonal(plain, material, Math.abs(value));
  const forceN = (alone.forceN * (crossing(context.structure) + 2)) / 2;
  const springbackMm = forceN * Math.abs(context.elastic.get(long)?.[long] ?? 0);
  const why = tooMuch({ springbackMm, forceN, sideMm: Math.min(lengthMm, heightMm) }, context.plan.units);
  if (why) return { offers: [], refused: [`Pulling ${long} in past yield ${why}.`] };
  return {
    refused: [],
    offers: [
      {
        id: { do: "rack", long },
        counts: "mm",
        push: { springbackMm, forceN, mmPerUnit: 0.5 },
        cautions: ["A strap or chain that parts flies: nobody in line with it. Pad the corners.", ...cautions],
        option: { ...RACK, effect: rackEffect(context, value), max: mostOf(value), risk: RACK.risk + risk },
      },
    ],
  };
}
