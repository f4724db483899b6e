import { add3, cross3, dot3, entry, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { fail, ok, plainLength, type Result, stated, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnJoint, DrawnSection } from "./drawnSchema";
import { emptyFrame, member } from "./drawnStart";
import { renameMember } from "./editing";
import type { Clash } from "./findJoints";
import { DRAWING_UNITS, type DrawingUnit, extentOf, type LineWork, type WorkLine } from "./lineWork";
import { type NearMiss, nearMisses } from "./nearMisses";
import { type Line3, type OutlinedTube, onMiddles, ringsOf, tubeOf } from "./outlineLines";
import { shapeOf } from "./placing";
import { resolveStructure } from "./resolveStructure";
import { sectionSize } from "./sectionOutline";
import { PROFILES } from "./sections";
import type { Structure } from "./structure";
import { TOLERANCES } from "./tolerances";

/** What a drawing's lines stand for. */
export const LINE_MEANINGS = ["centre", "outline"] as const;
export type LineMeaning = (typeof LINE_MEANINGS)[number];

/** What is made of a drawing. */
export interface LinesWish {
  unit: DrawingUnit;
  layers: readonly string[];
  means: LineMeaning;
}

/** A frame that was made from a drawing. */
export interface FromLines {
  frame: DrawnFrame;
  structure: Structure;
  clashes: Clash[];
  near: NearMiss[];
  /** What was done to the lines, in words. */
  told: string[];
}

/** A frame has no more members than this. */
const MOST_MEMBERS = 400;
/** More lines than this are not gone through: they are no centre lines of one frame. */
const MOST_WORKED = 3000;
/** Shorter lines are specks, mm (own judgement). */
const SPECK_MM = 5;
/** Places nearer than this are one, mm (own judgement). */
const SAME_MM = 0.5;
/** Lines that go the same way within this are in one line, sine. */
const IN_LINE_SINE = 0.002;
/** Shares of lines in rings from which on a drawing shows outlines, not centre lines. */
const MOSTLY = 0.6;
/** Drawn widths nearer than this are one section, mm. */
const SAME_WIDTH_MM = 0.3;
const MOST_SECTIONS = 20;

const lengthOf = (l: Line3): number => norm3(sub3(l.to, l.from));
const along = (l: Line3): Vec3 => unit3(sub3(l.to, l.from));

/** Lines of the chosen layers, in mm. */
const inMm = (work: LineWork, layers: readonly string[], unit: DrawingUnit): Line3[] => {
  const chosen = new Set(layers);
  const per = DRAWING_UNITS[unit];
  return work.lines.flatMap((l) =>
    chosen.has(l.layer) ? [{ ...l, from: scale3(l.from, per), to: scale3(l.to, per) }] : [],
  );
};

/** Layers of a drawing with their lines, most first. */
export function layersOf(lines: readonly WorkLine[]): { name: string; lines: number }[] {
  const count = new Map<string, number>();
  for (const l of lines) count.set(l.layer, (count.get(l.layer) ?? 0) + 1);
  return [...count].map(([name, n]) => ({ name, lines: n })).sort((a, b) => b.lines - a.lines);
}

/** A layer of centre lines names itself so in many tongues of the trade (common practice, no source). */
const CENTRE_NAME = /cent(re|er)|axis|axes|\bcl\b|mid/i;

/** What is taken of a drawing to begin with: the layer of centre lines where one names itself so, else all. */
export function usualWish(work: LineWork, unit: DrawingUnit): LinesWish {
  const all = layersOf(work.lines).map((l) => l.name);
  const centre = all.filter((name) => CENTRE_NAME.test(name));
  const layers = centre.length > 0 ? centre : all;
  const lines = inMm(work, layers, unit).slice(0, MOST_WORKED);
  const inRings = ringsOf(lines).filter((ring) => tubeOf(ring.map((i) => lines[i] as Line3)) !== null);
  const share = inRings.reduce((s, r) => s + r.length, 0) / Math.max(1, lines.length);
  // Four members end to end are a ring, too: it takes two outlines to tell.
  return { unit, layers, means: inRings.length > 1 && share >= MOSTLY ? "outline" : "centre" };
}

/** Where a place lies on a line: along it and how far beside it. */
function onLine(l: Line3, p: Vec3): { s: number; off: number } {
  const u = along(l);
  const w = sub3(p, l.from);
  const s = dot3(w, u);
  return { s, off: norm3(sub3(w, scale3(u, s))) };
}

const isInside = (l: Line3, p: Vec3): boolean => {
  const { s, off } = onLine(l, p);
  return off < SAME_MM && s > SAME_MM && s < lengthOf(l) - SAME_MM;
};

/** Lines that lie in one straight line, together. */
function straightGroups(lines: readonly Line3[]): number[][] {
  const groups: { of: Line3; own: number[] }[] = [];
  lines.forEach((l, i) => {
    const u = along(l);
    const found = groups.find(
      ({ of }) =>
        norm3(cross3(u, along(of))) < IN_LINE_SINE &&
        onLine(of, l.from).off < SAME_MM &&
        onLine(of, l.to).off < SAME_MM,
    );
    if (found) {
      found.own.push(i);
      if (lengthOf(l) > lengthOf(found.of)) found.of = l;
    } else groups.push({ of: l, own: [i] });
  });
  return groups.map((g) => g.own);
}

/**
 * Lines that lie in one line and over or end to end are one: a rail that is drawn from tee to tee. Where another line runs through
 * between them they stay two: a cross member on either side of a rail. The longest rows go first.
 */
function joined(lines: readonly Line3[]): { lines: Line3[]; joined: number } {
  const groups = straightGroups(lines)
    .map((own) => own.map((i) => lines[i] as Line3))
    .sort((a, b) => b.reduce((s, l) => s + lengthOf(l), 0) - a.reduce((s, l) => s + lengthOf(l), 0));
  const done: Line3[] = [];
  groups.forEach((group, g) => {
    if (group.length === 1) {
      done.push(...group);
      return;
    }
    const of = group.reduce((a, b) => (lengthOf(b) > lengthOf(a) ? b : a));
    const u = along(of);
    const spans = group
      .map(
        (l) => [dot3(sub3(l.from, of.from), u), dot3(sub3(l.to, of.from), u)].sort((a, b) => a - b) as [number, number],
      )
      .sort((a, b) => a[0] - b[0]);
    const others = [...done, ...groups.slice(g + 1).flat()];
    const rows: [number, number][] = [];
    for (const [a, b] of spans) {
      const last = rows.at(-1);
      const over = last ? last[1] - a : Number.NEGATIVE_INFINITY;
      const place = add3(of.from, scale3(u, a));
      if (last && (over > SAME_MM || (over > -SAME_MM && !others.some((o) => isInside(o, place)))))
        last[1] = Math.max(last[1], b);
      else rows.push([a, b]);
    }
    done.push(...rows.map(([a, b]) => ({ from: add3(of.from, scale3(u, a)), to: add3(of.from, scale3(u, b)) })));
  });
  return { lines: done, joined: lines.length - done.length };
}

/** Where two lines pass through each other, both with some of theirs on either side. */
function crossing(a: Line3, b: Line3): Vec3 | null {
  const [u, v] = [along(a), along(b)];
  const n = cross3(u, v);
  const sine = norm3(n);
  if (sine < Math.sin((TOLERANCES.parallelDeg * Math.PI) / 180)) return null;
  const w = sub3(b.from, a.from);
  if (Math.abs(dot3(w, n)) / sine > SAME_MM) return null;
  const s = dot3(cross3(w, v), n) / (sine * sine);
  const p = add3(a.from, scale3(u, s));
  return isInside(a, p) && isInside(b, p) ? p : null;
}

/** Of two that cross one has to give way: the shorter is cut in two there. */
function cutWhereCrossed(lines: readonly Line3[]): { lines: Line3[]; cut: number } {
  const out = [...lines].sort((a, b) => lengthOf(b) - lengthOf(a));
  let cut = 0;
  for (let i = 0; i < out.length && out.length <= MOST_WORKED; i++)
    for (let k = i + 1; k < out.length; k++) {
      const [a, b] = [out[i] as Line3, out[k] as Line3];
      const p = crossing(a, b);
      if (!p) continue;
      out.splice(k, 1, { from: b.from, to: p }, { from: p, to: b.to });
      cut++;
      k++;
    }
  return { lines: out, cut };
}

/** The section of a drawn width: a tube of the table where there is one of that width, else the given one as wide. */
function sectionOfWidth(given: DrawnSection, widthMm: number, id: string, units: UnitPreference): DrawnSection {
  if (Math.abs(sectionSize(shapeOf(given)).widthMm - widthMm) < SAME_WIDTH_MM) return { ...given, id };
  const isSquare = given.shape === "tube";
  const fit = isSquare
    ? PROFILES.filter((p) => p.smallMm === p.largeMm && Math.abs(p.smallMm - widthMm) < SAME_WIDTH_MM).sort(
        (a, b) => Math.abs(a.wallMm - given.wall.mm) - Math.abs(b.wallMm - given.wall.mm),
      )[0]
    : undefined;
  if (fit)
    return {
      ...given,
      id,
      profile: fit.name,
      width: stated(fit.smallMm, units),
      height: stated(fit.largeMm, units),
      wall: stated(fit.wallMm, units),
    };
  return { ...given, id, profile: null, width: stated(widthMm, units) };
}

/** Tubes that were drawn by their outlines, by their centre lines, with how wide each is drawn. */
function fromOutlines(lines: readonly Line3[]): {
  lines: OutlinedTube[];
  butts: { through: number; branch: number }[];
  left: number;
} {
  const rings = ringsOf(lines);
  const tubes = rings.flatMap((ring) => {
    const tube = tubeOf(ring.map((i) => lines[i] as Line3));
    return tube ? [{ tube, n: ring.length }] : [];
  });
  const placed = onMiddles(tubes.map((t) => t.tube));
  return { lines: placed.tubes, butts: placed.butts, left: lines.length - tubes.reduce((s, t) => s + t.n, 0) };
}

/** Members that close four sides are named by their corners, as a rectangle's are. */
function namedByCorners(frame: DrawnFrame): DrawnFrame {
  const { quad } = resolveStructure(frame).structure;
  if (!quad) return frame;
  const named = (Object.entries(quad.sides) as [string, string][]).reduce((f, [side, id]) => {
    const next = renameMember(f, id, side);
    return next.ok ? next.value : f;
  }, frame);
  // They come first: they make the corners, and what runs into a corner besides fits in between.
  const sides = Object.keys(quad.sides);
  const rank = (id: string): number => (sides.includes(id) ? sides.indexOf(id) : sides.length);
  return { ...named, members: [...named.members].sort((a, b) => rank(a.id) - rank(b.id)) };
}

/** Members of a drawing by their centre lines, and corners where one was drawn past the other. */
interface Centres {
  lines: (Line3 & { widthMm?: number })[];
  butts: { through: number; branch: number }[];
}

type Say = (n: number, one: string, more: string) => void;

/** Centre lines of what was drawn. @param say counts what was done to them. */
function centresOf(long: readonly Line3[], means: LineMeaning, say: Say): Result<Centres> {
  if (means === "outline") {
    const { lines, butts, left } = fromOutlines(long);
    say(
      left,
      "line belongs to no closed outline of a tube and was left out.",
      "lines belong to no closed outline of a tube and were left out.",
    );
    return lines.length > 0
      ? ok({ lines, butts })
      : fail("No closed outline of a tube among these lines: say that they are centre lines, or take another layer.");
  }
  const rows = joined(long);
  say(
    rows.joined,
    "line lies over another, or goes on from it, and became one with it.",
    "lines lie over others, or go on from them, and became one with them.",
  );
  const crossed = cutWhereCrossed(rows.lines);
  say(
    crossed.cut,
    "place where two lines cross: the shorter member is cut in two there.",
    "places where two lines cross: the shorter member is cut in two there.",
  );
  if (crossed.lines.length === 0) return fail("No line is long enough for a member: is it another unit?");
  return ok({ lines: crossed.lines, butts: [] });
}

/** Sections of the widths that were drawn, and which each line has. */
function sectionsOf(
  { lines }: Centres,
  given: DrawnSection,
  units: UnitPreference,
): { sections: DrawnSection[]; of: DrawnSection[] } {
  const sections: DrawnSection[] = [];
  const of = lines.map(({ widthMm }) => {
    const width = widthMm ?? sectionSize(shapeOf(given)).widthMm;
    const own = sections.find((s) => Math.abs(sectionSize(shapeOf(s)).widthMm - width) < SAME_WIDTH_MM);
    if (own || sections.length === MOST_SECTIONS) return own ?? (sections[0] as DrawnSection);
    const made = sectionOfWidth(given, width, `S${sections.length + 1}`, units);
    sections.push(made);
    return made;
  });
  return { sections, of };
}

/** Members on centre lines: on the bed, the lower left outside corner at nought; what was drawn in space keeps its heights. */
function membersOn(centres: Centres, given: DrawnSection, units: UnitPreference): DrawnFrame {
  const { lines, butts } = centres;
  const { sections, of } = sectionsOf(centres, given, units);
  const isFlat = extentOf(lines)[2] < SAME_MM;
  const sizeOf = (s: DrawnSection) => sectionSize(shapeOf(s));
  const low = [0, 1, 2].map((k) => Math.min(...lines.flatMap((l) => [entry(l.from, k), entry(l.to, k)])));
  const widest = Math.max(...sections.map((s) => sizeOf(s).widthMm));
  const inPlace = (p: Vec3, s: DrawnSection): Vec3 => [
    p[0] - entry(low, 0) + widest / 2,
    p[1] - entry(low, 1) + widest / 2,
    (isFlat ? 0 : p[2] - entry(low, 2)) + sizeOf(s).heightMm / 2,
  ];
  const members = lines.map((l, i) => {
    const s = of[i] as DrawnSection;
    return member(`M${i + 1}`, inPlace(l.from, s), inPlace(l.to, s), s.id, units);
  });
  const joints = butts.map(({ through, branch }): DrawnJoint => {
    const [a, b] = [`M${through + 1}`, `M${branch + 1}`];
    return { between: [a, b], kind: "butt", through: a, faces: [] };
  });
  return namedByCorners({ ...emptyFrame(sections[0] ?? given), sections, members, joints });
}

/** What is said of widths that were drawn, where they are not those of the tube that was chosen. */
function widthsWords({ sections }: DrawnFrame, given: DrawnSection, units: UnitPreference): string[] {
  const widthOf = (s: DrawnSection): number => sectionSize(shapeOf(s)).widthMm;
  const widths = sections.map(widthOf);
  return widths.some((w) => Math.abs(w - widthOf(given)) >= SAME_WIDTH_MM)
    ? [
        `Tubes are drawn ${widths.map((w) => plainLength(w, units)).join(" and ")} wide: that is taken, and the rest from the tube that was chosen.`,
      ]
    : [];
}

/**
 * The frame of a drawing: a member on each centre line, joints found where they meet.
 * @param section what members are made of. @returns the frame, or why there is none: too many lines, nothing long enough.
 */
export function fromLines(
  work: LineWork,
  wish: LinesWish,
  section: DrawnSection,
  units: UnitPreference,
): Result<FromLines> {
  const told: string[] = [];
  const all = inMm(work, wish.layers, wish.unit);
  if (all.length === 0) return fail("No lines on what is chosen: tick another layer.");
  if (all.length > MOST_WORKED)
    return fail(
      `${all.length} lines are chosen: more than a frame of ${MOST_MEMBERS} members needs. Take the layer of its centre lines alone.`,
    );
  const say: Say = (n, one, more) => {
    if (n > 0) told.push(n === 1 ? `1 ${one}` : `${n} ${more}`);
  };
  const long = all.filter((l) => lengthOf(l) >= SPECK_MM);
  const speck = plainLength(SPECK_MM, units);
  say(
    all.length - long.length,
    `line shorter than ${speck} was left out.`,
    `lines shorter than ${speck} were left out.`,
  );
  const centres = centresOf(long, wish.means, say);
  if (!centres.ok) return centres;
  const count = centres.value.lines.length;
  if (count > MOST_MEMBERS)
    return fail(
      `These would be ${count} members; a frame has ${MOST_MEMBERS} at most. Take the layer of its centre lines alone.`,
    );
  const frame = membersOn(centres.value, section, units);
  const { structure, clashes, placed } = resolveStructure(frame);
  return ok({
    frame,
    structure,
    clashes,
    near: nearMisses(placed, structure.joints),
    told: [...told, ...widthsWords(frame, section, units)],
  });
}
