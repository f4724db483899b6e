import { cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";

/** A line in mm. */
export interface Line3 {
  from: Vec3;
  to: Vec3;
  /** Lines of one closed figure share a number. */
  ring?: number;
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

const STEPS = [-1, 0, 1] as const;
/** Steps to a cell and to all that touch it. */
const BESIDE = STEPS.flatMap((x) => STEPS.flatMap((y) => STEPS.map((z) => [x, y, z] as const)));

/** Numbers corners as they come: the number of one that lies there already, whatever the last digits are, else the next. */
class Corners {
  private readonly cells = new Map<string, { at: Vec3; number: number }[]>();
  private count = 0;

  numberOf(p: Vec3): number {
    const [x, y, z] = p.map((v) => Math.floor(v / CORNER_MM)) as [number, number, number];
    const near = BESIDE.flatMap(([i, j, k]) => this.cells.get(`${x + i} ${y + j} ${z + k}`) ?? []);
    const known = near.find(({ at }) => norm3(sub3(at, p)) < CORNER_MM);
    if (known) return known.number;
    const own = `${x} ${y} ${z}`;
    this.cells.set(own, [...(this.cells.get(own) ?? []), { at: p, number: this.count }]);
    return this.count++;
  }
}

/** Closed rings among lines: drawn as one figure, or where every corner has two of them. @returns for each ring the lines in it. */
export function ringsOf(lines: readonly Line3[]): number[][] {
  const figures = new Map<number, number[]>();
  lines.forEach(({ ring }, i) => {
    if (ring !== undefined) figures.set(ring, [...(figures.get(ring) ?? []), i]);
  });
  return [...figures.values(), ...looseRings(lines)];
}

/** Rings of lines that were drawn one by one. */
function looseRings(lines: readonly Line3[]): number[][] {
  const corners = new Corners();
  const ends = lines.map((l) => (l.ring === undefined ? [l.from, l.to].map((p) => corners.numberOf(p)) : []));
  const at = new Map<number, number[]>();
  ends.forEach((own, i) => {
    for (const corner of own) at.set(corner, [...(at.get(corner) ?? []), i]);
  });
  const seen = new Set<number>();
  const rings: number[][] = [];
  lines.forEach((l, start) => {
    if (seen.has(start) || l.ring !== undefined) return;
    const ring: number[] = [];
    const queue = [start];
    let isRing = true;
    for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
      if (seen.has(i)) continue;
      seen.add(i);
      ring.push(i);
      for (const corner of ends[i] ?? []) {
        const there = at.get(corner) ?? [];
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

/** Slack between an end and the face that it meets, mm (own judgement). */
const MEET_MM = 3;

/** An end as it was drawn: short of the middle of what it meets, past it, or on it. */
type Drawn = "short" | "past" | "on";

interface Meets {
  other: number;
  /** Along the own line to where the middle lines meet, mm. */
  s: number;
  drawn: Drawn;
}

/** What an end of a tube meets, nearest first. @param s0 where the end is along its line. */
function meetsAt(tubes: readonly OutlinedTube[], i: number, s0: number, out: 1 | -1): Meets | null {
  const t = tubes[i] as OutlinedTube;
  const u = unit3(sub3(t.to, t.from));
  const found = tubes.flatMap((o, k): (Meets & { far: number })[] => {
    if (k === i) return [];
    const v = unit3(sub3(o.to, o.from));
    const n = cross3(u, v);
    const sine = norm3(n);
    if (sine < 0.1) return [];
    const w = sub3(o.from, t.from);
    if (Math.abs(dot3(w, n)) / sine > MEET_MM) return [];
    const s = dot3(cross3(w, v), n) / (sine * sine);
    const q = dot3(cross3(w, u), n) / (sine * sine);
    const reach = (o.widthMm + t.widthMm * Math.abs(dot3(u, v))) / 2 / sine + MEET_MM;
    const long = norm3(sub3(o.to, o.from));
    if (Math.abs(s - s0) > reach || q < -t.widthMm / 2 / sine - MEET_MM || q > long + t.widthMm / 2 / sine + MEET_MM)
      return [];
    const past = out * (s0 - s);
    return [{ other: k, s, drawn: past > MEET_MM ? "past" : past < -MEET_MM ? "short" : "on", far: Math.abs(s - s0) }];
  });
  return found.sort((a, b) => a.far - b.far)[0] ?? null;
}

/**
 * Outlined tubes with their ends on the middle line of what they meet, as members are drawn; and corners where one was drawn past the
 * other, which runs into it.
 */
export function onMiddles(tubes: readonly OutlinedTube[]): {
  tubes: OutlinedTube[];
  butts: { through: number; branch: number }[];
} {
  const butts: { through: number; branch: number }[] = [];
  const ends = tubes.map((t, i) => {
    const long = norm3(sub3(t.to, t.from));
    return [meetsAt(tubes, i, 0, -1), meetsAt(tubes, i, long, 1)] as const;
  });
  const moved = tubes.map((t, i): OutlinedTube => {
    const u = unit3(sub3(t.to, t.from));
    const long = norm3(sub3(t.to, t.from));
    const [a, b] = ends[i] as (typeof ends)[number];
    const at = (s: number): Vec3 => [0, 1, 2].map((k) => t.from[k as 0] + s * u[k as 0]) as unknown as Vec3;
    return { ...t, from: at(a?.s ?? 0), to: at(b?.s ?? long) };
  });
  ends.forEach((own, i) => {
    for (const end of own)
      if (end?.drawn === "past" && ends[end.other]?.some((o) => o?.other === i && o.drawn === "short"))
        butts.push({ through: i, branch: end.other });
  });
  return { tubes: moved, butts };
}
