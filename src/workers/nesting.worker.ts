import { expose } from "comlink";
import loadHighs from "highs";
import { type CutPiece, type Nesting, nestingOf, nestingProblem, type Stock } from "@/core/cut";

/** A plan for one frame is proven in far less; what is not by then is shown with its gap. */
const LIMIT_S = 8;

let solver: ReturnType<typeof loadHighs> | null = null;

const api = {
  /** @returns the plan, or the pieces that are longer than any bar. @throws Error when the solver fails. */
  async nest(cut: readonly CutPiece[], stock: Stock, faceMm: number): Promise<Nesting | { tooLong: string }> {
    const problem = nestingProblem(cut, stock, faceMm);
    if ("tooLong" in problem) return problem;
    solver ??= loadHighs();
    const found = (await solver).solve(problem.lp, { time_limit: LIMIT_S, mip_rel_gap: 0 });
    const values = Object.fromEntries(
      Object.entries(found.Columns).map(([name, c]) => [name, "Primal" in c ? Number(c.Primal) : 0]),
    );
    return nestingOf(problem, { optimal: found.Status === "Optimal", values }, stock);
  },
};
export type NestingApi = typeof api;

expose(api);
