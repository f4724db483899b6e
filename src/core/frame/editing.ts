import { add3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { fail, ok, type Result, rangeWords, stated, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnJoint, DrawnMember, Point } from "./drawnSchema";
import { member, statedPoint } from "./drawnStart";
import { carriedParts } from "./fittedParts";
import type { EndName } from "./meeting";
import { followMirrors } from "./mirrorImage";
import { place, placeMembers } from "./placing";
import { resolveStructure } from "./resolveStructure";
import { tubeBeginsMm } from "./structure";

export type Axis = "x" | "y" | "z";
const AXES: readonly Axis[] = ["x", "y", "z"];
/** Ends nearer than this are one place, mm. */
const SAME_MM = 0.2;

const near = (a: Vec3, b: Vec3): boolean => norm3(sub3(a, b)) < SAME_MM;
const find = (frame: DrawnFrame, id: string): DrawnMember | undefined => frame.members.find((m) => m.id === id);

/** The first free name with a letter: M1, M2 … @param taken names given meanwhile. */
export function nextName(frame: DrawnFrame, letter: string, taken: ReadonlySet<string> = new Set()): string {
  const used = new Set([...frame.members.map((m) => m.id), ...taken]);
  for (let i = 1; ; i++) if (!used.has(`${letter}${i}`)) return `${letter}${i}`;
}

/** Keeps coordinates that did not change as they were typed. */
const movedPoint = (p: Point, by: Vec3, units: UnitPreference): Point => {
  const out = { ...p };
  AXES.forEach((a, i) => {
    const d = by[i] as number;
    if (d !== 0) out[a] = stated(p[a].mm + d, units);
  });
  return out;
};

const change = (frame: DrawnFrame, id: string, next: (m: DrawnMember) => DrawnMember): DrawnFrame => ({
  ...frame,
  members: frame.members.map((m) => (m.id === id ? next(m) : m)),
});

/** @returns the frame with one member changed, and its images with it. */
export const setMember = (
  frame: DrawnFrame,
  id: string,
  what: Partial<DrawnMember>,
  units: UnitPreference,
): DrawnFrame =>
  followMirrors(
    change(frame, id, (m) => ({ ...m, ...what })),
    units,
  );

/** Draws a member. @returns the frame and the new name. */
export function addMember(
  frame: DrawnFrame,
  from: Vec3,
  to: Vec3,
  section: string,
  units: UnitPreference,
): Result<{ frame: DrawnFrame; id: string }> {
  if (norm3(sub3(to, from)) < 1) return fail("Both ends are the same place: a member needs a length.");
  const id = nextName(frame, "M");
  return ok({ frame: { ...frame, members: [...frame.members, member(id, from, to, section, units)] }, id });
}

/** Members that may be moved by hand. */
export const movable = (frame: DrawnFrame, ids: readonly string[]): Set<string> =>
  new Set(ids.filter((id) => find(frame, id)?.locked === false));

/**
 * Moves members; ends of other members that stand on a moved end go with it, so that corners stay together.
 * @param along whether what meets a moved member's ends follows. Locked members and linked images stay.
 */
export function moveMembers(
  frame: DrawnFrame,
  ids: readonly string[],
  by: Vec3,
  units: UnitPreference,
  along = false,
): DrawnFrame {
  const moving = movable(frame, ids);
  const ends = frame.members.filter((m) => moving.has(m.id)).flatMap((m) => [place(m.from), place(m.to)]);
  const members = frame.members.map((m) => {
    if (moving.has(m.id)) return { ...m, from: movedPoint(m.from, by, units), to: movedPoint(m.to, by, units) };
    if (!along || m.locked) return m;
    const follow = (p: Point): Point => (ends.some((e) => near(e, place(p))) ? movedPoint(p, by, units) : p);
    return { ...m, from: follow(m.from), to: follow(m.to) };
  });
  return followMirrors({ ...frame, members }, units);
}

/** Moves every end that stands at a place to another one: a corner with all that meets there. */
export function moveCorner(frame: DrawnFrame, at: Vec3, to: Vec3, units: UnitPreference): DrawnFrame {
  const by = sub3(to, at);
  const members = frame.members.map((m) => {
    if (m.locked) return m;
    const follow = (p: Point): Point => (near(at, place(p)) ? movedPoint(p, by, units) : p);
    const next = { ...m, from: follow(m.from), to: follow(m.to) };
    return norm3(sub3(place(next.to), place(next.from))) < 1 ? m : next;
  });
  return followMirrors({ ...frame, members }, units);
}

/** Moves one end of one member. */
export const moveEnd = (frame: DrawnFrame, id: string, end: EndName, to: Vec3, units: UnitPreference): DrawnFrame =>
  followMirrors(
    change(frame, id, (m) => (m.locked ? m : { ...m, [end]: statedPoint(to, units) })),
    units,
  );

/** Makes a member as long as typed between its ends on the centre lines; `keep` stays where it is. */
export function setLength(
  frame: DrawnFrame,
  id: string,
  lengthMm: number,
  keep: EndName | "middle",
  units: UnitPreference,
): Result<DrawnFrame> {
  const m = find(frame, id);
  if (!m) return fail(`There is no member ${id}.`);
  if (m.locked) return fail(`${id} is locked. Unlock it first.`);
  if (!(lengthMm >= 1)) return fail("A length is more than zero.");
  const [a, b] = [place(m.from), place(m.to)];
  const u = unit3(sub3(b, a));
  const grow = lengthMm - norm3(sub3(b, a));
  const atFrom = keep === "from" ? 0 : keep === "to" ? -grow : -grow / 2;
  const atTo = keep === "from" ? grow : keep === "to" ? 0 : grow / 2;
  return ok(
    followMirrors(
      change(frame, id, (x) => ({
        ...x,
        from: movedPoint(x.from, scale3(u, atFrom), units),
        to: movedPoint(x.to, scale3(u, atTo), units),
      })),
      units,
    ),
  );
}

/** Parts a member at a distance from its first end; the new piece takes a new name. */
export function splitMember(
  frame: DrawnFrame,
  id: string,
  atMm: number,
  units: UnitPreference,
): Result<{ frame: DrawnFrame; id: string }> {
  const m = find(frame, id);
  if (!m) return fail(`There is no member ${id}.`);
  const [a, b] = [place(m.from), place(m.to)];
  const length = norm3(sub3(b, a));
  if (!(atMm > 5 && atMm < length - 5))
    return fail(
      `Part ${id} between ${rangeWords(5, Math.floor(length - 5), units).replace(" to ", " and ")} from its first end.`,
    );
  const middle = statedPoint(add3(a, scale3(unit3(sub3(b, a)), atMm)), units);
  const name = nextName(frame, id[0] as string);
  const members = frame.members.flatMap((x) =>
    x.id === id
      ? [
          { ...x, to: middle, mirror: null },
          { ...x, id: name, from: middle, mirror: null },
        ]
      : [x.mirror?.of === id ? { ...x, mirror: null } : x],
  );
  // The new piece belongs to what the whole belonged to; what was said of a joint holds for whichever piece is there.
  const withPiece = (list: string[]): string[] => list.flatMap((x) => (x === id ? [x, name] : [x]));
  const groups = frame.groups.map((g) => ({ ...g, members: withPiece(g.members) }));
  const pairs = frame.pairs.map((p) => ({ left: withPiece(p.left), right: withPiece(p.right) }));
  const said = frame.joints.flatMap((j): DrawnJoint[] => {
    const to = (x: string): string => (x === id ? name : x);
    return j.between.includes(id)
      ? [{ ...j, between: [to(j.between[0]), to(j.between[1])], through: j.through && to(j.through) }]
      : [];
  });
  return ok({ frame: { ...frame, members, groups, pairs, joints: [...frame.joints, ...said] }, id: name });
}

/**
 * Takes members out, with everything that was said of them. What ended on them keeps its length over all: an end that
 * stands free then is drawn on to where its long point was.
 */
export function deleteMembers(frame: DrawnFrame, ids: readonly string[], units: UnitPreference): DrawnFrame {
  const left = withoutMembers(frame, ids);
  const before = new Map(resolveStructure(frame).structure.members.map((m) => [m.id, m]));
  const after = new Map(resolveStructure(left).structure.members.map((m) => [m.id, m]));
  const members = left.members.map((m): DrawnMember => {
    const [was, is] = [before.get(m.id), after.get(m.id)];
    if (!was || !is) return m;
    const on = (end: EndName, byMm: number): Point => {
      const freed = was.ends[end].joints.length > 0 && is.ends[end].joints.length === 0;
      return freed && byMm > SAME_MM
        ? movedPoint(m[end], scale3(is.axes[0], end === "to" ? byMm : -byMm), units)
        : m[end];
    };
    return {
      ...m,
      from: on("from", tubeBeginsMm(is) - tubeBeginsMm(was)),
      to: on("to", Math.max(...was.finishes) - Math.max(...is.finishes)),
    };
  });
  return { ...left, members };
}

function withoutMembers(frame: DrawnFrame, ids: readonly string[]): DrawnFrame {
  const gone = new Set(ids);
  const keep = (list: readonly string[]) => list.filter((m) => !gone.has(m));
  return {
    ...frame,
    members: frame.members
      .filter((m) => !gone.has(m.id))
      .map((m) => ({
        ...m,
        flush: m.flush && gone.has(m.flush.to) ? null : m.flush,
        mirror: m.mirror && gone.has(m.mirror.of) ? null : m.mirror,
      })),
    joints: frame.joints.filter((j) => !j.between.some((m) => gone.has(m))),
    parts: frame.parts.flatMap((p) => {
      // What was fitted to a member goes with it; what was put there by hand stays.
      if (p.like && gone.has(p.like)) return [];
      return [p.on && gone.has(p.on) ? { ...p, on: null } : p];
    }),
    pairs: frame.pairs
      .map((p) => ({ left: keep(p.left), right: keep(p.right) }))
      .filter((p) => p.left.length > 0 && p.right.length > 0),
    groups: frame.groups.map((g) => ({ ...g, members: keep(g.members) })),
  };
}

/** @returns the frame with several members made of another section. */
export const setSection = (
  frame: DrawnFrame,
  ids: readonly string[],
  section: string,
  units: UnitPreference,
): DrawnFrame =>
  followMirrors({ ...frame, members: frame.members.map((m) => (ids.includes(m.id) ? { ...m, section } : m)) }, units);

/** How many copies a step apart fit into a distance; none where the step is nothing. */
export const copiesWithin = (by: Vec3, overMm: number): number =>
  norm3(by) > 0 ? Math.max(0, Math.floor(overMm / norm3(by) + 1e-9)) : 0;

/**
 * Moves members along another so that the row of them stands in its middle: as much of it left at one end as at the other.
 * @returns the frame, or why not.
 */
export function centreOn(
  frame: DrawnFrame,
  ids: readonly string[],
  rail: string,
  units: UnitPreference,
): Result<DrawnFrame> {
  const on = resolveStructure(frame).structure.members.find((m) => m.id === rail);
  const row = frame.members.filter((m) => ids.includes(m.id) && m.id !== rail);
  if (!on || row.length === 0) return fail("Pick what shall be centred, and the member that it stands on.");
  const along = (p: Vec3): number => dot3(sub3(p, on.from), on.axes[0]);
  const places = row.map((m) => (along(place(m.from)) + along(place(m.to))) / 2);
  const middle = (Math.min(...places) + Math.max(...places)) / 2;
  const wanted = (tubeBeginsMm(on) + Math.max(...on.finishes)) / 2;
  return ok(
    moveMembers(
      frame,
      row.map((m) => m.id),
      scale3(on.axes[0], wanted - middle),
      units,
    ),
  );
}

export interface Copies {
  frame: DrawnFrame;
  ids: string[];
}

/** What was said of joints among members, for their copies. */
function copiedJoints(frame: DrawnFrame, names: ReadonlyMap<string, string>): DrawnJoint[] {
  return frame.joints.flatMap((j) => {
    const [a, b] = j.between.map((m) => names.get(m));
    return a && b
      ? [{ ...j, between: [a, b] as [string, string], through: j.through && (names.get(j.through) ?? null) }]
      : [];
  });
}

export function withCopies(
  frame: DrawnFrame,
  ids: readonly string[],
  make: (m: DrawnMember, id: string) => DrawnMember,
  put: (p: Point) => Point,
  turned: (v: Vec3) => Vec3 = (v) => v,
): Copies {
  const names = new Map<string, string>();
  for (const id of ids) names.set(id, nextName(frame, id[0] as string, new Set(names.values())));
  const copies = frame.members
    .filter((m) => names.has(m.id))
    .map((m) => {
      const image = make(m, names.get(m.id) as string);
      return { ...image, flush: image.flush && { ...image.flush, to: names.get(image.flush.to) ?? image.flush.to } };
    });
  const copied: DrawnFrame = {
    ...frame,
    members: [...frame.members, ...copies],
    joints: [...frame.joints, ...copiedJoints(frame, names)],
  };
  // What sits on them comes along.
  const placed = frame.parts.some((p) => p.on && names.has(p.on)) ? placeMembers(copied) : null;
  const parts = placed ? carriedParts(frame, names, put, turned, (id) => placed.get(id)?.axes) : [];
  return { frame: { ...copied, parts: [...frame.parts, ...parts] }, ids: [...names.values()] };
}

/** Copies members, each copy moved on by `by` from the last. */
export function copyMembers(
  frame: DrawnFrame,
  ids: readonly string[],
  by: Vec3,
  times: number,
  units: UnitPreference,
): Copies {
  let out: Copies = { frame, ids: [] };
  for (let i = 1; i <= times; i++) {
    const shift = scale3(by, i);
    const on = (p: Point): Point => movedPoint(p, shift, units);
    const next = withCopies(
      out.frame,
      ids,
      (m, id) => ({ ...m, id, from: on(m.from), to: on(m.to), mirror: null, locked: false }),
      on,
    );
    out = { frame: next.frame, ids: [...out.ids, ...next.ids] };
  }
  return out;
}

/** Sets members between the first and the last of them at equal gaps along an axis. */
export function spaceEqually(
  frame: DrawnFrame,
  ids: readonly string[],
  axis: Axis,
  units: UnitPreference,
): Result<DrawnFrame> {
  const k = AXES.indexOf(axis);
  const middle = (m: DrawnMember): number => ((place(m.from)[k] as number) + (place(m.to)[k] as number)) / 2;
  const row = frame.members.filter((m) => ids.includes(m.id)).sort((a, b) => middle(a) - middle(b));
  const [first, last] = [row[0], row.at(-1)];
  if (row.length < 3 || !first || !last)
    return fail("Pick three members or more: the outer two stay, the others are spaced between them.");
  const step = (middle(last) - middle(first)) / (row.length - 1);
  if (step < 1) return fail(`They stand in one place along ${axis}: choose another direction.`);
  let out = frame;
  row.slice(1, -1).forEach((m, i) => {
    const by: [number, number, number] = [0, 0, 0];
    by[k] = middle(first) + (i + 1) * step - middle(m);
    out = moveMembers(out, [m.id], by, units);
  });
  return ok(out);
}

/**
 * Lays what a person says of a joint over what was found. Nothing said any more: the entry goes.
 * @param what of its faces those that are said to be otherwise than found.
 */
export function setJoint(
  frame: DrawnFrame,
  a: string,
  b: string,
  what: Partial<Omit<DrawnJoint, "between">>,
): DrawnFrame {
  const same = (j: DrawnJoint): boolean => j.between.includes(a) && j.between.includes(b);
  const known = frame.joints.find(same) ?? {
    between: [a, b] as [string, string],
    kind: null,
    through: null,
    faces: [],
  };
  const next = { ...known, ...what };
  const plain = next.kind === null && !next.stitches && next.through === null && next.faces.length === 0;
  const others = frame.joints.filter((j) => !same(j));
  return { ...frame, joints: plain ? others : [...others, next] };
}

/** Gives a member another name everywhere. */
export function renameMember(frame: DrawnFrame, id: string, name: string): Result<DrawnFrame> {
  if (!/^[A-Z][A-Z0-9]{0,5}$/.test(name)) return fail("A name has one to six capitals or digits, a letter first.");
  if (name !== id && find(frame, name)) return fail(`There is a ${name} already.`);
  const to = (m: string): string => (m === id ? name : m);
  return ok({
    ...frame,
    members: frame.members.map((m) => ({
      ...m,
      id: to(m.id),
      flush: m.flush && { ...m.flush, to: to(m.flush.to) },
      mirror: m.mirror && { ...m.mirror, of: to(m.mirror.of) },
    })),
    joints: frame.joints.map((j) => ({
      ...j,
      between: [to(j.between[0]), to(j.between[1])],
      through: j.through && to(j.through),
    })),
    parts: frame.parts.map((p) => ({ ...p, on: p.on && to(p.on), ...(p.like ? { like: to(p.like) } : {}) })),
    pairs: frame.pairs.map((p) => ({ left: p.left.map(to), right: p.right.map(to) })),
    groups: frame.groups.map((g) => ({ ...g, members: g.members.map(to) })),
  });
}
