import type { Structure } from "../frame";
import { SIDES } from "../geometry";
import { lossOf, type Prediction, predicted } from "../shrink";
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
export function lossLines(prediction: Prediction, { quad, members }: Structure): LossLine[] {
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
