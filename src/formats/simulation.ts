import { bandWords, type Job, orderOf, planProblems, predict, predictedDecimals, whyNoPrediction } from "@/core/job";
import type { FramePrediction, SetUpTarget, SimulatedQuantity } from "@/core/shrink";
import { fixed, formatLength, formatSmall, type UnitPreference } from "@/core/units";

/** The simulation of a job as data: what `--json` prints. Lengths in mm, angles in degrees, forces in N. */
export function simulationData(job: Job) {
  const found = predict(job.plan);
  return {
    job: { id: job.id, name: job.plan.name, version: job.version },
    problems: planProblems(job.plan),
    prediction: found?.prediction ?? null,
    points: found?.replay.points.map(({ id, at, member }) => ({ id, member, atMm: at })) ?? [],
    steps: found ? stepRows(job, found).map((row) => ({ ...row, movementsMm: movements(found, row.row) })) : [],
    yielded: found?.replay.yielded ?? [],
  };
}

/** Movement of every point after a row, as triples. */
function movements({ replay }: FramePrediction, row: number): number[][] {
  const out = replay.history[row];
  return out ? replay.points.map((p) => [...out.subarray(p.first, p.first + 3)]) : [];
}

interface StepRow {
  key: string;
  say: string;
  /** Last row of the replay that belongs to the step. */
  row: number;
  /** What the step did to each quantity that is reported by step. */
  change: Record<string, number>;
  clampForcesN: { id: string; forceN: number }[];
}

/** Quantities told step by step: of a rectangle its sides and shape, of other frames the members that change most. */
const RECTANGLE = ["AB", "BC", "CD", "DA", "square", "twist"];
const MOST_TOLD = 6;
function toldByStep(found: FramePrediction): string[] {
  if (found.prediction.sidesMm) return RECTANGLE;
  const size = (id: string): number => Math.abs(found.prediction.quantities.find((q) => q.id === id)?.nominal ?? 0);
  return found.prediction.quantities
    .map((q) => q.id)
    .filter((id) => id.startsWith("span "))
    .sort((a, b) => size(b) - size(a))
    .slice(0, MOST_TOLD);
}

function stepRows(job: Job, found: FramePrediction): StepRow[] {
  const { replay } = found;
  const told = toldByStep(found);
  let before = -1;
  return orderOf(job.plan).map(({ key, say }) => {
    const row = replay.ids.lastIndexOf(key);
    const at = (q: Pick<SimulatedQuantity, "after">, i: number): number => q.after[i] ?? 0;
    const change = Object.fromEntries(
      replay.quantities.filter((q) => told.includes(q.id)).map((q) => [q.id, at(q, row) - at(q, before)]),
    );
    before = row;
    return { key, say, row, change, clampForcesN: replay.clampForces[row] ?? [] };
  });
}

const head = (title: string): string[] => ["", title.toUpperCase()];

/** The simulation of a job as text. @param job a valid job. */
export function simulationText(job: Job): string {
  const u = job.plan.units;
  const found = predict(job.plan);
  const problems = planProblems(job.plan).map((p) => `${p.severity}: ${p.path}: ${p.message}`);
  if (!found) return `${[job.plan.name, ...problems, whyNoPrediction(job.plan) ?? ""].join("\n")}\n`;
  const { prediction } = found;
  const small = (mm: number): string =>
    formatSmall(mm, u, { decimals: predictedDecimals(u), bare: true, signed: true }).padStart(7);
  const told = toldByStep(found);
  const target = (t: SetUpTarget, units: UnitPreference): string => {
    const value = t.unit === "°" ? `${fixed(t.target.value, 3)}°` : formatLength(t.target.value, units).text;
    const spread = Math.max(t.target.high - t.target.value, t.target.value - t.target.low);
    return `${t.label}: ${value} ± ${t.unit === "°" ? `${fixed(spread, 3)}°` : formatSmall(spread, units, { decimals: predictedDecimals(u) })}`;
  };
  const lines = [
    job.plan.name,
    ...problems,
    ...head("Cold frame against how it was set up, nine frames in ten"),
    ...prediction.quantities.map((q) =>
      q.unit === "mm"
        ? `${q.label}: ${bandWords(q.estimate, u)}`
        : `${q.label}: ${fixed(q.estimate.value, 3)} ${q.unit} (${fixed(q.estimate.low, 3)} to ${fixed(q.estimate.high, 3)})`,
    ),
    ...(prediction.setUp
      ? [
          ...head("Set up off nominal"),
          ...prediction.setUp.targets.filter((t) => t.nominal !== 0).map((t) => target(t, u)),
        ]
      : []),
    ...head(`What each step does, ${u === "mm" ? "mm" : "in"} (nominal)`),
    `     ${told.map((n) => n.replace("span ", "").replace("square", "AC-BD").padStart(7)).join("")}`,
    ...stepRows(job, found).map(
      (s, i) => `${String(i + 1).padStart(3)}. ${told.map((id) => small(s.change[id] ?? 0)).join("")}  ${s.say}`,
    ),
    ...head("Why"),
    ...prediction.reasons,
  ];
  return `${lines.join("\n")}\n`;
}
