import { cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";

/** A line in mm. */
export interface Line3 {
  from: Vec3;
  to: Vec3;
}

/** A tube that was drawn by its outline. */
export interface OutlinedTube extends Line3 {
  widthMm: number;
}

/** Two sides run side by side within this, sine (own judgement). */
const PARALLEL_SINE = 0.01;
/** An outline is a tube's where it is longer than wide by this (own judgement). */
const SLENDER = 1.5;
/** Corners nearer to each other than this are one, mm. */
const CORNER_MM = 0.05;

const key = (p: Vec3): string => p.map((v) => Math.round(v / CORNER_MM)).join(" ");

/** Closed rings among lines: where every corner has two of them. @returns for each ring the lines in it. */
export function ringsOf(lines: readonly Line3[]): number[][] {
  const at = new Map<string, number[]>();
  lines.forEach((l, i) => {
    for (const p of [l.from, l.to]) at.set(key(p), [...(at.get(key(p)) ?? []), i]);
  });
  const seen = new Set<number>();
  const rings: number[][] = [];
  lines.forEach((_, start) => {
    if (seen.has(start)) return;
    const ring: number[] = [];
    const queue = [start];
    let isRing = true;
    for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
      if (seen.has(i)) continue;
      seen.add(i);
      ring.push(i);
      const l = lines[i] as Line3;
      for (const p of [l.from, l.to]) {
        const there = at.get(key(p)) ?? [];
        if (there.length !== 2) isRing = false;
        queue.push(...there.filter((k) => !seen.has(k)));
      }
    }
    if (isRing && ring.length >= 4) rings.push(ring);
  });
  return rings;
}

/** The tube of an outline: midway between its two longest sides that run side by side. @returns null where it is none. */
export function tubeOf(sides: readonly Line3[]): OutlinedTube | null {
  const long = [...sides].sort((a, b) => norm3(sub3(b.to, b.from)) - norm3(sub3(a.to, a.from)));
  const first = long[0];
  if (!first) return null;
  const along = unit3(sub3(first.to, first.from));
  const beside = long.slice(1).find((l) => norm3(cross3(along, unit3(sub3(l.to, l.from)))) < PARALLEL_SINE);
  if (!beside) return null;
  const toward = dot3(sub3(beside.to, beside.from), along) >= 0;
  const [b0, b1] = toward ? [beside.from, beside.to] : [beside.to, beside.from];
  const off = sub3(b0, first.from);
  const across = sub3(off, scale3(along, dot3(off, along)));
  const widthMm = norm3(across);
  const middle = (p: Vec3, q: Vec3): Vec3 => {
    // On the middle line, half way between where both sides end.
    const s = (dot3(sub3(p, first.from), along) + dot3(sub3(q, first.from), along)) / 2;
    return [0, 1, 2].map((k) => first.from[k as 0] + s * along[k as 0] + across[k as 0] / 2) as unknown as Vec3;
  };
  const [from, to] = [middle(first.from, b0), middle(first.to, b1)];
  return widthMm > 0 && norm3(sub3(to, from)) > SLENDER * widthMm ? { from, to, widthMm } : null;
}
