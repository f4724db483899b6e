import { type Finish, holeAdvice } from "@/core/cut";
import { type Structure, sectionWords } from "@/core/frame";
import {
  addedInWords,
  type BedRound,
  bandWords as band,
  bowLines,
  builtOf,
  CARRIES_CAUTION,
  cutToWords,
  type Evaluation,
  evaluate,
  type FrameRound,
  type Job,
  lossLines,
  misreadWords,
  nudgeWords,
  overallSizeMm,
  type Plan,
  partName,
  plusMinus,
  predict,
  predictedDecimals,
  restWords,
  surveyWords,
  tapWords,
  whyNoPrediction,
} from "@/core/job";
import { orderWords, type StepWords, stepsInWords } from "@/core/plan";
import { fixed, formatLength, formatSmall, nearLength, physical, type UnitPreference } from "@/core/units";

/** A job with its prediction: what the screens show once it is worked out. */
const whole = (job: Job): Evaluation => evaluate(job, predict(job.plan)?.prediction ?? null);

const head = (title: string): string[] => ["", title.toUpperCase()];

/** Size, section and weight of what is built. */
function frameLine(e: Evaluation, plan: Plan): string {
  const u = plan.units;
  const size = overallSizeMm(plan).map((mm) => formatLength(mm, u).text);
  const { members } = builtOf(plan);
  const made = (members?.sections ?? [])
    .map((s) => `${sectionWords(members ?? { sections: [] }, s.id)}, ${s.material}`)
    .join("; ");
  return `${size.join(" × ")}, ${made}${e.structure ? `, ${physical("mass", e.structure.massKg, u)}` : ""}`;
}

function cutLines(e: Evaluation, u: UnitPreference): string[] {
  return e.cut.map(
    (p) =>
      `${p.quantity} × ${p.members.join(", ")}: long point ${nearLength(p.longPointMm, u)}, short point ${nearLength(p.shortPointMm, u)}, ${p.ends}; ${addedInWords(p, u)}${p.toGap || p.fixed ? "" : " for shrinkage"}${p.aimMm === 0 ? "" : ` and ${formatSmall(p.aimMm, u, { decimals: predictedDecimals(u), signed: true })} to the middle of the limits`}: cut ${cutToWords(p, u, false)}`,
  );
}

function holeLines(structure: Structure, finish: Finish, u: UnitPreference): string[] {
  return [
    ...head(`Holes, finish: ${finish}`),
    ...holeAdvice(structure, finish).map(
      (a) =>
        `${a.volume.members.join(", ")}: ${a.count === 1 ? "one hole" : `${a.count} holes`} of ${formatSmall(a.diameterMm, u)}, ${a.where}`,
    ),
  ];
}

function bedLines(round: BedRound, u: UnitPreference): string[] {
  const rests = round.verdict.rests.map((r) => `  ${r.id}: ${restWords(r, u)}`);
  return [
    `Round ${round.number}: ${round.verdict.word}. ${round.verdict.why}`,
    `  ${surveyWords(round, u).say}`,
    ...rests,
    ...(round.next ? [`  Next: ${round.next.say}`] : []),
  ];
}

/** A frame by its places: how far the farthest is off, and what to tap. */
function placeLines(round: FrameRound, u: UnitPreference): string[] {
  const { general } = round;
  if (!general?.farthest) return [];
  const { place, value, u: uMm } = general.farthest;
  return [
    `  farthest place ${place}, ${plusMinus(value, uMm, u)} from the drawing`,
    ...(general.fit.agree === false || round.round.gate === "cold"
      ? []
      : general.taps.map((t, i) => `  ${i + 1}. tap ${tapWords(t, u)}`)),
  ];
}

/** @param of the sub-assembly that was measured by itself; null for the frame. */
function frameLines(round: FrameRound, u: UnitPreference, of: string | null = null): string[] {
  const { square } = round;
  const name = `${of ? `${of}, ` : ""}${round.round.gate}, round ${round.number}`;
  if (!square && round.general?.farthest)
    return [`${name}: ${misreadWords(round.general, u, round.help)}`, ...placeLines(round, u)];
  if (square?.bySides && square.shearMmPerM) {
    const { value, u: uLean } = square.shearMmPerM;
    const nudge = nudgeWords(round, u);
    return [
      `${name}: out of square ${physical("slope", value, u, undefined, true)} ± ${physical("slope", 2 * uLean, u)} by the diagonals alone; still to read: ${square.missing.join(", ")}`,
      ...(round.round.gate === "cold" ? [] : [`  ${nudge.say} ${nudge.why}`]),
    ];
  }
  if (!square?.angleDeg || !square.shearMmPerM || !square.taperLengthMm || !square.taperWidthMm)
    return [
      `${name}: ${round.impossible?.message ?? `not determined; still to read: ${square?.missing.join(", ") || "everything"}`}`,
    ];
  const angles = Object.entries(square.angleDeg).map(([c, a]) => `${c} ${fixed(a.value, 3)}° ± ${fixed(2 * a.u, 3)}°`);
  const nudge = nudgeWords(round, u);
  return [
    `${name}: ${angles.join(", ")}`,
    `  out of square ${physical("slope", square.shearMmPerM.value, u, undefined, true)} ± ${physical("slope", 2 * square.shearMmPerM.u, u)}; AB longer than CD by ${formatSmall(square.taperLengthMm.value, u, { decimals: 2 })}; BC longer than DA by ${formatSmall(square.taperWidthMm.value, u, { decimals: 2 })}`,
    `  ${misreadWords(square, u, round.help)}`,
    ...(round.round.gate === "cold" ? [] : [`  ${nudge.say} ${nudge.why}`]),
  ];
}

/** Rounds of sub-assemblies by themselves, each with its sub-assembly's id. */
const roundsOfParts = ({ parts }: ReturnType<typeof whole>) =>
  [...parts].flatMap(([id, rounds]) => rounds.map((r) => [r, id] as const));

const stepWordsOf = ({ structure, steps }: ReturnType<typeof whole>, job: Job): Map<string, StepWords> =>
  structure ? stepsInWords(structure, steps, job.plan.units) : new Map();

/** The report as data: what `--json` prints. Same core, same numbers as the screens. */
export function reportData(job: Job) {
  const e = whole(job);
  const words = stepWordsOf(e, job);
  return {
    job: { id: job.id, name: job.plan.name, version: job.version },
    problems: e.problems,
    frame: e.structure && {
      massKg: e.structure.massKg,
      centreOfMassMm: e.structure.centreOfMass,
      members: e.structure.members.map((m) => ({
        id: m.id,
        longMm: m.longMm,
        massKg: m.massKg,
        section: m.properties,
      })),
      quad: e.structure.quad,
    },
    limits: e.limits,
    cut: e.cut,
    prediction: e.prediction,
    setUpTargetsMm: e.setUp?.targets ?? null,
    bed: e.bedRounds.map((r) => ({
      round: r.number,
      at: r.round.at,
      ...r.verdict,
      survey: surveyWords(r, job.plan.units).say,
      next: r.next,
    })),
    square: [...e.frameRounds.map((r) => [r, null] as const), ...roundsOfParts(e)].map(([r, part]) => ({
      gate: r.round.gate,
      part,
      round: r.number,
      at: r.round.at,
      impossible: r.impossible,
      angleDeg: r.square?.angleDeg ?? null,
      shearMmPerM: r.square?.shearMmPerM ?? null,
      taperLengthMm: r.square?.taperLengthMm ?? null,
      taperWidthMm: r.square?.taperWidthMm ?? null,
      diagonalDifferenceMm: r.square?.diagonalDifferenceMm ?? null,
      misread: (r.square?.fit ?? r.general?.fit)?.diagnosis ?? null,
      measureBesides: r.help?.ask ?? [],
      farthest: r.general?.farthest ?? null,
      taps: r.general?.taps ?? [],
      nudges: r.square?.nudges ?? [],
      verdicts: r.verdicts,
      overall: r.overall,
    })),
    order: e.order && { by: e.order.by, tack: e.order.tack, weld: e.order.weld },
    steps: e.structure
      ? e.steps.map((s) => ({
          ...s,
          ...words.get(s.key),
          done: e.ticked.has(s.key),
        }))
      : [],
    losses: e.losses,
    shapes: e.shapes,
    holes: e.structure ? holeAdvice(e.structure, job.plan.finish) : [],
    verdict: e.summary,
  };
}

/** The report as text. @param job a valid job. */
export function reportText(job: Job): string {
  const e = whole(job);
  const u = job.plan.units;
  const { plan } = job;
  const words = stepWordsOf(e, job);
  const caution = CARRIES_CAUTION[plan.carries];
  const lines = [
    plan.name,
    frameLine(e, plan),
    ...(caution ? [caution] : []),
    ...e.problems.map((p) => `${p.severity}: ${p.path}: ${p.message}`),
    ...head("Cut list"),
    ...cutLines(e, u),
    ...(e.structure ? holeLines(e.structure, plan.finish, u) : []),
    ...head("Predicted of welding, nine frames in ten"),
    ...(e.prediction && e.structure
      ? [
          ...lossLines(e.prediction, e.structure).map(({ say, loss }) => `${say} ${band(loss, u)}`),
          ...bowLines(e.prediction, e.structure).map(({ say, bow }) => `${say} ${band(bow, u)}`),
        ]
      : [whyNoPrediction(plan) ?? ""]),
    ...(e.prediction?.reasons ?? []),
    ...head("Bed"),
    ...(e.bedRounds.length > 0 ? e.bedRounds.flatMap((r) => bedLines(r, u)) : ["Not surveyed."]),
    ...head("Square"),
    ...(e.frameRounds.length > 0 ? e.frameRounds.flatMap((r) => frameLines(r, u)) : ["Not measured."]),
    ...roundsOfParts(e).flatMap(([r, part]) => frameLines(r, u, partName(plan, { part }))),
    ...head(e.order ? `Order: ${orderWords(e.order)}` : "Order"),
    ...e.steps.map((s, i) => `${e.ticked.has(s.key) ? "[x]" : "[ ]"} ${i + 1}. ${words.get(s.key)?.say ?? s.key}`),
    ...head("Check"),
    ...(e.cold
      ? e.cold.verdicts.map((v) => `${v.limit.label}: ${v.result?.verdict ?? "not measured"}; ${v.why}`)
      : ["Not measured cold."]),
    ...e.losses.flatMap((l) =>
      l.measured
        ? [
            `${l.name} lost ${formatSmall(l.measured.value, u, { decimals: 2 })} ± ${formatSmall(2 * l.measured.u, u, { decimals: 2 })}, predicted ${band(l.predicted, u)}: ${l.agrees}`,
          ]
        : [],
    ),
    ...e.shapes.flatMap((x) =>
      x.measured
        ? [
            `${x.label}: ${x.id === "square" ? "changed by" : "measured"} ${plusMinus(x.measured.value, x.measured.u, u, true)}, predicted ${band(x.predicted, u)}: ${x.agrees}`,
          ]
        : [],
    ),
    "",
    `Verdict so far: ${e.summary.verdict}${e.summary.about ? ` (${e.summary.about})` : ""}`,
  ];
  return `${lines.join("\n")}\n`;
}
