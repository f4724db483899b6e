import type { Structure } from "../frame";
import { norm3, sub3, type Vec3 } from "../numeric";
import { lengthsOf, type Step, seamKind, seamPosition, seamRun } from "../plan";
import type { OutputPoint, Replay } from "../shrink";
import { fixed, formatSmall, physical, plainLength, type UnitPreference } from "../units";
import { PROCESSES, processOf, seamShare, settingsBy, type Weld } from "../weld";

/** Movements under this are not told, mm. */
export const TOLD_MM = 0.05;

/** What one tack or bead does to the frame as a whole: the places that move most, along the frame and off it. */
export interface StepEffect {
  /** Along the frame: which place, how far, and toward or away from which other. */
  slides: { at: string; mm: number; other: string; away: boolean } | null;
  /** Off the frame, positive up as it lies during the step. */
  lifts: { at: string; mm: number } | null;
}

/** A joint stands for a place of its members that is no farther from it than so many of their widths. */
const NEAR_WIDTHS = 2;

/** A point as it is told: a corner by its name, else a member at another or near it, or its free end. */
interface Named {
  name: string;
  isFree: boolean;
}

function nameOf({ joints, members }: Structure, p: OutputPoint): Named {
  if (p.member === null) return { name: p.id, isFree: false };
  const own = joints.filter((j) => j.a === p.member || j.b === p.member);
  const far = (at: Vec3): number => norm3(sub3(at, p.at));
  const nearest = own.reduce<(typeof own)[number] | null>((a, j) => (a && far(a.at) <= far(j.at) ? a : j), null);
  const member = members.find((m) => m.id === p.member);
  // A quarter of the surface by length: the width of square tube, the mean of both of another.
  const nearMm = member ? (NEAR_WIDTHS * member.surfaceMm2) / member.longMm / 4 : 0;
  const isNear = (at: Vec3): boolean => far(at) <= nearMm;
  const isAtFreeEnd = (["from", "to"] as const).some(
    (end) => member?.ends[end].joints.length === 0 && isNear(member[end]),
  );
  const isAtJoint = nearest !== null && isNear(nearest.at);
  if (nearest === null || (isAtFreeEnd && !isAtJoint)) return { name: `the free end of ${p.member}`, isFree: true };
  const other = nearest.a === p.member ? nearest.b : nearest.a;
  return { name: `${p.member} ${isAtJoint ? "at" : "near"} ${other}`, isFree: false };
}

/** Places with a name: outside corners, ends and set-down points of members. Two that lie together, or both free ends of a member, have one. */
export const namedPoints = (structure: Structure, points: readonly OutputPoint[]): (OutputPoint & Named)[] =>
  points.filter((p) => p.member === null || p.point !== null).map((p) => ({ ...p, ...nameOf(structure, p) }));

/** Members that a tack or bead holds when a step is done; what nothing holds yet goes nowhere by itself. */
function heldAfter({ joints }: Structure, steps: readonly Step[], key: string): Set<string> {
  const done = new Set(steps.slice(0, steps.findIndex((s) => s.key === key) + 1).map((s) => s.joint));
  return new Set(joints.filter((j) => done.has(j.id)).flatMap((j) => [j.a, j.b]));
}

/**
 * What a step moves, by the nominal frame before and after it. Which face lies up meanwhile tells what lifts: it sinks on the drawing of a frame
 * that lies on its other side.
 * @param steps the order that it stands in. @returns null for a step that is not in the replay.
 */
export function stepEffect(
  structure: Structure,
  replay: Replay,
  steps: readonly Step[],
  { key, up }: Pick<Step, "key" | "up">,
): StepEffect | null {
  const [first, last] = [replay.ids.indexOf(key), replay.ids.lastIndexOf(key)];
  const after = replay.history[last];
  if (!after) return null;
  const before = replay.history[first - 1];
  const moved = (p: OutputPoint): Vec3 => {
    const by = (i: number): number => (after[p.first + i] ?? 0) - (before?.[p.first + i] ?? 0);
    return [by(0), by(1), by(2)];
  };
  const held = heldAfter(structure, steps, key);
  const all = namedPoints(structure, replay.points)
    .filter((p) => p.member === null || held.has(p.member))
    .map((p) => ({ p, by: moved(p) }));
  // Of a frame with corners these are told, and what hangs free; where none of them moves, what does.
  const corners = all.filter(({ p }) => p.member === null || p.isFree);
  const isTold = ({ by }: Moved): boolean => Math.hypot(by[0], by[1]) > TOLD_MM || Math.abs(by[2]) > TOLD_MM;
  const places = structure.quad && corners.some(isTold) ? corners : all;
  const farthest = places.reduce<(typeof places)[number] | null>(
    (a, b) => (Math.hypot(b.by[0], b.by[1]) > (a ? Math.hypot(a.by[0], a.by[1]) : TOLD_MM) ? b : a),
    null,
  );
  const highest = places.reduce<(typeof places)[number] | null>(
    (a, b) => (Math.abs(b.by[2]) > (a ? Math.abs(a.by[2]) : TOLD_MM) ? b : a),
    null,
  );
  return {
    slides: farthest && { at: farthest.p.name, ...along(farthest, places) },
    lifts: highest && { at: highest.p.name, mm: highest.by[2] * (up === "top" ? 1 : -1) },
  };
}

type Moved = { p: OutputPoint & Named; by: Vec3 };

/** How far a place slides, and which other place lies most nearly in line with that. */
function along({ p, by }: Moved, places: readonly Moved[]): { mm: number; other: string; away: boolean } {
  const mm = Math.hypot(by[0], by[1]);
  let best = { other: "", cos: 0 };
  for (const { p: q } of places) {
    const [x, y] = [q.at[0] - p.at[0], q.at[1] - p.at[1]];
    const far = Math.hypot(x, y);
    if (far === 0 || q.name === p.name) continue;
    const cos = (x * by[0] + y * by[1]) / (far * mm);
    if (Math.abs(cos) > Math.abs(best.cos)) best = { other: q.name, cos };
  }
  return { mm, other: best.other, away: best.cos < 0 };
}

/** The same in a sentence. */
export function effectWords({ slides, lifts }: StepEffect, units: UnitPreference): string {
  const size = (mm: number): string => formatSmall(Math.abs(mm), units, { decimals: 1 });
  const parts = [
    ...(slides && slides.other !== ""
      ? [`moves ${slides.at} about ${size(slides.mm)} ${slides.away ? "away from" : "toward"} ${slides.other}`]
      : []),
    ...(lifts ? [`${lifts.mm > 0 ? "lifts" : "lowers"} ${lifts.at} by about ${size(lifts.mm)}`] : []),
  ];
  return parts.length === 0
    ? `It should move nothing by more than ${formatSmall(TOLD_MM, units, { decimals: 2 })}.`
    : `It ${parts.join(" and ")}, if nothing else holds it.`;
}

/** How a bead is run: from which end, in how many lengths; null where there is nothing to say. */
export function runWords(structure: Structure, weld: Weld, step: Step, units: UnitPreference): string | null {
  const joint = structure.joints.find((j) => j.id === step.joint);
  const face = joint?.faces.find((f) => f.line === step.line);
  if (!joint || !face || step.id.do !== "bead") return null;
  const run = seamRun(structure, weld, joint, face, step.up);
  const lengths = lengthsOf(weld, step, face.lengthMm);
  const parts = [
    ...(run ? [`from ${run.from} to ${run.to}`] : []),
    ...(lengths > 1
      ? [
          `in ${lengths} lengths of about ${formatSmall(face.lengthMm / lengths, units, { decimals: 0 })}, the arc moved on after each`,
        ]
      : []),
  ];
  return parts.length > 0 ? parts.join(", ") : null;
}

/** What a tack or bead is laid with: its length, the settings, and how hot it is against them where it goes by joint and position. */
export function seamFacts(structure: Structure, weld: Weld, step: Step, units: UnitPreference): string | null {
  const joint = structure.joints.find((j) => j.id === step.joint);
  const face = joint?.faces.find((f) => f.line === step.line);
  if (!joint || !face) return null;
  const isTack = step.id.do === "tack";
  const long = isTack ? weld.tackLength.mm : face.lengthMm;
  const position = seamPosition(structure, joint, face, step.up);
  const arc = settingsBy(weld, processOf(weld, { do: isTack ? "tack" : "bead", joint: joint.id, line: face.line }));
  const share = isTack || arc.from !== "starting" ? 1 : seamShare(seamKind(joint, face), position);
  const leg = !isTack && face.legMm !== null ? `, leg ${plainLength(face.legMm, units)}` : "";
  const run = runWords(structure, weld, step, units);
  const heat = Math.abs(share - 1) < 0.02 ? "" : `, heat ${fixed(share, 1)} of that here`;
  return `${formatSmall(long, units, { decimals: 0 })} long${leg}, ${position}${run ? `, ${run}` : ""}: ${PROCESSES[arc.process].label}, ${fixed(arc.volts, 1)} V, ${fixed(arc.amps, 0)} A, ${physical("speed", arc.travelMmPerS, units)}${heat}.`;
}
