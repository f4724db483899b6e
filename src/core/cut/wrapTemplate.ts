import { type EndName, isRound, meets, type Structure, type StructureMember } from "../frame";
import { add3, degrees, dot3, scale3, unit3, type Vec3 } from "../numeric";

/** Why an end wants a template: it lands on a round, it is cut from two sides, or it is slanted beyond what a saw turns to. */
export type TemplateFor = "round" | "two cuts" | "steep";

/** A wrap-around template: how far in from the longest point to cut, along the way round the outside, mm. */
export interface WrapTemplate {
  end: EndName;
  for: TemplateFor;
  aroundMm: number;
  deepMm: number;
  /** Points from where the seam lies by habit, once round. */
  points: { aroundMm: number; inMm: number }[];
}

/** A saw turns so far from a square cut, degrees (common practice, no source: most stop at 60 or before). */
const SAW_TURNS_DEG = 60;

/** Why an end wants a template; null where a saw does it. */
function templateFor(m: StructureMember, end: EndName): TemplateFor | null {
  const { cutters } = m.ends[end];
  if (cutters.some((c) => c.kind === "cylinder")) return "round";
  if (cutters.length > 1) return "two cuts";
  const [cut] = cutters;
  if (cut?.kind !== "plane") return null;
  const fromSquare = degrees(Math.acos(Math.min(1, Math.abs(dot3(unit3(cut.normal), m.axes[0])))));
  return fromSquare > SAW_TURNS_DEG ? "steep" : null;
}

/** Which edge of the wall is to touch: the inner one leaves a groove for the bead. */
export type CopeEdge = "inner" | "outer";
const STEPS = 192;

/** A place round the outside, and the same on the edge that touches. */
interface Round {
  around: number;
  y: number;
  z: number;
}
const between = (a: Round, b: Round): Round => ({
  around: (a.around + b.around) / 2,
  y: (a.y + b.y) / 2,
  z: (a.z + b.z) / 2,
});
const HALVINGS = 30;

/**
 * Template of an end that a saw does not cut, worked out from the frame as it stands.
 * @param wallEdge edge of the wall that touches a round; what is cut straight is marked on its outside.
 * @returns null when a saw cuts the end, or it misses what it should land on.
 */
export function wrapTemplate(m: StructureMember, end: EndName, wallEdge: CopeEdge): WrapTemplate | null {
  const why = templateFor(m, end);
  if (!why) return null;
  const { cutters } = m.ends[end];
  const [x, y, z] = m.axes;
  const out = end === "to" ? x : scale3(x, -1);
  const wall = m.properties.wallMm;
  const hollow = m.shape.shape === "tube" || m.shape.shape === "round tube";
  const inner = why === "round" && wallEdge === "inner" && hollow;
  // Points once round the outside, and the same points on the edge that touches.
  const round: Round[] = [];
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
  // Of several cuts the first one that is met ends it there.
  const cutAt = (p: Round): { p: Round; at: number; by: number } => {
    const origin: Vec3 = add3(m.from, add3(scale3(y, p.y), scale3(z, p.z)));
    const far = cutters.map((cut) => meets(cut, origin, out) ?? Number.NaN);
    const at = Math.min(...far);
    return { p, at, by: far.indexOf(at) };
  };
  const even = round.map(cutAt);
  const cuts = even.flatMap((one, i) => {
    const next = even[i + 1];
    if (!next || next.by === one.by) return [one];
    // Where one cut gives way to another there is a corner: found by halving.
    let [low, high] = [one, next];
    for (let k = 0; k < HALVINGS; k++) {
      const middle = cutAt(between(low.p, high.p));
      if (middle.by === one.by) low = middle;
      else high = middle;
    }
    return [one, low];
  });
  if (cuts.some((c) => Number.isNaN(c.at))) return null;
  const most = Math.max(...cuts.map((c) => c.at));
  const points = cuts.map((c) => ({ aroundMm: c.p.around, inMm: most - c.at }));
  return {
    end,
    for: why,
    aroundMm: points.at(-1)?.aroundMm ?? 0,
    deepMm: Math.max(...points.map((p) => p.inMm)),
    points,
  };
}

/** Every end of a frame that wants a template; ends that are alike share one. */
export function templatesOf(structure: Structure, edge: CopeEdge): { name: string; template: WrapTemplate }[] {
  const alike = new Map<string, { names: string[]; template: WrapTemplate }>();
  for (const m of structure.members)
    for (const end of ["from", "to"] as const) {
      const template = wrapTemplate(m, end, edge);
      if (!template) continue;
      const key = [
        template.aroundMm.toFixed(1),
        ...template.points.filter((_, i) => i % 5 === 0).map((p) => p.inMm.toFixed(2)),
      ].join();
      const known = alike.get(key) ?? { names: [], template };
      known.names.push(`${m.id}, ${end === "from" ? "first" : "second"} end`);
      alike.set(key, known);
    }
  return [...alike.values()].map(({ names, template }) => ({ name: names.join("; "), template }));
}

/** What two sheets of one template share, mm. */
const OVERLAP_MM = 10;

/** Where the sheets begin on which a drawing is printed, mm from its left; one where it fits. @param paperMm printable. */
export function sheetStartsMm(widthMm: number, paperMm: number): number[] {
  const step = paperMm - OVERLAP_MM;
  const count = Math.max(1, Math.ceil((widthMm - OVERLAP_MM) / step));
  return Array.from({ length: count }, (_, i) => i * step);
}
