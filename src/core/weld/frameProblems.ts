import { type BeamMember, type MechanicalFrame, splitWhereBranchesLand } from "../mechanics";
import { dot3, Groups, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import type { Problem } from "../units";
import { JOINT_KINDS } from "./jointKinds";
import { direction } from "./joints/shared";

const error = (path: string, message: string): Problem => ({ path, message, severity: "error" });

/** Points this near to a line lie on it, mm. */
const ON_LINE_MM = 0.01;
/**
 * What keeps a frame from being simulated, each at its place (`members/M1`, `joints/A`).
 * @returns an empty list when the frame can be built; the first problems hide those that follow from them.
 */
export function frameProblems(given: MechanicalFrame): Problem[] {
  const frame = splitWhereBranchesLand(given);
  const found = [...memberProblems(frame)];
  if (found.length > 0) return found;
  found.push(...jointProblems(frame));
  if (found.length > 0) return found;
  found.push(...crossings(frame), ...apart(frame));
  return found;
}

function memberProblems(frame: MechanicalFrame): Problem[] {
  const found: Problem[] = [];
  if (frame.members.length === 0) found.push(error("members", "The frame has no member yet. Add one."));
  for (const [name, p] of Object.entries(frame.points))
    if (!p.every(Number.isFinite))
      found.push(error(`points/${name}`, `Point ${name} has no place. Give it x, y and z.`));
  const { eMPa, nu, yieldMPa, alphaPerK, heatJPerMm3K } = frame.material;
  if (![eMPa, yieldMPa, alphaPerK, heatJPerMm3K].every((v) => v > 0 && Number.isFinite(v)) || !(nu >= 0 && nu < 0.5))
    found.push(error("material", "A constant of the material is missing or not positive."));
  const seen = new Set<string>();
  for (const m of frame.members) {
    const at = `members/${m.id}`;
    if (seen.has(m.id)) found.push(error(at, `Two members are called ${m.id}. Give one another name.`));
    seen.add(m.id);
    const missing = m.points.find((p) => !frame.points[p]);
    if (missing !== undefined) {
      found.push(error(at, `${m.id} names point ${missing}, which does not exist.`));
      continue;
    }
    if (m.points.length < 2) {
      found.push(error(at, `${m.id} has one end only. A member needs two points.`));
      continue;
    }
    const { areaMm2, iyMm4, izMm4, jMm4, wallMm, widthMm, heightMm } = m.section;
    if (![areaMm2, iyMm4, izMm4, jMm4, wallMm, widthMm, heightMm].every((v) => v > 0 && Number.isFinite(v)))
      found.push(error(at, `The section of ${m.id} has a size that is zero or missing.`));
    const places = m.points.map((p) => frame.points[p]);
    if (places.some((p) => !p.every(Number.isFinite))) continue;
    const short = places.findIndex((p, i) => i > 0 && norm3(sub3(p, places[i - 1])) < ON_LINE_MM);
    if (short > 0) {
      const [from, to] = [m.points[short - 1], m.points[short]];
      found.push(error(at, `${m.id} has no length between ${from} and ${to}: they are the same place.`));
      continue;
    }
    const axis = unit3(sub3(places.at(-1) as Vec3, places[0]));
    if (!axis.every(Number.isFinite)) {
      found.push(error(at, `${m.id} comes back to where it starts. A member is straight.`));
      continue;
    }
    let before = 0;
    m.points.forEach((name, i) => {
      const r = sub3(places[i], places[0]);
      const along = dot3(r, axis);
      if (norm3(sub3(r, scale3(axis, along))) > ON_LINE_MM)
        found.push(
          error(at, `${name} does not lie on ${m.id}. A member is straight: make a kink two members and a joint.`),
        );
      else if (i > 0 && along <= before) found.push(error(at, `The points of ${m.id} are not in order at ${name}.`));
      before = along;
    });
  }
  return found;
}

function jointProblems(frame: MechanicalFrame): Problem[] {
  const found: Problem[] = [];
  const seen = new Set<string>();
  const of = (id: string) => frame.members.find((m) => m.id === id);
  for (const j of frame.joints) {
    const at = `joints/${j.id}`;
    if (seen.has(j.id)) found.push(error(at, `Two joints are called ${j.id}. Give one another name.`));
    seen.add(j.id);
    const [a, b] = [of(j.a), of(j.b)];
    if (!a || !b) {
      found.push(error(at, `${j.id} joins ${a ? j.b : j.a}, which does not exist.`));
      continue;
    }
    if (a === b) {
      found.push(error(at, `${j.id} joins ${j.a} to itself.`));
      continue;
    }
    const pointB = j.pointB ?? j.point;
    const off = !a.points.includes(j.point) ? a : b.points.includes(pointB) ? null : b;
    if (off) {
      const point = off === a ? j.point : pointB;
      found.push(error(at, `${off.id} does not reach ${j.id}: it has no point ${point}.`));
      continue;
    }
    const kind = JOINT_KINDS[j.kind];
    const atEnd = (m: BeamMember, p: string) => p === m.points[0] || p === m.points.at(-1);
    if (!kind.runsPast && !atEnd(b, pointB))
      found.push(error(at, `${b.id} runs past ${j.id}. The branch of a ${j.kind} ends there; or make it a lap.`));
    else if (kind.endsBoth && !atEnd(a, j.point))
      found.push(error(at, `${a.id} runs past ${j.id}. Both members of a ${j.kind} end there; or make it a tee.`));
    else found.push(...kind.problems({ frame, spec: j, a, b, point: j.point, pointB }));
  }
  return found;
}

/** Nearest distance of two straight members, and whether it falls inside both. */
function nearest(p: Vec3, u: Vec3, lengthU: number, q: Vec3, v: Vec3, lengthV: number) {
  const w = sub3(p, q);
  const b = dot3(u, v);
  const d = 1 - b * b;
  const s = Math.min(lengthU, Math.max(0, d < 1e-9 ? 0 : (b * dot3(v, w) - dot3(u, w)) / d));
  const t = Math.min(lengthV, Math.max(0, b * s + dot3(v, w)));
  const s2 = Math.min(lengthU, Math.max(0, b * t - dot3(u, w)));
  const gap = sub3(
    [p[0] + u[0] * s2, p[1] + u[1] * s2, p[2] + u[2] * s2],
    [q[0] + v[0] * t, q[1] + v[1] * t, q[2] + v[2] * t],
  );
  return { mm: norm3(gap), at: [q[0] + v[0] * t, q[1] + v[1] * t, q[2] + v[2] * t] as Vec3 };
}

/** Members that run through each other without a joint. */
function crossings(frame: MechanicalFrame): Problem[] {
  const found: Problem[] = [];
  const joined = new Set(frame.joints.flatMap((j) => [`${j.a}|${j.b}`, `${j.b}|${j.a}`]));
  /** Where a member is joined to others, on either's line. */
  const places = (m: BeamMember): Set<string> =>
    new Set([
      ...m.points,
      ...frame.joints.flatMap((j) => (j.a === m.id || j.b === m.id ? [j.point, j.pointB ?? j.point] : [])),
    ]);
  const line = (m: BeamMember) => {
    const p = frame.points[m.points[0]];
    const d = direction(frame, m);
    return { p, d, length: norm3(sub3(frame.points[m.points.at(-1) as string], p)) };
  };
  frame.members.forEach((m, i) => {
    const one = line(m);
    for (const other of frame.members.slice(i + 1)) {
      if (joined.has(`${m.id}|${other.id}`)) continue;
      const two = line(other);
      const near = nearest(one.p, one.d, one.length, two.p, two.d, two.length);
      const room =
        (Math.min(m.section.widthMm, m.section.heightMm) + Math.min(other.section.widthMm, other.section.heightMm)) / 2;
      if (near.mm >= room - 1) continue;
      // Members may both end on a third one at one place; they touch there and need no joint of their own.
      const own = places(m);
      const reachMm =
        room + Math.max(m.section.widthMm, m.section.heightMm, other.section.widthMm, other.section.heightMm);
      const isShared = [...places(other)].some((p) => own.has(p) && norm3(sub3(frame.points[p], near.at)) < reachMm);
      if (!isShared)
        found.push(
          error(
            `members/${other.id}`,
            `${m.id} and ${other.id} cross at x ${near.at[0].toFixed(0)}, y ${near.at[1].toFixed(0)} without a joint. Join them or move one.`,
          ),
        );
    }
  });
  return found;
}

/** Members that no joint connects with the rest. */
function apart(frame: MechanicalFrame): Problem[] {
  const groups = new Groups(frame.members.map((m) => m.id));
  for (const j of frame.joints) groups.join(j.a, j.b);
  const first = frame.members[0];
  if (!first) return [];
  const loose = frame.members.filter((m) => groups.of(m.id) !== groups.of(first.id));
  return loose.length === 0
    ? []
    : [
        error(
          `members/${loose[0]?.id}`,
          `${loose.map((m) => m.id).join(", ")} ${loose.length === 1 ? "is" : "are"} not joined to the rest. Add a joint, or make it a job of its own.`,
        ),
      ];
}
