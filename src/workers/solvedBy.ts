import type loadHighs from "highs";
import type { Solved } from "@/core/cut";

type Solver = Awaited<ReturnType<typeof loadHighs>>;

/** Solves a program in LP form. @param limitS seconds after which the best so far is taken. */
export function solvedBy(solver: Solver, lp: string, limitS: number): Solved {
  const found = solver.solve(lp, { time_limit: limitS, mip_rel_gap: 0 });
  const values = Object.fromEntries(
    Object.entries(found.Columns).map(([name, c]) => [name, "Primal" in c ? Number(c.Primal) : 0]),
  );
  const duals = Object.fromEntries(
    found.Rows.flatMap((r) => ("Dual" in r && r.Name ? [[r.Name, Number(r.Dual)] as const] : [])),
  );
  return { optimal: found.Status === "Optimal", values, duals };
}
