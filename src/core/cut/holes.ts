import {
  type ClosedVolume,
  closedVolumes,
  type EndName,
  isHollow,
  MATERIALS,
  type Structure,
  type StructureMember,
  tubeBeginsMm,
} from "../frame";
import { dot3, sub3 } from "../numeric";

/** What happens to the frame after welding. */
export const FINISHES = ["bare", "paint", "powder", "zinc dip"] as const;
export type Finish = (typeof FINISHES)[number];

/** Finishes that a frame takes: zinc takes on steel that rusts alone; a bath eats aluminium and may crack stainless (common practice, no source). */
export const finishesFor = ({ members }: Pick<Structure, "members">): Finish[] =>
  FINISHES.filter((f) => f !== "zinc dip" || members.every((m) => MATERIALS[m.material].rusts));
/** Finishes to choose from: those that it takes, and what was chosen already. */
export const finishesOffered = (structure: Pick<Structure, "members">, chosen: Finish): Finish[] =>
  FINISHES.filter((f) => f === chosen || finishesFor(structure).includes(f));

/** Where one hole is drilled. */
interface HolePlace {
  member: string;
  /** From the long point of its first end, on which a tape hooks. */
  fromFirstEndMm: number;
  face: string;
}

/** Holes for one closed volume. */
export interface HoleAdvice {
  volume: ClosedVolume;
  count: number;
  diameterMm: number;
  where: string;
  places: HolePlace[];
  why: string;
}

/** A hole that lets the air of a closed tube out while it is welded shut, mm (common practice, no source). */
const WELD_VENT_MM = 4;

/**
 * Smallest diameter of one vent or drain hole at each end of a hollow section for hot-dip galvanizing, by its larger side,
 * mm. Source: EN ISO 14713-2, table of holes in hollow sections (from memory: confirm with the galvanizer).
 */
const DIP_HOLE_MM = [
  [15, 8],
  [20, 10],
  [30, 12],
  [40, 14],
  [50, 16],
  [60, 20],
  [80, 20],
  [100, 25],
  [120, 30],
  [160, 40],
  [200, 50],
] as const;

/** @param largeMm larger side of the tube. @returns mm; beyond the table a quarter of the side. */
export const dipHoleMm = (largeMm: number): number =>
  DIP_HOLE_MM.find(([up]) => largeMm <= up)?.[1] ?? Math.ceil(largeMm / 4);

/** Hollow members that still breathe through an open end. */
export function openMembers(structure: Structure): string[] {
  const closed = new Set(closedVolumes(structure).flatMap((v) => v.members));
  return structure.members.filter((m) => isHollow(m.shape) && !closed.has(m.id)).map((m) => m.id);
}

/** How near to a joint the drill gets, from the end of the member, mm: half the tube and the bead. */
const nearJointMm = (m: StructureMember): number => Math.max(m.properties.widthMm, m.properties.heightMm) / 2 + 10;

/** From where to where its middle line runs as it is cut, mm from its long point. */
function centreMm(m: StructureMember): [begins: number, finishes: number] {
  const at = (end: EndName): number => dot3(sub3(m.ends[end].at, m.from), m.axes[0]) - tubeBeginsMm(m);
  return [at("from"), at("to")];
}

/** Where to drill the two ends of a member: below at the first, above across from it at the second. */
function dipPlaces(m: StructureMember): HolePlace[] {
  const d = nearJointMm(m);
  const [begins, finishes] = centreMm(m);
  return [
    { member: m.id, fromFirstEndMm: begins + d, face: "underside" },
    { member: m.id, fromFirstEndMm: finishes - d, face: "top, across from it" },
  ];
}

/** A vent this far from a bead blows out nothing of it, and so much farther where there is room, mm (own judgement). */
const CLEAR_MM = 20;
const MORE_CLEAR_MM = 30;
/** A branch flatter than this on a member stands along it as if it were this steep, sine. */
const FLATTEST = 0.2;

/** Where to vent a member, mm from its long point: at its middle, or beside what is welded on there; in its widest gap where none is wide enough. */
function ventMm(structure: Structure, m: StructureMember): number {
  const [begins, finishes] = centreMm(m);
  const middle = (begins + finishes) / 2;
  const taken = structure.joints.flatMap(({ a, b, at, atB, angleDeg, along }): [number, number][] => {
    if (a !== m.id && b !== m.id) return [];
    const other = structure.members.find((x) => x.id === (a === m.id ? b : a));
    if (!other) return [];
    const s = dot3(sub3(a === m.id ? at : atB, m.from), m.axes[0]) - tubeBeginsMm(m);
    const { widthMm, heightMm } = other.properties;
    const steep = Math.max(FLATTEST, Math.sin((angleDeg * Math.PI) / 180));
    const half = Math.max(Math.max(widthMm, heightMm) / 2 / steep, (along?.seamMm ?? 0) / 2);
    return [[s - half, s + half]];
  });
  const gaps: [number, number][] = [];
  let reached = begins;
  for (const [from, to] of [...taken.sort((p, q) => p[0] - q[0]), [finishes, finishes] as const]) {
    if (from > reached) gaps.push([reached, from]);
    reached = Math.max(reached, to);
  }
  const inGap = ([from, to]: [number, number]): number => {
    const edge = Math.min((to - from) / 2, CLEAR_MM + MORE_CLEAR_MM);
    const isClear = middle - from >= CLEAR_MM && to - middle >= CLEAR_MM;
    return isClear ? middle : Math.min(Math.max(middle, from + edge), to - edge);
  };
  const wide = gaps.filter(([from, to]) => to - from >= 2 * CLEAR_MM);
  const widest = gaps.sort(([p, q], [r, s]) => s - r - (q - p)).slice(0, 1);
  const [best] = (wide.length > 0 ? wide : widest)
    .map(inGap)
    .sort((p, q) => Math.abs(p - middle) - Math.abs(q - middle));
  return best ?? middle;
}

/**
 * Holes that every closed volume needs: one to weld it shut safely, two to dip it.
 * @param finish what happens after welding: a dip needs vent and drain at opposite ends; it is never dipped sealed.
 */
export function holeAdvice(structure: Structure, finish: Finish): HoleAdvice[] {
  return closedVolumes(structure).map((volume): HoleAdvice => {
    const set = structure.members.filter((m) => volume.members.includes(m.id));
    const large = Math.max(...set.map((m) => Math.max(m.properties.widthMm, m.properties.heightMm)));
    const many = set.length > 1;
    const first = set[0] as StructureMember;
    if (finish === "zinc dip") {
      // Where two members open into each other, one hole serves both.
      const places = many ? set.map((m, i) => dipPlaces(m)[i % 2 === 0 ? 0 : 1] as HolePlace) : dipPlaces(first);
      return {
        volume,
        count: places.length,
        diameterMm: dipHoleMm(large),
        where: many
          ? "at each corner, as near the mitre as the drill gets: one below, the next above, as you go round"
          : "at both ends, as near the joint as the drill gets: one below, one above across from it",
        places,
        why: "Zinc must run in and out, and air out, as the frame goes in on a slant. A sealed tube bursts in the bath: never dip one.",
      };
    }
    return {
      volume,
      count: 1,
      diameterMm: WELD_VENT_MM,
      where: many
        ? `on an inner face of ${first.id}, near the middle: away from every bead`
        : "on the underside, near the middle: away from every bead",
      places: [{ member: first.id, fromFirstEndMm: ventMm(structure, first), face: many ? "inner face" : "underside" }],
      why:
        finish === "paint" || finish === "powder"
          ? "Trapped gas blows out through the last bead. Close it after welding, before the paint, where water would stand."
          : "Trapped gas blows out through the last bead.",
    };
  });
}
