import { expose } from "comlink";
import loadHighs from "highs";
import { type BarPiece, type Nesting, nestingProblem, type Stock, solveNesting } from "@/core/cut";
import { solvedBy } from "./solvedBy";

/** A plan for one frame is proven in far less; what is not by then is shown with its gap. */
const LIMIT_S = 1.2;

let solver: ReturnType<typeof loadHighs> | null = null;

const api = {
  /** @returns the plan, or the pieces that are longer than any bar. @throws Error when the solver fails. */
  async nest(cut: readonly BarPiece[], stock: Stock, faceMm: number): Promise<Nesting | { tooLong: string }> {
    const problem = nestingProblem(cut, stock, faceMm);
    if ("tooLong" in problem) return problem;
    solver ??= loadHighs();
    const highs = await solver;
    return solveNesting(problem, (lp) => solvedBy(highs, lp, LIMIT_S), stock);
  },
};
export type NestingApi = typeof api;

expose(api);
