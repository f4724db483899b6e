import { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import type { FreeFrame, FreeJoint } from "./freeSchema";
import type { FaceLine, StructureJointKind } from "./freeWords";
import { type EndName, endOf, intoMember, type Meeting, meeting, type Placed, reach } from "./meeting";
import { overlapMm, partingDirections } from "./overlap";
import { directionWord } from "./placing";
import type { StructureFace, StructureJoint } from "./structure";

/** Members that meet in a way that no joint can make, and where. */
export interface Clash {
  kind: "cross" | "overlap";
  a: string;
  b: string;
  at: Vec3;
}

const UP: Vec3 = [0, 0, 1];
/** Corners sharper than this are no mitres by habit: the face would be many times the tube. */
const SHARP_DEG = 30;
/** Bodies less deep than this in each other only touch, mm. */
const TOUCHING_MM = 0.5;
export const STRAIGHT_DEG = 179.5;

const angleOf = (a: Vec3, b: Vec3): number => (Math.atan2(norm3(cross3(a, b)), dot3(a, b)) * 180) / Math.PI;
const upright = (m: Placed): boolean => Math.abs(m.axes[0][2]) > 0.9;
const lying = (m: Placed): boolean => Math.abs(m.axes[0][2]) < 0.35;

/** `A` for AB and DA, else both names. */
function jointName(a: string, b: string): string {
  if (/^[A-Z]{2}$/.test(a) && /^[A-Z]{2}$/.test(b)) {
    const shared = [...a].find((c) => b.includes(c));
    if (shared) return shared;
  }
  return `${b}/${a}`;
}

/** What a corner of two ends is made as by habit, and which of the two runs through. */
function habit(m: Placed, n: Placed, ends: [EndName, EndName], landed: Landed): Usual {
  const [a, b] = [intoMember(m, ends[0]), intoMember(n, ends[1])];
  const angle = angleOf(a, b);
  const mitre = { kind: "mitre" as const, through: null };
  const butt = (through: Placed) => ({ kind: "butt" as const, through: through.id });
  if (angle > STRAIGHT_DEG) return butt(m);
  for (const [leg, rail] of [
    [m, n],
    [n, m],
  ] as const)
    if (upright(leg) && lying(rail)) {
      // A leg that ends at the rail's face stands under it; one that goes on beside it runs through.
      const end = leg === m ? ends[0] : ends[1];
      const below = dot3(squareTo(sub3(endOf(leg, end), rail.from), rail.axes[0]), intoMember(leg, end));
      return below > 0.6 * reach(rail, UP) ? butt(rail) : butt(leg);
    }
  const w = angle < 0.5 ? UP : unit3(cross3(a, b));
  const [ha, hb] = [reach(m, w), reach(n, w)];
  const offset = Math.abs(dot3(sub3(n.from, m.from), w));
  const larger = reach(m, m.axes[1]) + reach(m, m.axes[2]) >= reach(n, n.axes[1]) + reach(n, n.axes[2]) - 0.5 ? m : n;
  // Two that are mitred already stay so; a third lands on them.
  const [takenM, takenN] = [landed.mitred(m.id, ends[0]), landed.mitred(n.id, ends[1])];
  if (takenM || takenN) return butt(takenM ? m : n);
  if (m.round !== n.round) return butt(m.round ? n : m);
  if (angle < SHARP_DEG || Math.abs(ha - hb) > 0.5 || offset > 0.5) return butt(larger);
  return mitre;
}

/** Whether a leg meets a rail, which is settled before the rails' own corner is. */
const legOnRail = (m: Placed, n: Placed): boolean => (upright(m) && lying(n)) || (upright(n) && lying(m));

/** What ends have been settled so far: which faces each lands on, and which are mitred. */
class Landed {
  private readonly faces = new Map<string, { on: string; normal: Vec3; point: Vec3; square: number }[]>();
  private readonly mitres = new Set<string>();

  mitred(id: string, end: EndName): boolean {
    return this.mitres.has(`${id} ${end}`);
  }

  take(f: Found): void {
    if (f.kind === "lap" || !f.endB) return;
    if (f.kind === "mitre") {
      this.mitres.add(`${f.through.id} ${f.endA}`);
      this.mitres.add(`${f.branch.id} ${f.endB}`);
      return;
    }
    const key = `${f.branch.id} ${f.endB}`;
    const into = intoMember(f.branch, f.endB);
    const across = squareTo(into, f.through.axes[0]);
    if (norm3(across) < 1e-6) return;
    const normal = unit3(across);
    const point = add3(f.at, scale3(normal, reach(f.through, normal)));
    this.faces.set(key, [
      ...(this.faces.get(key) ?? []),
      { on: f.through.id, normal, point, square: dot3(into, normal) },
    ]);
  }

  at(id: string, end: EndName) {
    return this.faces.get(`${id} ${end}`) ?? [];
  }
}

/** Corners of a member that ends on the faces it lands on so far. */
function trimmed(m: Placed, end: EndName, landed: Landed): Vec3[] {
  const [x, y, z] = m.axes;
  const out = end === "to" ? x : scale3(x, -1);
  const far = end === "to" ? m.from : m.to;
  return m.outline.flatMap((p): Vec3[] => {
    const off = add3(scale3(y, p.x), scale3(z, p.y));
    const origin = add3(far, off);
    let s = m.lengthMm;
    for (const f of landed.at(m.id, end)) s = Math.min(s, dot3(sub3(f.point, origin), f.normal) / dot3(out, f.normal));
    return [origin, add3(origin, scale3(out, s))];
  });
}

/**
 * Two ends that both land on a third member have no corner of their own, unless one would then lie in the other: the one
 * that lands less square then lands on the other too.
 */
function contested(m: Placed, n: Placed, ends: [EndName, EndName], landed: Landed): "none" | "free" | Placed {
  const [onM, onN] = [landed.at(m.id, ends[0]), landed.at(n.id, ends[1])];
  const shared = onM.filter((f) => onN.some((g) => g.on === f.on));
  if (shared.length === 0) return "free";
  const normals = [...onM, ...onN].map((f) => f.normal);
  const directions = [...partingDirections(m.axes, n.axes), ...normals];
  if (overlapMm(trimmed(m, ends[0], landed), trimmed(n, ends[1], landed), directions) < TOUCHING_MM) return "none";
  const square = (list: typeof onM): number => Math.max(...list.map((f) => f.square));
  return square(onM) >= square(onN) ? m : n;
}

interface Usual {
  kind: StructureJointKind;
  through: string | null;
}

interface Found {
  kind: StructureJointKind;
  through: Placed;
  branch: Placed;
  endA: EndName | null;
  endB: EndName | null;
  at: Vec3;
  atB: Vec3;
}

const nearestOn = (m: Placed, p: Vec3): Vec3 => {
  const s = dot3(sub3(p, m.from), m.axes[0]);
  return add3(m.from, scale3(m.axes[0], s));
};

function settle(
  m: Placed,
  n: Placed,
  met: Exclude<Meeting, { kind: "cross" | "overlap" }>,
  said: FreeJoint | undefined,
  landed: Landed,
): Found | null {
  if (met.kind === "lap") {
    const [through, branch] = said?.through === n.id ? [n, m] : [m, n];
    const [at, atB] = through === m ? [met.at, met.atN] : [met.atN, met.at];
    return { kind: "lap", through, branch, endA: null, endB: null, at, atB };
  }
  if (met.kind === "tee") {
    const [branch, through] = met.branch === "m" ? [m, n] : [n, m];
    return { kind: "tee", through, branch, endA: null, endB: met.end, at: met.at, atB: nearestOn(branch, met.at) };
  }
  const third = said?.kind ? "free" : contested(m, n, met.ends, landed);
  if (third === "none") return null;
  const usual = third === "free" ? habit(m, n, met.ends, landed) : { kind: "butt" as const, through: third.id };
  let kind: StructureJointKind = said?.kind && said.kind !== "none" ? said.kind : usual.kind;
  if (kind === "tee" || kind === "lap") kind = "butt";
  const throughId = said?.through ?? usual.through ?? m.id;
  const [through, branch] = throughId === n.id ? [n, m] : [m, n];
  const [endA, endB] = through === m ? met.ends : [met.ends[1], met.ends[0]];
  return { kind, through, branch, endA, endB, at: nearestOn(through, met.at), atB: nearestOn(branch, met.at) };
}

const SIDE_WORDS = {
  left: "left side",
  right: "right side",
  front: "front",
  back: "back",
  down: "underside",
  up: "top",
} as const;

/** The faces of a joint, which way each looks and how long its bead is. */
function facesOf(f: Found, said: FreeJoint | undefined): StructureFace[] {
  const face = (line: FaceLine, toward: Vec3, lengthMm: number, words?: string): StructureFace => {
    const own = said?.faces.find((x) => x.line === line);
    return {
      line,
      toward,
      words: words ?? SIDE_WORDS[directionWord(toward)],
      lengthMm,
      bead: own?.bead ?? true,
      legMm: own?.leg?.mm ?? null,
      care: own?.care ?? "none",
    };
  };
  const both = (lines: [FaceLine, FaceLine], d: Vec3, lengthMm: number, words?: [string, string]) => [
    face(lines[0], d, lengthMm, words?.[0]),
    face(lines[1], scale3(d, -1), lengthMm, words?.[1]),
  ];
  const { through: a, branch: b } = f;
  if (f.kind === "mitre" && f.endA && f.endB) {
    const [ia, ib] = [intoMember(a, f.endA), intoMember(b, f.endB)];
    const angle = (angleOf(ia, ib) * Math.PI) / 180;
    let e2 = unit3(cross3(ia, ib));
    if (dot3(e2, UP) < -1e-9) e2 = scale3(e2, -1);
    const e1 = unit3(add3(ia, ib));
    const [wa, wb] = [reach(a, unit3(cross3(e2, ia))), reach(b, unit3(cross3(e2, ib)))];
    const length = (2 * norm3(add3(scale3(ia, wb), scale3(ib, wa)))) / Math.sin(angle);
    return [
      ...both(["inside", "outside"], e1, 2 * Math.min(reach(a, e2), reach(b, e2)), ["inside", "outside"]),
      ...both(["top", "bottom"], e2, length),
    ];
  }
  const straight = f.endA && f.endB && angleOf(intoMember(a, f.endA), intoMember(b, f.endB)) > STRAIGHT_DEG;
  if (straight && f.endA && f.endB) {
    const e2 = a.axes[2];
    const normal = unit3(sub3(intoMember(b, f.endB), intoMember(a, f.endA)));
    const e1 = cross3(e2, normal);
    return [
      ...both(["inside", "outside"], e1, 2 * Math.min(reach(a, e2), reach(b, e2))),
      ...both(["top", "bottom"], e2, 2 * Math.min(reach(a, e1), reach(b, e1))),
    ];
  }
  const along = a.axes[0];
  const direction = f.kind === "lap" || !f.endB ? unit3(sub3(f.atB, f.at)) : intoMember(b, f.endB);
  const normal = unit3(squareTo(direction, along));
  const e2 = cross3(along, normal);
  if (f.kind === "lap") {
    const [wide, long] = [2 * reach(b, along), 2 * reach(a, e2)];
    return [...both(["plus", "minus"], along, long), ...both(["top", "bottom"], e2, wide)];
  }
  const sine = norm3(cross3(direction, along));
  const width = 2 * reach(b, unit3(squareTo(along, direction)));
  return [...both(["plus", "minus"], along, 2 * reach(b, e2)), ...both(["top", "bottom"], e2, width / sine)];
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
    box[i] = Math.min(m.from[i] as number, m.to[i] as number) - r;
    box[i + 3] = Math.max(m.from[i] as number, m.to[i] as number) + r;
  });
  return box;
}

const apart = (a: Float64Array, b: Float64Array): boolean => {
  for (let i = 0; i < 3; i++)
    if ((a[i] as number) > (b[i + 3] as number) || (b[i] as number) > (a[i + 3] as number)) return true;
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
  said: FreeFrame["joints"],
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
  const found: { f: Found; said: FreeJoint | undefined }[] = [];
  for (const part of inTurn(withoutCornerLaps(meetings)))
    for (const { m, n, met, said: own } of part) {
      const f = settle(m, n, met, own, landed);
      if (!f) continue;
      landed.take(f);
      found.push({ f, said: own });
    }
  const order = new Map(members.map((m, i) => [m.id, i]));
  const rank = (f: Found): [number, number] => {
    const [a, b] = [order.get(f.through.id) as number, order.get(f.branch.id) as number];
    return a < b ? [a, b] : [b, a];
  };
  found.sort(({ f }, { f: g }) => rank(f)[0] - rank(g)[0] || rank(f)[1] - rank(g)[1]);
  const names = new Set<string>();
  const joints = found.map(({ f, said: own }): StructureJoint => {
    const into = f.endA ? intoMember(f.through, f.endA) : f.through.axes[0];
    const other = f.endB ? intoMember(f.branch, f.endB) : f.branch.axes[0];
    const plain = jointName(f.through.id, f.branch.id);
    const id = names.has(plain) ? `${f.branch.id}/${f.through.id}` : plain;
    names.add(id);
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
      said: own !== undefined && (own.kind !== null || own.through !== null),
    };
  });
  return { joints, clashes };
}

interface Met {
  m: Placed;
  n: Placed;
  met: Exclude<Meeting, { kind: "cross" | "overlap" }>;
  said: FreeJoint | undefined;
}

/** Meetings in the order in which they are settled: what lands on a face, then legs and rails, then corners. */
function inTurn(meetings: readonly Met[]): [Met[], Met[], Met[]] {
  const first = meetings.filter((x) => x.met.kind !== "corner");
  const corners = meetings.filter((x) => x.met.kind === "corner");
  return [
    first,
    corners.filter((x) => legOnRail(x.m, x.n) || x.said?.kind),
    corners.filter((x) => !legOnRail(x.m, x.n) && !x.said?.kind),
  ];
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
  const along = pairs((x) => x.met.kind === "lap" && x.met.parallel);
  const corner = pairs((x) => x.met.kind === "corner");
  const linked = (a: string, b: string): boolean =>
    [...(along.get(a) ?? [])].some((k) => corner.get(k)?.has(b) ?? false);
  return meetings.filter(
    (x) => !(x.met.kind === "lap" && !x.met.parallel && (linked(x.m.id, x.n.id) || linked(x.n.id, x.m.id))),
  );
}
