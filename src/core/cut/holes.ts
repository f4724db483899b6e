import type { ResolvedFrame } from "../frame";

/** What happens to the frame after welding. */
export const FINISHES = ["bare", "paint", "zinc dip"] as const;
export type Finish = (typeof FINISHES)[number];

/** Tubes that make one closed space once everything is beaded. */
export interface ClosedVolume {
  members: string[];
  /** Length of tube in it, mm. */
  lengthMm: number;
  why: string;
}

/** Holes for one closed volume. */
export interface HoleAdvice {
  volume: ClosedVolume;
  count: number;
  diameterMm: number;
  where: string;
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

/**
 * Closed volumes of a welded frame. Mitred sides open into each other and make one ring; a cross member ends on the walls of
 * its sides and is closed by them.
 */
export function closedVolumes(frame: ResolvedFrame): ClosedVolume[] {
  const sides = frame.members.filter((m) => m.kind === "side");
  const cross = frame.members.filter((m) => m.kind === "cross");
  return [
    {
      members: sides.map((m) => m.name),
      lengthMm: sides.reduce((s, m) => s + m.centreMm, 0),
      why: "the mitres open into each other: one ring",
    },
    ...cross.map((m) => ({
      members: [m.name],
      lengthMm: m.centreMm,
      why: "closed at both ends by the walls that it lands on",
    })),
  ];
}

/**
 * Holes that every closed volume needs: one to weld it shut safely, two to dip it.
 * @param finish what happens after welding: a dip needs vent and drain at opposite ends; it is never dipped sealed.
 */
export function holeAdvice(frame: ResolvedFrame, finish: Finish): HoleAdvice[] {
  const large = Math.max(frame.section.faceMm, frame.section.depthMm);
  return closedVolumes(frame).map((volume): HoleAdvice => {
    const ring = volume.members.length > 1;
    if (finish === "zinc dip")
      return {
        volume,
        count: ring ? 4 : 2,
        diameterMm: dipHoleMm(large),
        where: ring
          ? "at each corner, as near the mitre as the drill gets: two below, and two above at the corners across"
          : "at both ends, as near the joint as the drill gets: one below, one above across from it",
        why: "Zinc must run in and out, and air out, as the frame goes in on a slant. A sealed tube bursts in the bath: never dip one.",
      };
    return {
      volume,
      count: 1,
      diameterMm: WELD_VENT_MM,
      where: ring
        ? "on an inner face of AB, near the middle: away from every bead"
        : "on the underside, near the middle: away from every bead",
      why:
        finish === "paint"
          ? "Trapped gas blows out through the last bead. Close it after welding, before the paint, where water would stand."
          : "Trapped gas blows out through the last bead.",
    };
  });
}
