import { boundWords, chanceWithin, type Limit } from "../check";
import { CORNERS, type Span } from "../geometry";
import { type OutcomeId, outcomeKey, outcomeWords, predicted } from "../shrink";
import { cornerAngleDeg, type Measured } from "../square";
import { type Estimate, formatLength, formatSmall, physical, type UnitPreference, unitOf } from "../units";
import { bowSize, endsGo } from "./bowLines";
import type { EvaluationContext } from "./evaluationContext";
import { type FrameRound, sizeRead } from "./frameRound";
import { gateReading } from "./gateReading";
import { afterChange, placeForecast, placesRead } from "./placeForecast";
import { fullU } from "./rounds";

/** One limit of the job with how the cold frame is likely to stand against it. */
export interface Forecast {
  limit: Limit;
  /** In the limit's own unit; null where nothing is predicted of it. */
  cold: Estimate | null;
  /** Chance that the cold frame passes; null where nothing is predicted. */
  chance: number | null;
  /** Where it is worst, in words; empty for the frame as a whole. */
  where: string;
}

/** What is predicted of a size that is limited. */
export const sizeOutcome = ({ id, mouth, ofFeet }: Limit): OutcomeId =>
  mouth ? { kind: ofFeet ? "feet" : "mouth", from: mouth[0], to: mouth[1] } : { kind: "span", span: id as Span };

/** Lower end of a limit on a size that may go up or down. */
const eitherWay = ({ upper }: Limit): number | null => (upper === null ? null : -upper);

const exactly = (value: number): Measured => ({ value, u: 0 });

/** The round that a forecast starts from: the last that was read, without contradiction. */
export const lastRead = (unwelded: readonly FrameRound[]): FrameRound | null =>
  unwelded.findLast((r) => r.readings.size > 0 && r.square?.fit.agree !== false) ?? null;

/** The step at which a round was read, by its key; null where none of the order asked for it. */
export function gateOf(
  { order, ticked, structure }: EvaluationContext,
  frameRounds: readonly FrameRound[],
  round: FrameRound | null,
): string | null {
  const steps = order?.steps ?? [];
  const read = { structure, steps, ticked, frameRounds, parts: new Map<string, FrameRound[]>() };
  return steps.findLast((s) => round !== null && gateReading(s, read)?.round === round)?.key ?? null;
}

/**
 * How the cold frame is likely to stand against each limit, in the order of work as planned: from how it is to be set up, or
 * from how it was read last before welding.
 * @param unwelded rounds of the frame from before its first bead. @returns nothing without a prediction.
 */
export function forecasts(context: EvaluationContext, unwelded: readonly FrameRound[]): Forecast[] {
  const { prediction, structure, target, limits, places, job } = context;
  if (!prediction || !structure) return [];
  const { quad } = structure;
  const setUp = job.plan.aim === "drawing" ? null : target;
  const read = lastRead(unwelded);
  // What was read has the tacks in it that were there by then.
  const gate = gateOf(context, unwelded, read);
  const change = (id: OutcomeId, since: string | null = null): Estimate | null => predicted(prediction, id, since);
  /** A mouth as it is set up: opened by what it closes. */
  const mouthSetUp = (limit: Limit): number | undefined => {
    const key = outcomeKey(sizeOutcome(limit));
    return job.plan.aim === "drawing"
      ? undefined
      : prediction.setUp.targets.find(({ id }) => outcomeKey(id) === key)?.target.value;
  };
  const worst = (
    limit: Limit,
    all: readonly { cold: Estimate | null; where: string }[],
    lower: number | null = limit.lower,
  ): Forecast =>
    all
      .map(
        ({ cold, where }): Forecast => ({
          limit,
          cold,
          where,
          chance: cold && chanceWithin(cold, lower, limit.upper),
        }),
      )
      .reduce((a, b) => ((b.chance ?? 2) < (a.chance ?? 2) ? b : a), { limit, cold: null, chance: null, where: "" });
  return limits.flatMap((limit): Forecast[] => {
    switch (limit.kind) {
      case "size": {
        const mean = read && sizeRead(read.means, limit);
        // Between the ends of a row nobody judges what nobody reads: neither is it forecast.
        if (limit.mouth && limit.optional && !mean) return [];
        const e = change(sizeOutcome(limit), mean ? gate : null);
        const start = mean
          ? { value: mean.mm, u: fullU(mean) }
          : exactly((limit.mouth ? mouthSetUp(limit) : setUp?.targets[limit.id as "AB"]) ?? limit.nominal);
        return [worst(limit, [{ cold: e && afterChange(start, e), where: "" }])];
      }
      case "diagonal": {
        const known = read?.square?.diagonalDifferenceMm;
        const e = change({ kind: "square" }, known ? gate : null);
        const start = known ?? exactly(setUp?.diagonalDifferenceMm ?? 0);
        return [worst(limit, [{ cold: e && afterChange(start, e), where: "" }])];
      }
      case "corner": {
        if (!quad) return [];
        const perDeg = (1000 * Math.PI) / 180;
        return [
          worst(
            limit,
            CORNERS.map((c) => {
              const known = read?.square?.angleDeg?.[c];
              const e = change({ kind: "angle", corner: c }, known ? gate : null);
              const drawn = cornerAngleDeg(quad.corners, c);
              const angle = known ?? exactly(setUp ? cornerAngleDeg(setUp.corners, c) : drawn);
              const cold = e && afterChange({ value: angle.value - drawn, u: angle.u }, e);
              return {
                cold: cold && { value: perDeg * cold.value, low: perDeg * cold.low, high: perDeg * cold.high },
                where: `corner ${c}`,
              };
            }),
          ),
        ];
      }
      case "flat":
        // With a corner held down four corners gap by their twist, up or down.
        return limit.flatBy === "held" && quad
          ? [worst(limit, [{ cold: change({ kind: "twist" }), where: "twist" }], eitherWay(limit))]
          : [worst(limit, [{ cold: change({ kind: "flat" }), where: "" }])];
      case "straight":
        return [
          worst(
            limit,
            structure.members.flatMap((m) =>
              (["bow", "lift"] as const).map((kind) => {
                const id = { kind, member: m.id } as const;
                const bows = change(id);
                return {
                  cold: bows && bowSize(bows),
                  where: bows ? endsGo(structure, id, bows.value) : outcomeWords(id),
                };
              }),
            ),
            eitherWay(limit),
          ),
        ];
      case "place": {
        const found = read && places && placesRead(read, places);
        const told = places && placeForecast(limit, places, prediction, found, gate, job.plan.aim !== "drawing");
        return [told ? { limit, ...told } : { limit, cold: null, chance: null, where: "" }];
      }
      default:
        return [{ limit, cold: null, chance: null, where: "" }];
    }
  });
}

/** A chance as one says it; never certain, for a model is none. */
export const chanceWords = (chance: number): string =>
  chance > 0.985 ? "nearly sure" : chance < 0.015 ? "hardly ever" : `${Math.round(100 * chance)} in 100`;

/** A forecast in words: what is likely, its band, and the limit. */
export function forecastWords({ limit, cold, where }: Forecast, units: UnitPreference): string {
  if (!cold) return "nothing is predicted of it: read it";
  const small = (x: number): string =>
    limit.unit === "mm/m"
      ? physical("slope", x, units, undefined, true)
      : formatSmall(x, units, { decimals: units === "mm" ? 2 : 1, bare: true });
  const size = (x: number): string =>
    limit.kind !== "size"
      ? small(x)
      : units === "mm"
        ? formatLength(x, units, { decimals: 2 }).text
        : // Fractions of an inch are too coarse to tell a band by.
          formatLength(x, "inch-decimal", { decimals: 1 }).text;
  const unit =
    limit.kind === "size" ? "" : limit.unit === "mm/m" ? ` ${unitOf("slope", units)}` : units === "mm" ? " mm" : " in";
  const { lower, upper } = limit;
  // In the decimals that it is compared with.
  const bound = (x: number): string => boundWords(limit, x, units === "mm" ? units : "inch-decimal");
  const between =
    lower !== null && upper !== null
      ? `limit ${bound(lower)} to ${bound(upper)}`
      : upper !== null
        ? `limit ${bound(upper)}`
        : `limit at least ${bound(lower ?? 0)}`;
  return `${where ? `${where}: ` : ""}likely ${size(cold.value)}${unit}, nine in ten ${size(cold.low)} to ${size(cold.high)}${unit}; ${between}`;
}

/** The forecast that is likeliest to fail, where failing is likelier than passing; null when there is none. */
export const likelyFailure = (all: readonly Forecast[]): Forecast | null =>
  all.reduce<Forecast | null>(
    (a, f) => (f.chance !== null && f.chance < 0.5 && f.chance < (a?.chance ?? 1) ? f : a),
    null,
  );
