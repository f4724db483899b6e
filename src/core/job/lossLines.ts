import type { Structure } from "../frame";
import { SIDES } from "../geometry";
import { type LikelyValue, lossOf, predicted, type Told } from "../shrink";
import type { Estimate } from "../units";

/** One predicted loss of a frame, with the words that go before it. */
interface LossLine {
  id: string;
  say: string;
  loss: Estimate;
}

/**
 * What a frame is predicted to lose: its sides as they are taped, then what members between others draw together where they stand.
 * A frame without sides is told by its members.
 */
export function lossLines(prediction: Told, { quad, members }: Structure): LossLine[] {
  const sides = quad
    ? SIDES.flatMap((side): LossLine[] => {
        const change = predicted(prediction, { kind: "span", span: side });
        return change ? [{ id: side, say: `${side} loses`, loss: lossOf(change) }] : [];
      })
    : [];
  const ofQuad = new Set(quad ? Object.values(quad.sides) : []);
  const others = members.flatMap((m): LossLine[] => {
    const change = ofQuad.has(m.id) ? null : predicted(prediction, { kind: "length", member: m.id });
    return change ? [{ id: m.id, say: `drawn together at ${m.id}`, loss: lossOf(change) }] : [];
  });
  return [...sides, ...others];
}

/** What a frame is likely to lose, before the bands are there: in the words and the order of `lossLines`. */
export const likelyLosses = (
  likely: readonly LikelyValue[],
  structure: Structure,
): { id: string; say: string; mm: number }[] =>
  lossLines(
    { outcomes: likely.map(({ id, nominal: v }) => ({ id, estimate: { value: v, low: v, high: v } })) },
    structure,
  ).map(({ id, say, loss }) => ({ id, say, mm: loss.value }));
