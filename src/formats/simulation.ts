import {
  bandWords,
  builtOf,
  evaluate,
  type Job,
  planProblems,
  predict,
  predictedDecimals,
  whyNoPrediction,
} from "@/core/job";
import { stepsInWords } from "@/core/plan";
import {
  type FramePrediction,
  type OutcomeId,
  outcomeKey,
  outcomeWords,
  predicted,
  type SetUpTarget,
  toldOutcomes,
} from "@/core/shrink";
import { fixed, formatLength, formatSmall, physical, type UnitPreference } from "@/core/units";

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

const told = ({ prediction, replay }: FramePrediction): OutcomeId[] =>
  toldOutcomes(
    replay.outcomes.map((o) => o.id),
    (id) => predicted(prediction, id)?.value ?? 0,
  );

function stepRows(job: Job, found: FramePrediction): StepRow[] {
  const { replay } = found;
  const { structure, order } = builtOf(job.plan);
  if (!structure || !order) return [];
  const keys = new Set(told(found).map(outcomeKey));
  const words = stepsInWords(structure, order.steps, job.plan.units);
  let before = -1;
  return order.steps.map((step) => {
    const { key } = step;
    const row = replay.ids.lastIndexOf(key);
    const change = Object.fromEntries(
      replay.outcomes.flatMap(({ id, after }) =>
        keys.has(outcomeKey(id)) ? [[outcomeKey(id), (after[row] ?? 0) - (after[before] ?? 0)]] : [],
      ),
    );
    before = row;
    return {
      key,
      say: words.get(key)?.say ?? key,
      row,
      change,
      clampForcesN: replay.clampForces[row] ?? [],
    };
  });
}

/** Head of a column. */
const columnWord = (id: OutcomeId): string =>
  id.kind === "length" ? id.member : id.kind === "square" ? "AC-BD" : outcomeKey(id);

const head = (title: string): string[] => ["", title.toUpperCase()];

/** The simulation of a job as text. @param job a valid job. */
export function simulationText(job: Job): string {
  const u = job.plan.units;
  const found = predict(job.plan);
  const problems = planProblems(job.plan).map((p) => `${p.severity}: ${p.path}: ${p.message}`);
  if (!found) return `${[job.plan.name, ...problems, whyNoPrediction(job.plan) ?? ""].join("\n")}\n`;
  // Set up as the screens say it: aimed at the middle of the limits, with pieces as they were cut.
  const prediction = evaluate(job, found.prediction).prediction ?? found.prediction;
  const small = (mm: number): string =>
    formatSmall(mm, u, { decimals: predictedDecimals(u), bare: true, signed: true }).padStart(7);
  const columns = told(found).map(outcomeKey);
  const target = (t: SetUpTarget, units: UnitPreference): string => {
    const value = t.unit === "°" ? `${fixed(t.target.value, 3)}°` : formatLength(t.target.value, units).text;
    const spread = Math.max(t.target.high - t.target.value, t.target.value - t.target.low);
    return `${outcomeWords(t.id)}: ${value} ± ${t.unit === "°" ? `${fixed(spread, 3)}°` : formatSmall(spread, units, { decimals: predictedDecimals(u) })}`;
  };
  const lines = [
    job.plan.name,
    ...problems,
    ...head("Cold frame against how it was set up, nine frames in ten"),
    ...prediction.outcomes.map((q) =>
      q.unit === "mm"
        ? `${outcomeWords(q.id)}: ${bandWords(q.estimate, u)}`
        : q.unit === "mm/m"
          ? `${outcomeWords(q.id)}: ${physical("slope", q.estimate.value, u)} (${physical("slope", q.estimate.low, u, undefined, true)} to ${physical("slope", q.estimate.high, u, undefined, true)})`
          : `${outcomeWords(q.id)}: ${fixed(q.estimate.value, 3)} ${q.unit} (${fixed(q.estimate.low, 3)} to ${fixed(q.estimate.high, 3)})`,
    ),
    ...(prediction.setUp.beyondMm === null
      ? [
          ...head("Set up off nominal"),
          ...prediction.setUp.targets.filter((t) => t.nominal !== 0).map((t) => target(t, u)),
        ]
      : []),
    ...head(`What each step does, ${u === "mm" ? "mm" : "in"} (nominal)`),
    `     ${told(found)
      .map((id) => columnWord(id).padStart(7))
      .join("")}`,
    ...stepRows(job, found).map(
      (s, i) => `${String(i + 1).padStart(3)}. ${columns.map((key) => small(s.change[key] ?? 0)).join("")}  ${s.say}`,
    ),
    ...head("Why"),
    ...prediction.reasons,
  ];
  return `${lines.join("\n")}\n`;
}
