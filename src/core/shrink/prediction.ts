import type { Corner, ResolvedFrame, Side } from "../frame";
import type { Vec2 } from "../numeric";
import type { Estimate } from "../units";
import type { Weld } from "./weldSchema";

/** What welding is expected to do to one frame. Losses are positive when the frame gets smaller. */
export interface Prediction {
  method: "closed form";
  heatJPerMm: number;
  /** Free closing of one fully beaded line, mm. */
  closingMm: number;
  sidesMm: Record<Side, Estimate>;
  /** How far each cross member draws its two sides together where it stands. */
  crossPullMm: { member: string; pullMm: Estimate }[];
  /** Movement of each corner, mm. */
  cornerMovesMm: Record<Corner, Vec2>;
  reasons: string[];
}

/** Anything that predicts: the closed form now, the stepwise simulation behind the same shape. */
export type Predictor = (frame: ResolvedFrame, weld: Weld) => Prediction;
