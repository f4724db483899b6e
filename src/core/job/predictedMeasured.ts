import { SIDES } from "../geometry";
import { lossOf, type Prediction, predicted } from "../shrink";
import type { Measured, Places } from "../square";
import type { Estimate } from "../units";
import { beyondPairs, tapedPairs } from "./coldSet";
import type { FrameRound } from "./frameRound";
import { wayChange } from "./placeForecast";
import { distanceId, quantityKey } from "./quantityId";
import { fullU, uOfHeights } from "./rounds";

/** Predicted against measured for a length: a side, or the way between two places. Losses are positive when it got shorter, mm. */
export interface Loss {
  name: string;
  predicted: Estimate;
  /** From the last round before welding to the last cold one; null until both are read. */
  measured: Measured | null;
  agrees: "inside the band" | "more than predicted" | "less than predicted" | "cannot tell" | null;
}

/** Predicted against measured change of shape, mm: AC less BD, or the twist of the corners. */
export interface ShapeChange {
  id: "square" | "twist";
  label: string;
  predicted: Estimate;
  /** From the last round before welding to the last cold one; null until both are read. */
  measured: Measured | null;
  agrees: "inside the band" | "outside the band" | "cannot tell" | null;
}

/** A length that is held against its prediction. */
interface ComparedLength {
  name: string;
  /** The reading that it is. */
  key: string;
  change: (gate: string | null) => Estimate | null;
}

/** A way between two places as a length that is compared. */
const wayOf =
  (prediction: Prediction, places: Places) =>
  ([from, to]: readonly [string, string]): ComparedLength => ({
    name: `${from} to ${to}`,
    key: quantityKey(distanceId(from, to)),
    change: (gate) => wayChange(prediction, places, from, to, gate),
  });

/**
 * The sides of a frame that has them, and the ways to what lies beyond its corners; else what is taped between its places: each lot from a round in
 * which all of it was read.
 */
function comparedLengths(prediction: Prediction, places: Places | null): ComparedLength[][] {
  const sides = SIDES.map((span): ComparedLength => {
    return { name: span, key: span, change: (gate) => predicted(prediction, { kind: "span", span }, gate) };
  });
  if (!places) return [sides];
  if (!sides.some((s) => s.change(null))) return [tapedPairs(places).map(wayOf(prediction, places))];
  return [sides, beyondPairs(places).map(wayOf(prediction, places))];
}

/** Loss of each length, predicted and from the last round before welding in which they were read to the last cold one. */
export function lossesOf(
  prediction: Prediction,
  rounds: FrameRound[],
  cold: FrameRound | null,
  gateOf: (round: FrameRound) => string | null = () => null,
  places: Places | null = null,
): Loss[] {
  const all = comparedLengths(prediction, places).flatMap((lot) => {
    const before = rounds.findLast(
      (r) => ["dry fit", "tacked"].includes(r.round.gate) && lot.every((l) => r.readings.has(l.key)),
    );
    return lot.map((length) => ({ ...length, before }));
  });
  return all.flatMap(({ name, key, before, change: changeFrom }): Loss[] => {
    const change = changeFrom(before ? gateOf(before) : null);
    if (!change) return [];
    const expected = lossOf(change);
    const first = before?.means.get(key);
    const last = cold?.means.get(key);
    if (!first || !last) return [{ name, predicted: expected, measured: null, agrees: null }];
    // One tape for both: its zero and scale error drop out of the difference.
    const one = first.tape !== null && first.tape.id === last.tape?.id;
    const measured = {
      value: first.mm - last.mm,
      u: one ? Math.hypot(first.uMm, last.uMm) : Math.hypot(fullU(first), fullU(last)),
    };
    const off = 2 * measured.u;
    // Clear of the band on either side is told by any tape; one that may be off by the whole loss tells no more than that.
    const agrees: Loss["agrees"] =
      measured.value - off > expected.high
        ? "more than predicted"
        : measured.value + off < expected.low
          ? "less than predicted"
          : off <= expected.high && measured.value >= expected.low && measured.value <= expected.high
            ? "inside the band"
            : "cannot tell";
    return [{ name, predicted: expected, measured, agrees }];
  });
}

/** Whether a change of shape lies in its band; a reading less sure than the band is wide says nothing. */
function shapeAgreement(predicted: Estimate, { value, u }: Measured): ShapeChange["agrees"] {
  const off = 2 * u;
  if (off > (predicted.high - predicted.low) / 2) return "cannot tell";
  if (value - off > predicted.high || value + off < predicted.low) return "outside the band";
  return value >= predicted.low && value <= predicted.high ? "inside the band" : "cannot tell";
}

/** Change of the diagonals and of the twist, predicted and measured. */
export function shapeChanges(
  prediction: Prediction,
  rounds: FrameRound[],
  cold: FrameRound | null,
  gateOf: (round: FrameRound) => string | null = () => null,
): ShapeChange[] {
  const diagonals = ["AC", "BD"];
  const before = rounds.findLast(
    (r) => ["dry fit", "tacked"].includes(r.round.gate) && diagonals.every((d) => r.means.has(d)),
  );
  const difference = (r: FrameRound): number => (r.means.get("AC")?.mm ?? 0) - (r.means.get("BD")?.mm ?? 0);
  // Zero and scale of the tape drop out of the difference of two lengths that are nearly alike.
  const uOf = (r: FrameRound): number => Math.SQRT2 * uOfHeights(r.means, diagonals);
  const square: Measured | null =
    before && cold && diagonals.every((d) => cold.means.has(d))
      ? { value: difference(cold) - difference(before), u: Math.hypot(uOf(before), uOf(cold)) }
      : null;
  const twist: Measured | null = cold?.twist ? { value: cold.twist.twistMm, u: cold.twist.uTwistMm } : null;
  return (["square", "twist"] as const).flatMap((id): ShapeChange[] => {
    const found = predicted(prediction, { kind: id }, id === "square" && before ? gateOf(before) : null);
    if (!found) return [];
    const measured = id === "square" ? square : twist;
    return [
      {
        id,
        label: id === "square" ? "AC less BD" : "Twist, A and C above B and D",
        predicted: found,
        measured,
        agrees: measured && shapeAgreement(found, measured),
      },
    ];
  });
}
