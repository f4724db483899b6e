import { type EndName, isRound, meets, type StructureMember } from "../frame";
import { add3, scale3, type Vec3 } from "../numeric";

/** A wrap-around template: how far in from the longest point to cut, along the way round the outside, mm. */
export interface CopeTemplate {
  end: EndName;
  aroundMm: number;
  deepMm: number;
  /** Points from where the seam lies by habit, once round. */
  points: { aroundMm: number; inMm: number }[];
}

/** Which edge of the wall is to touch: the inner one leaves a groove for the bead. */
export type CopeEdge = "inner" | "outer";
const STEPS = 192;

/**
 * Template of an end that is fitted to a round tube, worked out from the frame as it stands.
 * @param wallEdge edge of the wall that touches. @returns null when the end is not fitted to a round, or misses it.
 */
export function copeTemplate(m: StructureMember, end: EndName, wallEdge: CopeEdge): CopeTemplate | null {
  const cutter = m.ends[end].cutters.find((c) => c.kind === "cylinder");
  if (!cutter) return null;
  const [x, y, z] = m.axes;
  const out = end === "to" ? x : scale3(x, -1);
  const wall = m.properties.wallMm;
  const hollow = m.shape.shape === "tube" || m.shape.shape === "round tube";
  const inner = wallEdge === "inner" && hollow;
  // Points once round the outside, and the same points on the edge that touches.
  const round: { around: number; y: number; z: number }[] = [];
  if (isRound(m.shape)) {
    const r = m.properties.widthMm / 2;
    const touch = inner ? r - wall : r;
    for (let i = 0; i <= STEPS; i++) {
      const phi = (2 * Math.PI * i) / STEPS;
      round.push({ around: r * phi, y: touch * Math.cos(phi), z: touch * Math.sin(phi) });
    }
  } else {
    const [w, h] = [m.properties.widthMm / 2, m.properties.heightMm / 2];
    const k = inner ? wall : 0;
    const corners: [number, number][] = [
      [w, -h],
      [w, h],
      [-w, h],
      [-w, -h],
      [w, -h],
    ];
    let around = 0;
    for (let c = 0; c < 4; c++) {
      const [[y0, z0], [y1, z1]] = [corners[c], corners[c + 1]] as [[number, number], [number, number]];
      const edge = Math.hypot(y1 - y0, z1 - z0);
      for (let i = c === 0 ? 0 : 1; i <= STEPS / 4; i++) {
        const t = i / (STEPS / 4);
        const [py, pz] = [y0 + t * (y1 - y0), z0 + t * (z1 - z0)];
        round.push({ around: around + t * edge, y: py * ((w - k) / w), z: pz * ((h - k) / h) });
      }
      around += edge;
    }
  }
  const at = round.map((p) => {
    const origin: Vec3 = add3(m.from, add3(scale3(y, p.y), scale3(z, p.z)));
    return meets(cutter, origin, out);
  });
  if (at.some((v) => v === null)) return null;
  const most = Math.max(...(at as number[]));
  const points = round.map((p, i) => ({ aroundMm: p.around, inMm: most - (at[i] as number) }));
  return { end, aroundMm: points.at(-1)?.aroundMm ?? 0, deepMm: Math.max(...points.map((p) => p.inMm)), points };
}

/** What two sheets of one template share, mm. */
const OVERLAP_MM = 10;

/** Where the sheets begin on which a drawing is printed, mm from its left; one where it fits. @param paperMm printable. */
export function sheetStartsMm(widthMm: number, paperMm: number): number[] {
  const step = paperMm - OVERLAP_MM;
  const count = Math.max(1, Math.ceil((widthMm - OVERLAP_MM) / step));
  return Array.from({ length: count }, (_, i) => i * step);
}
