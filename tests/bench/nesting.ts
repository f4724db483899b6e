// Measures the buying list: part of npm run bench
import { performance } from "node:perf_hooks";
import loadHighs from "highs";
import { nestingProblem, type Stock, solveNesting } from "@/core/cut";
import { seeded } from "@/core/numeric";
import { length } from "@/core/units";
import { solvedBy } from "@/workers/solvedBy";
import { pieces } from "../support/pieces";

const random = seeded(12);
const stock: Stock = {
  bars: [
    { id: "B1", length: length("6000"), price: null },
    { id: "B2", length: length("4000"), price: null },
  ],
  offcuts: [{ id: "O1", length: length("1500"), quantity: 3 }],
  kerf: length("2"),
  grip: length("50"),
  least: length("300"),
  flip: true,
};
console.log("\nbuying bars, 40 pieces, proven least");
const solver = await loadHighs();
for (const kinds of [3, 5, 8, 20, 40]) {
  const cut = Array.from({ length: kinds }, (_, i) =>
    pieces(`P${i}x`, Math.round(500 + 2400 * random()), Math.floor(40 / kinds) + (i < 40 % kinds ? 1 : 0)),
  );
  const start = performance.now();
  const problem = nestingProblem(cut, stock, 40);
  if ("tooLong" in problem) throw new Error(problem.tooLong);
  const built = performance.now();
  const plan = solveNesting(problem, (lp) => solvedBy(solver, lp, 1.2), stock);
  const ms = performance.now() - start;
  console.log(
    `${`${kinds} lengths, ${problem.complete ? `all ${problem.patterns.length} patterns` : "patterns as they pay"}`.padEnd(58)} ${`${ms.toFixed(0)} ms`.padStart(12)}  target under 2000 ms; ${plan.proven ? "proven" : `bound ${plan.bound.toFixed(3)}`}, patterns ${(built - start).toFixed(0)} ms`,
  );
}
