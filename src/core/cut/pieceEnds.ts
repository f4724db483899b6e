import {
  type Cutter,
  type Direction,
  directionWord,
  type EndName,
  isRound,
  middleOf,
  type Structure,
  type StructureMember,
} from "../frame";
import { add3, cross3, degrees, dot3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import { plainLength, type UnitPreference } from "../units";

/** One cut at a piece's end, as it is set on the saw. */
interface SawCut {
  /** From a square cut. Positive: the outer edge is the longer one, as seen from the middle of the frame. */
  fromSquareDeg: number;
  /** Tilt of the blade or of the piece besides, for a compound cut; zero else. */
  tiltDeg: number;
  /** Which side of the piece lies up on the saw. */
  up: "top" | "side";
  /** Which edge is the longer one, as a way to look from the piece's axis. */
  long: Vec3 | null;
}

/** One end of a piece. */
export interface PieceEnd {
  end: EndName;
  cuts: SawCut[];
  /** The end is fitted to a round tube: see the template. */
  cope: { radiusMm: number; angleDeg: number; offsetMm: number } | null;
  words: string;
  /** The same angle the other way it is measured, with the corner that it makes; null for a square end. */
  beside: string | null;
}

/** What a saw's scale counts from: a square cut, or the line of the tube. A shop's choice. */
export const SAW_SCALES = ["square", "line"] as const;
export type SawScale = (typeof SAW_SCALES)[number];

/** An angle as a saw's scale shows it, degrees. @param fromSquareDeg from a square cut. */
export const onScale = (fromSquareDeg: number, scale: SawScale): number =>
  scale === "square" ? Math.abs(fromSquareDeg) : 90 - Math.abs(fromSquareDeg);
const SCALE_WORDS: Record<SawScale, string> = { square: "from square", line: "from the tube's line" };

const FLAT = 1e-4;
/** Most saws turn no farther than this from square (common practice, no source). */
const SAW_REACH_DEG = 60;
const deg = (v: number): string => String(+v.toFixed(2));

/** A direction as the way that an edge looks. */
const TOWARD: Record<Direction, string> = {
  up: "on top",
  down: "underneath",
  left: "toward the left",
  right: "toward the right",
  front: "toward the front",
  back: "toward the back",
};

/** Which way an edge looks: outward from the middle of the frame, inward, or by direction. */
function edgeWords(structure: Structure, m: StructureMember, way: Vec3): string {
  const from = sub3(middleOf(m), scale3(add3(structure.low, structure.high), 0.5));
  const out = dot3(from, way);
  const reach = norm3(from);
  if (Math.abs(out) > 0.5 * reach && Math.abs(out) > 20) return out > 0 ? "outside" : "inside";
  return TOWARD[directionWord(way)];
}

/** A plane at a piece's end as saw settings. Source: closed form, the plane's slopes along the piece's width and height. */
function sawCut(structure: Structure, m: StructureMember, end: EndName, normal: Vec3): SawCut {
  const sign = end === "to" ? 1 : -1;
  const [nx, ny, nz] = m.axes.map((d, i) => dot3(d, normal) * (i === 0 ? sign : 1)) as [number, number, number];
  // Along the piece the cut lies at s = -(ny y + nz z) / nx: the longer edge is where the normal does not look.
  if (Math.abs(ny) < FLAT && Math.abs(nz) < FLAT) return { fromSquareDeg: 0, tiltDeg: 0, up: "top", long: null };
  const side = Math.abs(ny) < FLAT;
  const [lean, axis] = side ? [nz, m.axes[2]] : [ny, m.axes[1]];
  const long = scale3(axis, -Math.sign(lean));
  const size = degrees(Math.atan(Math.abs(lean) / nx));
  const tilt = side || Math.abs(nz) < FLAT ? 0 : degrees(Math.asin(nz));
  const inward = edgeWords(structure, m, long) === "inside";
  return { fromSquareDeg: inward ? -size : size, tiltDeg: tilt, up: side ? "side" : "top", long };
}

const copeOf = (m: StructureMember, c: Extract<Cutter, { kind: "cylinder" }>): NonNullable<PieceEnd["cope"]> => {
  const x = m.axes[0];
  const cos = dot3(x, c.axis);
  const w = sub3(c.point, m.from);
  // Shortest way between the two lines.
  const square = cross3(x, c.axis);
  const size = norm3(square);
  return {
    radiusMm: c.radiusMm,
    angleDeg: degrees(Math.acos(Math.min(1, Math.abs(cos)))),
    offsetMm: size < 1e-9 ? 0 : Math.abs(dot3(w, square)) / size,
  };
};

/** An end's angle the other way it is measured, and the corner that it makes with what it meets. */
function besideWords(
  structure: Structure,
  m: StructureMember,
  end: EndName,
  c: SawCut,
  scale: SawScale,
): string | null {
  if (c.long === null) return null;
  const other = scale === "square" ? "line" : "square";
  const joint = structure.joints.find((j) => m.ends[end].joints.includes(j.id));
  const corner = joint ? `; the corner is ${deg(joint.angleDeg)}°, half of it ${deg(joint.angleDeg / 2)}°` : "";
  return `${deg(onScale(c.fromSquareDeg, other))}° ${SCALE_WORDS[other]}${corner}`;
}

/** How one end of a member is cut, in numbers and words. @param scale what angles are counted from. */
export function pieceEnd(
  structure: Structure,
  m: StructureMember,
  end: EndName,
  scale: SawScale = "square",
  units: UnitPreference = "mm",
): PieceEnd {
  const cuts: SawCut[] = [];
  let cope: PieceEnd["cope"] = null;
  for (const c of m.ends[end].cutters) {
    if (c.kind === "cylinder") cope = copeOf(m, c);
    else cuts.push(sawCut(structure, m, end, c.normal));
  }
  const one = (c: SawCut): string => {
    if (c.long === null) return "square";
    const edge = `long edge ${edgeWords(structure, m, c.long)}`;
    const lay = c.up === "side" ? ", piece laid on its side" : "";
    const tilt = c.tiltDeg === 0 ? "" : `, blade tilted ${deg(Math.abs(c.tiltDeg))}°`;
    const far = Math.abs(c.fromSquareDeg) > SAW_REACH_DEG ? ", beyond most saws: mark it out and cut it by hand" : "";
    return `${deg(onScale(c.fromSquareDeg, scale))}° ${SCALE_WORDS[scale]}${tilt}${lay}, ${edge}${far}`;
  };
  const notch = cope
    ? [
        `${isRound(m.shape) ? "cope" : "notch"} to a round of ${plainLength(2 * cope.radiusMm, units)} at ${deg(cope.angleDeg)}°${cope.offsetMm > 0.05 ? `, ${plainLength(cope.offsetMm, units)} off its middle` : ""}: see the template`,
      ]
    : [];
  const list = [...cuts.map(one), ...notch];
  return {
    end,
    cuts,
    cope,
    beside: cuts.length === 1 && cuts[0] ? besideWords(structure, m, end, cuts[0], scale) : null,
    words: list.length > 1 ? `pointed, ${list.length} cuts: ${list.join("; then ")}` : (list[0] ?? "square"),
  };
}
