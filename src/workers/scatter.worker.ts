import { expose } from "comlink";
import { flatnessScatter, noiseFloor, type Scatter } from "@/core/geometry";
import type { Rows, Vec2 } from "@/core/numeric";

const api = {
  scatter: (xy: Vec2[], z: number[], cov: Rows, draws: number): Scatter => flatnessScatter(xy, z, cov, draws),
  floor: (xy: Vec2[], cov: Rows, draws: number): Scatter => noiseFloor(xy, cov, draws),
};
export type ScatterApi = typeof api;

expose(api);
