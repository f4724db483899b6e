import { add3, dot3, scale3, sub3, type Vec3 } from "../numeric";
import type { UnitPreference } from "../units";
import type { DrawnFrame, DrawnPart } from "./drawnSchema";
import { statedPoint } from "./drawnStart";
import type { PartKind } from "./frameWords";
import type { EndName } from "./meeting";
import type { Axes } from "./memberAxes";
import { type Structure, type StructureJoint, type StructureMember, tubeBeginsMm } from "./structure";

/** What was pointed at: an end of a member, its middle, or the inside of a joint. */
export type PartTarget = { member: string; end: EndName | "middle" } | { joint: string };

/** Thickness and free sizes to start a part from, mm. */
const THICK: Record<PartKind, number> = { plate: 5, tab: 5, gusset: 4, foot: 6, cap: 3, bracket: 4 };
const LONG: Record<PartKind, number> = { plate: 100, tab: 40, gusset: 80, foot: 60, cap: 0, bracket: 60 };
/** A tab stands out of its face by so much, mm. */
const TAB_OUT_MM = 50;
/** A foot stands out beside the leg that it carries by so much on each side, mm. */
const FOOT_OUT_MM = 10;
/** A member stands when it rises by more than this, sine. */
const STANDS = 0.7;

/** Where a part is, how large, and along what: all but its name and holes. */
type Fitted = Pick<DrawnPart, "at" | "size" | "like" | "on" | "triangular" | "keeps">;

/** How far a section lies to either side of its axis, along its own width and height. */
function across(m: StructureMember): { middle: readonly [number, number]; size: readonly [number, number] } {
  const [ys, zs] = [m.outline.map((p) => p.x), m.outline.map((p) => p.y)];
  const of = (v: number[]): [number, number] => [Math.min(...v), Math.max(...v)];
  const [y, z] = [of(ys), of(zs)];
  return { middle: [(y[0] + y[1]) / 2, (z[0] + z[1]) / 2], size: [y[1] - y[0], z[1] - z[0]] };
}

/** Where a member really ends, along its axis from its first end, mm. */
const endAlong = (m: StructureMember, end: EndName): number =>
  end === "from" ? tubeBeginsMm(m) : Math.max(...m.finishes);

/** Which of a member's own axes points up or down most: 1 its width, 2 its height. */
const upright = (axes: Axes): 1 | 2 => (Math.abs(axes[1][2]) > Math.abs(axes[2][2]) ? 1 : 2);

function onMember(kind: PartKind, m: StructureMember, end: EndName | "middle", units: UnitPreference): Fitted {
  const { middle, size } = across(m);
  const t = THICK[kind];
  const outward = end === "from" ? -1 : 1;
  const s = end === "middle" ? (endAlong(m, "from") + endAlong(m, "to")) / 2 : endAlong(m, end);
  /** A place by the member's own axes. */
  const at = (along: number, y: number, z: number): Vec3 =>
    add3(m.from, add3(scale3(m.axes[0], along), add3(scale3(m.axes[1], y), scale3(m.axes[2], z))));
  const made = (p: Vec3, own: Vec3): Fitted => ({
    at: statedPoint(p, units),
    size: statedPoint(own, units),
    like: m.id,
    on: m.id,
    triangular: false,
  });
  const stands = Math.abs(m.axes[0][2]) > STANDS;
  if (kind === "cap" || (kind === "foot" && stands)) {
    const out = kind === "foot" ? 2 * FOOT_OUT_MM : 0;
    return made(at(s + (outward * t) / 2, middle[0], middle[1]), [t, size[0] + out, size[1] + out]);
  }
  // On a face: feet under it, the rest on top of what lies, on the width of what stands.
  const k = stands ? 1 : upright(m.axes);
  const faceUp = stands ? 1 : Math.sign(m.axes[k][2]) || 1;
  const side = kind === "foot" ? -faceUp : faceUp;
  const long = LONG[kind];
  const inset = end === "middle" ? 0 : (-outward * long) / 2;
  const out = kind === "tab" ? TAB_OUT_MM : t;
  const off = side * ((size[k - 1] as number) / 2 + out / 2);
  const wide = kind === "tab" ? t : size[k === 1 ? 1 : 0];
  const place: [number, number] = [middle[0], middle[1]];
  place[k - 1] = (place[k - 1] as number) + off;
  const own: Vec3 = k === 1 ? [long, out, wide] : [long, wide, out];
  return made(at(s + inset, place[0], place[1]), own);
}

/** A gusset in the inside of a corner, along both of its members. */
function inCorner(s: Structure, j: StructureJoint, kind: PartKind, units: UnitPreference): Fitted | null {
  const [a, b] = [j.a, j.b].map((id) => s.members.find((m) => m.id === id));
  if (!a || !b) return null;
  // Away from the joint along each: a through member has no end there, so toward its longer part.
  const away = (m: StructureMember, end: EndName | null, at: Vec3): Vec3 => {
    const middle = scale3(add3(m.ends.from.at, m.ends.to.at), 0.5);
    const sign = end === null ? Math.sign(dot3(sub3(middle, at), m.axes[0])) || 1 : end === "from" ? 1 : -1;
    return scale3(m.axes[0], sign);
  };
  const [ua, ub] = [away(a, j.endA, j.at), away(b, j.endB, j.atB)];
  /** Which of the through member's own axes the branch runs along. */
  const k = Math.abs(dot3(ub, a.axes[1])) > Math.abs(dot3(ub, a.axes[2])) ? 1 : 2;
  const other = k === 1 ? 2 : 1;
  const halfA = (across(a).size[k - 1] as number) / 2;
  const widthOfB = Math.max(
    ...b.outline.map((p) => Math.abs(dot3(ua, scale3(b.axes[1], p.x)) + dot3(ua, scale3(b.axes[2], p.y)))),
  );
  const [signA, signB] = [Math.sign(dot3(ua, a.axes[0])), Math.sign(dot3(ub, a.axes[k]))];
  const leg = LONG[kind];
  const inner = add3(j.at, add3(scale3(ua, widthOfB), scale3(a.axes[k], signB * halfA)));
  const middle = add3(inner, add3(scale3(ua, leg / 2), scale3(a.axes[k], (signB * leg) / 2)));
  const own: [number, number, number] = [leg, leg, leg];
  own[other] = THICK[kind];
  const keeps: [1 | -1, 1 | -1, 1 | -1] = [-1, -1, -1];
  keeps[0] = signA > 0 ? -1 : 1;
  keeps[k] = signB > 0 ? -1 : 1;
  return {
    at: statedPoint(middle, units),
    size: statedPoint(own, units),
    like: a.id,
    on: a.id,
    triangular: kind === "gusset",
    keeps,
  };
}

/**
 * A part that fits what was pointed at: a cap as large as its tube, a foot under a leg or a rail, a plate as wide as the face
 * that it lies on, a gusset in the inside of a corner. It lies along the member, whichever way that runs.
 * @returns null where that is not there.
 */
export function fitPart(kind: PartKind, s: Structure, target: PartTarget, units: UnitPreference): Fitted | null {
  if ("joint" in target) {
    const joint = s.joints.find((j) => j.id === target.joint);
    return joint ? inCorner(s, joint, kind, units) : null;
  }
  const member = s.members.find((m) => m.id === target.member);
  return member ? onMember(kind, member, target.end, units) : null;
}

/** The first free name of a part. */
const partName = (parts: readonly DrawnPart[]): string | null =>
  Array.from({ length: 99 }, (_, i) => `P${i + 1}`).find((id) => !parts.some((p) => p.id === id)) ?? null;

/** @returns the frame with a part on what was pointed at; null where it is full or that is not there. */
export function addPart(
  frame: DrawnFrame,
  s: Structure,
  kind: PartKind,
  target: PartTarget,
  units: UnitPreference,
): DrawnFrame | null {
  const id = partName(frame.parts);
  const fitted = fitPart(kind, s, target, units);
  if (!id || !fitted) return null;
  const section = "member" in target ? frame.members.find((m) => m.id === target.member)?.section : undefined;
  const material = (frame.sections.find((x) => x.id === section) ?? frame.sections[0])?.material ?? "mild steel";
  return { ...frame, parts: [...frame.parts, { id, kind, material, holes: [], ...fitted }] };
}

/** Whether an end lands on another member, or is mitred to it. */
const lands = (s: Structure, id: string, end: EndName): boolean =>
  s.joints.some((j) => (j.b === id && j.endB === end) || (j.kind === "mitre" && j.a === id && j.endA === end));

/** Ends of tubes that stand open and land on nothing: what stands out beside the face that it lands on takes no cap. */
export const openEnds = (s: Structure): { member: string; end: EndName }[] =>
  s.members.flatMap((m) =>
    (["from", "to"] as const).flatMap((end) =>
      m.ends[end].hollow === "open" && !lands(s, m.id, end) ? [{ member: m.id, end }] : [],
    ),
  );

/** @returns the frame with one cap on each open end. */
export const capOpenEnds = (frame: DrawnFrame, s: Structure, units: UnitPreference): DrawnFrame =>
  openEnds(s).reduce((f, end) => addPart(f, s, "cap", end, units) ?? f, frame);

/** The same part on something else that is pointed at: as large, with its holes, along that. */
export function copyPart(
  frame: DrawnFrame,
  s: Structure,
  id: string,
  target: PartTarget,
  units: UnitPreference,
): DrawnFrame | null {
  const part = frame.parts.find((p) => p.id === id);
  const name = partName(frame.parts);
  const fitted = part && fitPart(part.kind, s, target, units);
  return part && name && fitted ? { ...frame, parts: [...frame.parts, { ...part, ...fitted, id: name }] } : null;
}

/** Parts that sit on members that were copied, on their copies. @param put where a place goes. @param axes of members before and after. */
export function carriedParts(
  frame: DrawnFrame,
  names: ReadonlyMap<string, string>,
  put: (p: DrawnPart["at"]) => DrawnPart["at"],
  turned: (v: Vec3) => Vec3,
  axesOf: (id: string) => Axes | undefined,
): DrawnPart[] {
  const out: DrawnPart[] = [];
  for (const p of frame.parts) {
    const on = p.on && names.get(p.on);
    const id = partName([...frame.parts, ...out]);
    if (!on || !id) continue;
    const like = p.like && (names.get(p.like) ?? p.like);
    const [was, is] = [p.like ? axesOf(p.like) : undefined, like ? axesOf(like) : undefined];
    // A corner that is kept stays the same corner: by the axes that the copy has.
    const keeps = (p.keeps ?? [-1, -1, -1]).map((k, i) => {
      const axis = turned((was?.[i] ?? unitAxis(i)) as Vec3);
      return dot3(axis, (is?.[i] ?? unitAxis(i)) as Vec3) < 0 ? -k : k;
    }) as [1 | -1, 1 | -1, 1 | -1];
    out.push({ ...p, id, on, at: put(p.at), ...(like ? { like } : {}), ...(p.triangular ? { keeps } : {}) });
  }
  return out;
}

const unitAxis = (i: number): Vec3 => [i === 0 ? 1 : 0, i === 1 ? 1 : 0, i === 2 ? 1 : 0];
