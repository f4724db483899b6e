import { add3, cross3, dot3, scale3, squareTo, unit3, type Vec3 } from "../numeric";
import type { Cutter } from "./cutter";
import { type EndName, intoMember, type Placed, reach } from "./meeting";
import { mitreReaches } from "./mitre";
import type { MemberEnd, StructureJoint } from "./structure";
import { TOLERANCES } from "./tolerances";

/** Where a mitre is cut. @returns the plane seen from `m`, its normal out of `m`. Source: closed form, see cut/ends. */
function mitrePlane(m: Placed, n: Placed, j: StructureJoint, gapMm: number): Cutter {
  const endM = (j.a === m.id ? j.endA : j.endB) as EndName;
  const endN = (j.a === m.id ? j.endB : j.endA) as EndName;
  const [a, b] = [intoMember(m, endM), intoMember(n, endN)];
  const outward = (normal: Vec3): Vec3 => (dot3(normal, a) > 0 ? scale3(normal, -1) : normal);
  if (j.angleDeg > TOLERANCES.straightDeg)
    return { kind: "plane", normal: scale3(a, -1), point: add3(j.at, scale3(a, gapMm / 2)) };
  const w = unit3(cross3(a, b));
  const [ha, hb] = mitreReaches(m, n, a, b);
  const face = unit3(add3(scale3(a, hb), scale3(b, ha)));
  const normal = outward(cross3(face, w));
  return { kind: "plane", normal, point: add3(j.at, scale3(normal, -gapMm / 2)) };
}

/** The face that a branch ends on. @returns the cutter of the branch's end. */
export function landing(through: Placed, branch: Placed, j: StructureJoint, gapMm: number): Cutter {
  const into = intoMember(branch, j.endB as EndName);
  if (through.round)
    return { kind: "cylinder", axis: through.axes[0], point: j.at, radiusMm: reach(through, through.axes[1]) + gapMm };
  const normal = unit3(squareTo(into, through.axes[0]));
  return {
    kind: "plane",
    normal: scale3(normal, -1),
    point: add3(j.at, scale3(normal, reach(through, normal) + gapMm)),
  };
}

/** How far a member that runs through a corner goes: to the outer face of the branch. */
function runsPast(through: Placed, branch: Placed, j: StructureJoint): Cutter {
  const out = scale3(intoMember(through, j.endA as EndName), -1);
  const normal = unit3(squareTo(out, branch.axes[0]));
  return { kind: "plane", normal, point: add3(j.atB, scale3(normal, reach(branch, normal))) };
}

export interface Cuts {
  joints: string[];
  cutters: Cutter[];
  past: Cutter[];
  hollow: MemberEnd["hollow"];
}

/** Whether a branch's end lies wholly on the face that it lands on. */
function covered(through: Placed, branch: Placed, j: StructureJoint): boolean {
  const into = intoMember(branch, j.endB as EndName);
  const normal = unit3(squareTo(into, through.axes[0]));
  const e2 = cross3(through.axes[0], normal);
  const off = Math.abs(dot3(e2, j.atB) - dot3(e2, j.at));
  return reach(branch, e2) + off <= 1.15 * reach(through, e2);
}

/** What every joint does to the ends of its members. */
export function cutsOf(
  placed: ReadonlyMap<string, Placed>,
  joints: readonly StructureJoint[],
  gapMm: number,
  hollow: ReadonlySet<string>,
) {
  const cuts = new Map<string, Cuts>();
  const at = (id: string, end: EndName): Cuts => {
    const key = `${id} ${end}`;
    const known = cuts.get(key) ?? { joints: [], cutters: [], past: [], hollow: "open" };
    cuts.set(key, known);
    return known;
  };
  for (const j of joints) {
    const [a, b] = [placed.get(j.a) as Placed, placed.get(j.b) as Placed];
    if (j.kind === "lap") continue;
    const straight = j.kind === "butt" && j.angleDeg > TOLERANCES.straightDeg;
    if ((j.kind === "mitre" || straight) && j.endA && j.endB) {
      const [first, second] = [at(a.id, j.endA), at(b.id, j.endB)];
      first.cutters.push(mitrePlane(a, b, j, gapMm));
      second.cutters.push(mitrePlane(b, a, j, gapMm));
      const meet = hollow.has(a.id) && hollow.has(b.id);
      first.hollow = meet ? { into: b.id } : "closed";
      second.hollow = meet ? { into: a.id } : "closed";
      first.joints.push(j.id);
      second.joints.push(j.id);
      continue;
    }
    if (!j.endB) continue;
    const branch = at(b.id, j.endB);
    branch.cutters.push(landing(a, b, j, gapMm));
    branch.joints.push(j.id);
    if (branch.hollow === "open" && (a.round || covered(a, b, j))) branch.hollow = "closed";
    if (j.endA) {
      const through = at(a.id, j.endA);
      through.past.push(runsPast(a, b, j));
      through.joints.push(j.id);
    }
  }
  return cuts;
}

/** One plane twice is one cut: a leg under a mitred corner lands on two members in one level. */
export const distinct = (cutters: readonly Cutter[]): Cutter[] =>
  cutters.filter(
    (c, i) =>
      !cutters
        .slice(0, i)
        .some(
          (k) =>
            k.kind === "plane" &&
            c.kind === "plane" &&
            dot3(k.normal, c.normal) > 1 - 1e-7 &&
            Math.abs(dot3(k.normal, c.point) - dot3(k.normal, k.point)) < 0.05,
        ),
  );
