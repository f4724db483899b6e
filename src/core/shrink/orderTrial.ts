import type { MechanicalFrame } from "../mechanics";
import { drain, smoothQuantile, sparseRows } from "../numeric";
import { NOMINAL_JOINTS, type ShrinkFactors, type WeldedModel } from "../weld";
import { drawsOf } from "./draws";
import { type Ready, readied } from "./nominalRun";
import { OrderSearch } from "./orderSearch";
import type { OutcomeId } from "./outcomeId";
import { type Outcome, outcomeAt } from "./outcomes";
import type { Outputs } from "./outputs";
import type { Told } from "./predicted";
import { scatteredOf } from "./simulate";
import type { SimulationStep } from "./simulationSteps";

/**
 * Draws of a trial, the nominal frame besides: more for a small frame, where they cost little. Over the schools of frames with 4 and 8
 * joints what 64 say of the scatter goes with 400 others at 0.94 and more; 32 at 0.5 to 0.9.
 */
const LEAST_DRAWS = 64;
const MOST_DRAWS = 192;
const DRAWS_BY_JOINTS = 768;
const SEED = 71_003;
/** Half of a band that nine in ten lie in, in standard deviations. */
const HALF_BAND = 1.645;

/** A frame made ready for its orders to be tried: whatever its trials by more or fewer draws have in common. */
export class TriedFrame {
  private readonly ready: Pick<Ready, "model" | "cache" | "condensed" | "outputs">;
  private readonly outcomes: Outcome[];

  /**
   * @param steps every joint that any order works at, in some order without errors. @param others steps besides, that orders use.
   * @param wanted outcomes that are asked about.
   * @throws RangeError when frame or steps have an error.
   */
  constructor(
    frame: MechanicalFrame,
    private readonly steps: readonly SimulationStep[],
    private readonly others: readonly SimulationStep[],
    private readonly factors: ShrinkFactors,
    outputsOf: (model: WeldedModel) => Outputs,
    outcomesOf: (model: WeldedModel, outputs: Outputs) => Outcome[],
    wanted: (id: OutcomeId) => boolean,
  ) {
    const joints = { ...NOMINAL_JOINTS, gapMm: factors.gap.value };
    this.ready = drain(readied(frame, steps, factors, joints, outputsOf, "drawn"));
    this.outcomes = outcomesOf(this.ready.model, this.ready.outputs).filter((q) => wanted(q.id));
  }

  /** A trial of its orders. @param count draws; as many as are usual for its size when left out. */
  by(count?: number): OrderTrial {
    const { model, cache, condensed, outputs } = this.ready;
    const usual = Math.min(MOST_DRAWS, Math.max(LEAST_DRAWS, Math.round(DRAWS_BY_JOINTS / model.joints.length)));
    const many = count ?? usual;
    const draws = drawsOf(this.factors, many + 1, SEED, scatteredOf(model, [...this.steps, ...this.others]), true);
    const places = [...new Set(this.outcomes.flatMap((q) => q.uses))].sort((a, b) => a - b);
    const asked = sparseRows(places.map((o) => outputs.rows[o]));
    const search = new OrderSearch(cache, { ...condensed, outputs: asked }, draws);
    return new OrderTrial(search, this.outcomes, places, outputs.rows.length, many);
  }
}

/**
 * What many orders of one frame come to, each from the same few draws, so that two orders differ by their order alone; what they share
 * at their start is worked out once. Bands are fitted (a normal's for what has a sign). For ranking: whoever searches among orders finds
 * those that these draws favour, so the chance that a person reads comes from draws that no search has seen.
 */
export class OrderTrial {
  /** Outputs of one draw, as outcomes know them. */
  private readonly one: Float64Array;

  /** @param places of the outputs that are asked about, among so many. @param count draws, the nominal frame besides. */
  constructor(
    private readonly search: OrderSearch,
    private readonly outcomes: readonly Outcome[],
    private readonly places: readonly number[],
    outputs: number,
    private readonly count: number,
  ) {
    this.one = new Float64Array(outputs);
  }

  /** Outcomes of every draw, from outputs as the search gives them. */
  private valuesOf(out: Float64Array): Float64Array[] {
    const { outcomes, places, one, count } = this;
    const values = outcomes.map(() => new Float64Array(count));
    for (let d = 1; d <= count; d++) {
      for (let i = 0; i < places.length; i++) one[places[i]] = out[d * places.length + i];
      outcomes.forEach((q, k) => {
        values[k][d - 1] = outcomeAt(q, one);
      });
    }
    return values;
  }

  /**
   * @param order a rearrangement of the steps, of the same step objects.
   * @param gate step from which on changes are asked about, but of sizes that cannot be negative; null for the whole order.
   */
  of(order: readonly SimulationStep[], gate: string | null = null): Told {
    const { outcomes } = this;
    const at = gate === null ? -1 : order.findLastIndex((s) => s.id === gate);
    const there = at < 0 ? null : this.valuesOf(this.search.exact(order.slice(0, at + 1)));
    const values = this.valuesOf(this.search.exact(order));
    if (there)
      outcomes.forEach(({ unsigned }, k) => {
        if (!unsigned) for (let d = 0; d < this.count; d++) values[k][d] = values[k][d] - there[k][d];
      });
    return {
      outcomes: outcomes.map(({ id, unsigned }, k) => {
        const all = values[k];
        if (unsigned) {
          const sorted = all.sort();
          const [low, value, high] = [0.05, 0.5, 0.95].map((p) => smoothQuantile(sorted, p)) as [
            number,
            number,
            number,
          ];
          return { id, estimate: { value, low, high } };
        }
        const mean = all.reduce((s, v) => s + v, 0) / all.length;
        const half = HALF_BAND * Math.sqrt(all.reduce((s, v) => s + (v - mean) ** 2, 0) / all.length);
        const estimate = { value: mean, low: mean - half, high: mean + half };
        return id.kind === "place" ? { id, estimate, draws: [...all] } : { id, estimate };
      }),
    };
  }
}
