import { add3, dot3, entry, norm3, scale3, sub3, type Vec3 } from "../numeric";
import { besideCorners } from "./besideCorner";
import type { DrawnFrame, DrawnJoint } from "./drawnSchema";
import type { StructureJointKind } from "./frameWords";
import { facesOf } from "./jointFaces";
import { angleOf, contested, habit, type JointCandidate, Landed, legOnRail } from "./jointHabits";
import { type EndName, endOf, intoMember, type Meeting, meeting, type Placed, reach } from "./meeting";
import { mitredAt } from "./mitre";
import { stitched } from "./stitches";
import type { StructureJoint } from "./structure";

/** Members that meet in a way that no joint can make, and where. */
export interface Clash {
  kind: "cross" | "overlap";
  a: string;
  b: string;
  at: Vec3;
}

/** `A` for AB and DA, else both names. */
function jointName(a: string, b: string): string {
  if (/^[A-Z]{2}$/.test(a) && /^[A-Z]{2}$/.test(b)) {
    const shared = [...a].find((c) => b.includes(c));
    if (shared) return shared;
  }
  return `${b}/${a}`;
}

/** A name that no other joint has: pieces of seam along two members are counted from the second on. */
function newName({ through, branch, along }: JointCandidate, taken: ReadonlySet<string>): string {
  const plain = jointName(through.id, branch.id);
  if (!taken.has(plain)) return plain;
  const both = `${branch.id}/${through.id}`;
  if (!along) return both;
  return `${both}/${along.nth}`;
}

const nearestOn = (m: Placed, p: Vec3): Vec3 => {
  const s = dot3(sub3(p, m.from), m.axes[0]);
  return add3(m.from, scale3(m.axes[0], s));
};

function settle(
  m: Placed,
  n: Placed,
  met: Extract<Meeting, { kind: "tee" | "corner" }>,
  said: DrawnJoint | undefined,
  landed: Landed,
): JointCandidate | null {
  if (met.kind === "tee") {
    const [branch, through] = met.branch === "m" ? [m, n] : [n, m];
    return { kind: "tee", through, branch, endA: null, endB: met.end, at: met.at, atB: nearestOn(branch, met.at) };
  }
  const third = said?.kind ? "free" : contested(m, n, met.ends, landed);
  if (third === "none") return null;
  const usual = third === "free" ? habit(m, n, met.ends, landed) : { kind: "butt" as const, through: third.id };
  let kind: StructureJointKind = said?.kind && said.kind !== "none" ? said.kind : usual.kind;
  // Said to be a tee, the one that runs through ends where it is drawn, and not beyond the other.
  const isTee = said?.kind === "tee";
  if (kind === "lap") kind = "butt";
  const throughId = said?.through ?? usual.through ?? m.id;
  const [through, branch] = throughId === n.id ? [n, m] : [m, n];
  const [endA, endB] = through === m ? met.ends : [met.ends[1], met.ends[0]];
  return {
    kind,
    through,
    branch,
    endA: isTee ? null : endA,
    endB,
    at: nearestOn(through, met.at),
    atB: nearestOn(branch, met.at),
  };
}

/** Two that lie on each other: where they cross, or at every piece of seam along them. */
function laps(
  m: Placed,
  n: Placed,
  met: Extract<Meeting, { kind: "lap" }>,
  said: DrawnJoint | undefined,
): JointCandidate[] {
  const isFirst = said?.through !== n.id;
  const [through, branch] = isFirst ? [m, n] : [n, m];
  const { alongMm } = met;
  const own = said?.stitches && { count: said.stitches.count, lengthMm: said.stitches.length.mm };
  const places = alongMm === null ? [{ ...met, lengthMm: null }] : stitched(m, n, { ...met, alongMm }, own);
  return places.map(({ at, atN, lengthMm }, i) => ({
    kind: "lap",
    through,
    branch,
    endA: null,
    endB: null,
    at: isFirst ? at : atN,
    atB: isFirst ? atN : at,
    ...(lengthMm === null || alongMm === null
      ? {}
      : { along: { seamMm: lengthMm, overlapMm: alongMm, pieces: own?.count ?? places.length, nth: i + 1 } }),
  }));
}

/** A box round a member, so that most pairs need no closer look. */
function boxOf(m: Placed): Float64Array {
  const box = new Float64Array(6);
  const axes: Vec3[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  axes.forEach((d, i) => {
    // Wide enough for a mitre's outer point and for the slack of a meeting.
    const r = 2 * reach(m, d) + Math.max(reach(m, m.axes[1]), reach(m, m.axes[2])) + 4;
    box[i] = Math.min(entry(m.from, i), entry(m.to, i)) - r;
    box[i + 3] = Math.max(entry(m.from, i), entry(m.to, i)) + r;
  });
  return box;
}

const apart = (a: Float64Array, b: Float64Array): boolean => {
  for (let i = 0; i < 3; i++) if (entry(a, i) > entry(b, i + 3) || entry(b, i) > entry(a, i + 3)) return true;
  return false;
};

const pairKey = (a: string, b: string): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

/**
 * Finds every joint from geometry alone; what a person said of one is laid over it.
 * @param members placed members. @param said what a person changed.
 * @returns joints, and the members that run through or lie in each other.
 */
export function findJoints(
  members: readonly Placed[],
  said: DrawnFrame["joints"],
): { joints: StructureJoint[]; clashes: Clash[] } {
  const words = new Map(said.map((j) => [pairKey(...j.between), j]));
  const boxes = members.map(boxOf);
  const clashes: Clash[] = [];
  const meetings: Met[] = [];
  members.forEach((m, i) => {
    for (let k = i + 1; k < members.length; k++) {
      if (apart(boxes[i] as Float64Array, boxes[k] as Float64Array)) continue;
      const n = members[k] as Placed;
      const own = words.get(pairKey(m.id, n.id));
      if (own?.kind === "none") continue;
      const met = meeting(m, n);
      if (!met) continue;
      if (met.kind === "cross" || met.kind === "overlap")
        clashes.push({ kind: met.kind, a: m.id, b: n.id, at: met.at });
      else meetings.push({ m, n, met, said: own });
    }
  });
  const landed = new Landed();
  const found: { f: JointCandidate; said: DrawnJoint | undefined }[] = [];
  for (const part of inTurn(withoutCornerLaps(withoutCutOff(meetings)))) {
    const left = new Set(part);
    const take = (one: Met): void => {
      if (!left.delete(one)) return;
      for (const before of onTheirs(one, left, landed)) take(before);
      const { m, n, met, said: own } = one;
      const settled = met.kind === "lap" ? null : settle(m, n, met, own, landed);
      for (const f of met.kind === "lap" ? laps(m, n, met, own) : settled ? [settled] : []) {
        landed.take(f);
        found.push({ f, said: own });
      }
    };
    for (const one of part) take(one);
  }
  const isTold = (a: string, b: string): boolean => words.get(pairKey(a, b))?.kind === "none";
  for (const f of besideCorners(
    members,
    found.map((x) => x.f),
    landed,
    isTold,
  ))
    found.push({ f, said: words.get(pairKey(f.through.id, f.branch.id)) });
  const order = new Map(members.map((m, i) => [m.id, i]));
  const rank = (f: JointCandidate): [number, number] => {
    const [a, b] = [order.get(f.through.id) as number, order.get(f.branch.id) as number];
    return a < b ? [a, b] : [b, a];
  };
  found.sort(({ f }, { f: g }) => rank(f)[0] - rank(g)[0] || rank(f)[1] - rank(g)[1]);
  const names = new Set<string>();
  const joints = found.map(({ f, said: own }): StructureJoint => {
    const into = f.endA ? intoMember(f.through, f.endA) : f.through.axes[0];
    const other = f.endB ? intoMember(f.branch, f.endB) : f.branch.axes[0];
    const id = newName(f, names);
    names.add(id);
    const corner = f.kind === "mitre" ? mitredAt(f.through, f.branch, into, other, f.at, f.atB) : null;
    return {
      id,
      kind: f.kind,
      a: f.through.id,
      b: f.branch.id,
      at: f.at,
      atB: f.atB,
      endA: f.endA,
      endB: f.endB,
      angleDeg: angleOf(into, other),
      faces: facesOf(f, own),
      ...(corner ? { corner } : {}),
      ...(f.along ? { along: f.along } : {}),
      said: own !== undefined && (own.kind !== null || own.through !== null),
    };
  });
  return { joints, clashes };
}

interface Met {
  m: Placed;
  n: Placed;
  met: Exclude<Meeting, { kind: "cross" | "overlap" }>;
  said: DrawnJoint | undefined;
}

/** Between two members at their corner, in whole degrees: as good as alike counts as alike. */
const openDeg = ({ m, n, met }: Met): number =>
  met.kind === "corner" ? Math.round(angleOf(intoMember(m, met.ends[0]), intoMember(n, met.ends[1]))) : 0;

/** How far apart the ends of a corner were drawn, in whole millimetres: those that were drawn to one place belong together. */
const apartMm = ({ m, n, met }: Met): number =>
  met.kind === "corner" ? Math.round(norm3(sub3(endOf(m, met.ends[0]), endOf(n, met.ends[1])))) : 0;

/**
 * Meetings in the order in which they are settled: what lands on a face, then legs and rails, then corners, the widest first: what lies
 * between two others is fitted into theirs, whichever was drawn first; of alike ones those that were drawn nearest to each other.
 */
function inTurn(meetings: readonly Met[]): [Met[], Met[], Met[]] {
  const first = meetings.filter((x) => x.met.kind !== "corner");
  const corners = meetings
    .filter((x) => x.met.kind === "corner")
    .map((x) => ({ x, open: openDeg(x), apart: apartMm(x), name: pairKey(x.m.id, x.n.id) }))
    .sort((p, q) => q.open - p.open || p.apart - q.apart || (p.name < q.name ? -1 : 1))
    .map(({ x }) => x);
  return [
    first,
    corners.filter((x) => legOnRail(x.m, x.n) || x.said?.kind),
    corners.filter((x) => !legOnRail(x.m, x.n) && !x.said?.kind),
  ];
}

/**
 * Corners that must be settled before another one: where an end of it landed on a third member already, whether its other end lands there, too.
 * Two webs at the end of a chord are fitted to the chord, and not the chord to them.
 */
function onTheirs({ m, n, met }: Met, left: ReadonlySet<Met>, landed: Landed): Met[] {
  if (met.kind !== "corner") return [];
  const [endM, endN] = met.ends;
  const between = (through: string, branch: Placed, end: EndName): Met[] =>
    [...left].filter(({ m: p, n: q, met: other }) => {
      if (other.kind !== "corner") return false;
      const [endP, endQ] = other.ends;
      return (
        (p.id === through && q.id === branch.id && endQ === end) ||
        (q.id === through && p.id === branch.id && endP === end)
      );
    });
  return [
    ...landed.at(m.id, endM).flatMap((f) => between(f.on, n, endN)),
    ...landed.at(n.id, endN).flatMap((f) => between(f.on, m, endM)),
  ];
}

/** Where a member ends on another one's face, it has nothing that could lie on a third: its line goes on to the middle, it does not. */
function withoutCutOff(meetings: readonly Met[]): Met[] {
  const cut = new Map<string, { at: Vec3; on: Placed }[]>();
  for (const { m, n, met } of meetings) {
    if (met.kind !== "tee") continue;
    const [branch, on] = met.branch === "m" ? [m, n] : [n, m];
    cut.set(branch.id, [...(cut.get(branch.id) ?? []), { at: met.at, on }]);
  }
  const isCutOff = (b: Placed, p: Vec3): boolean =>
    (cut.get(b.id) ?? []).some(({ at, on }) => Math.abs(dot3(sub3(p, at), b.axes[0])) < reach(on, b.axes[0]));
  return meetings.filter(
    ({ m, n, met }) => met.kind !== "lap" || met.alongMm !== null || !(isCutOff(m, met.at) || isCutOff(n, met.atN)),
  );
}

/** Frames that lie on each other touch along their sides; that their corners cross there too needs no bead of its own. */
function withoutCornerLaps(meetings: readonly Met[]): Met[] {
  const pairs = (kind: (x: Met) => boolean): Map<string, Set<string>> => {
    const out = new Map<string, Set<string>>();
    for (const x of meetings.filter(kind))
      for (const [a, b] of [
        [x.m.id, x.n.id],
        [x.n.id, x.m.id],
      ] as const)
        out.set(a, (out.get(a) ?? new Set()).add(b));
    return out;
  };
  const along = pairs((x) => x.met.kind === "lap" && x.met.alongMm !== null);
  const corner = pairs((x) => x.met.kind === "corner");
  const linked = (a: string, b: string): boolean =>
    [...(along.get(a) ?? [])].some((k) => corner.get(k)?.has(b) ?? false);
  return meetings.filter(
    (x) => !(x.met.kind === "lap" && x.met.alongMm === null && (linked(x.m.id, x.n.id) || linked(x.n.id, x.m.id))),
  );
}
