import { add3, dot3, scale3, type Vec3 } from "../numeric";
import { stated, statedExactly, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnMember, DrawnPart, Obstacle, Point } from "./drawnSchema";
import { type Direction, FACE_LINES, type FaceLine } from "./frameWords";
import { byPair, keptJoints } from "./keptJoints";
import { type Axes, memberAxes, turnedAxes } from "./memberAxes";
import { thicknessOf } from "./parts";
import { DIRECTION, directionWord, place } from "./placing";
import { depthsOf } from "./reachToward";
import { resolveStructure } from "./resolveStructure";
import { isRound } from "./sectionOutline";
import type { Structure, StructureJoint, StructureMember } from "./structure";
import { TOLERANCES } from "./tolerances";
import { FROM_ABOVE } from "./viewAxes";

/** A way to turn a frame by quarters: where its x, y and z go, each by the signs of the new axes in rows. */
export type Turn = Axes;
type Index = 0 | 1 | 2;
const INDICES: readonly Index[] = [0, 1, 2];
const AXES = ["x", "y", "z"] as const;
const UP: Vec3 = [0, 0, 1];
const AS_IT_IS: Axes = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** How a person turns a frame that stands before him. */
export const TURNS = {
  "upside down": [
    [1, 0, 0],
    [0, -1, 0],
    [0, 0, -1],
  ],
  "onto its left side": [
    [0, 0, 1],
    [0, 1, 0],
    [-1, 0, 0],
  ],
  "onto its right side": [
    [0, 0, -1],
    [0, 1, 0],
    [1, 0, 0],
  ],
  "onto its front": [
    [1, 0, 0],
    [0, 0, 1],
    [0, -1, 0],
  ],
  "onto its back": [
    [1, 0, 0],
    [0, 0, -1],
    [0, 1, 0],
  ],
  "a quarter round": [
    [0, -1, 0],
    [1, 0, 0],
    [0, 0, 1],
  ],
} as const satisfies Record<string, Turn>;
export type TurnName = keyof typeof TURNS;
export const TURN_NAMES = Object.keys(TURNS) as TurnName[];

const applied = (turn: Axes, v: Vec3): Vec3 => [dot3(turn[0], v), dot3(turn[1], v), dot3(turn[2], v)];

/** Where a new axis comes from: which of the old ones, and whether it runs the same way. */
function comesFrom(turn: Axes, i: Index): { j: Index; sign: 1 | -1 } {
  const row = turn[i];
  const j = INDICES.reduce<Index>((best, k) => (Math.abs(row[k]) > Math.abs(row[best]) ? k : best), 0);
  return { j, sign: row[j] < 0 ? -1 : 1 };
}

/** A turn with the shift that brings the frame back to where it began, lowest point on lowest point. */
interface Move {
  turn: Turn;
  shift: Vec3;
  units: UnitPreference;
}

function moveOf(structure: Pick<Structure, "low" | "high">, turn: Turn, units: UnitPreference): Move {
  const { low, high } = structure;
  const shift = INDICES.map((i) => {
    const { j, sign } = comesFrom(turn, i);
    // Rounded: where in space a frame is drawn is free, and round places stay round.
    return stated(low[i] - (sign > 0 ? low[j] : -high[j]), units).mm;
  });
  return { turn, shift: shift as unknown as Vec3, units };
}

/** A place after a move; what does not change stays as it was typed. */
function movedPlace(p: Point, { turn, shift, units }: Move): Point {
  const along = (i: Index) => {
    const { j, sign } = comesFrom(turn, i);
    const was = p[AXES[j]];
    return sign > 0 && shift[i] === 0 ? was : statedExactly(sign * was.mm + shift[i], units);
  };
  return { x: along(0), y: along(1), z: along(2) };
}

/** Three sizes after a turn, each as it was typed. */
const turnedSize = (size: Point, turn: Axes): Point => ({
  x: size[AXES[comesFrom(turn, 0).j]],
  y: size[AXES[comesFrom(turn, 1).j]],
  z: size[AXES[comesFrom(turn, 2).j]],
});

/** After how many degrees about its axis a section looks as before. */
function alikeAfterDeg({ shape }: StructureMember): number {
  if (isRound(shape)) return 0;
  if (shape.shape === "angle" || shape.shape === "channel") return 360;
  return "widthMm" in shape && shape.widthMm === shape.heightMm ? 90 : 180;
}

/** A turn about a member's own axis, no more of it than can be seen. */
function seenTurn(deg: number, alikeAfter: number): number {
  if (alikeAfter === 0) return 0;
  const rest = deg - alikeAfter * Math.round(deg / alikeAfter);
  return +rest.toFixed(6) + 0;
}

/** What looks up looks down when the frame is upside down; tipped, it is said anew of how the frame lies then. */
const turnedLook = <W extends string>(word: W, turn: Turn): W =>
  turn[2][2] === -1 && (word === "up" || word === "down") ? ((word === "up" ? "down" : "up") as W) : word;

function turnedMember(m: DrawnMember, was: StructureMember | undefined, move: Move): DrawnMember {
  const [from, to] = [movedPlace(m.from, move), movedPlace(m.to, move)];
  const flush = m.flush && { ...m.flush, side: turnedWord(m.flush.side, move.turn) };
  const [seam, crown] = [turnedLook(m.seam, move.turn), turnedLook(m.crown, move.turn)];
  const moved: DrawnMember = { ...m, from, to, seam, crown, flush, mirror: turnedMirror(m.mirror, move) };
  if (!was) return moved;
  const plain = memberAxes(place(from), place(to), undefined, UP);
  const wide = applied(move.turn, was.axes[1]);
  const full = (Math.atan2(dot3(wide, plain[2]), dot3(wide, plain[1])) * 180) / Math.PI;
  const turnDeg = seenTurn(full, alikeAfterDeg(was));
  if (!m.offset) return { ...moved, turnDeg };
  const axes = turnedAxes(plain, turnDeg);
  const { across, up } = m.offset;
  const off = applied(move.turn, add3(scale3(was.axes[1], across.mm), scale3(was.axes[2], up.mm)));
  return {
    ...moved,
    turnDeg,
    offset: {
      across: statedExactly(dot3(off, axes[1]), move.units),
      up: statedExactly(dot3(off, axes[2]), move.units),
    },
  };
}

const turnedWord = (side: Direction, turn: Turn): Direction => directionWord(applied(turn, DIRECTION[side]));

/** What is kept as an image stays one, unless its mirror would lie level. */
function turnedMirror(mirror: DrawnMember["mirror"], { turn, shift, units }: Move): DrawnMember["mirror"] {
  if (!mirror) return null;
  const old = mirror.axis === "x" ? 0 : 1;
  const i = INDICES.find((k) => comesFrom(turn, k).j === old) as Index;
  if (i === 2) return null;
  const at = comesFrom(turn, i).sign * mirror.at.mm + shift[i];
  return { ...mirror, axis: i === 0 ? "x" : "y", at: at === mirror.at.mm ? mirror.at : statedExactly(at, units) };
}

/** @param was, @param is axes of the member that it lies along, before and after. */
function turnedPart(part: DrawnPart, was: Axes, is: Axes, move: Move): DrawnPart {
  // Its own three sizes, by what each of them was before.
  const own = is.map((row) => was.map((w) => Math.round(dot3(row, applied(move.turn, w))))) as unknown as Axes;
  const size = turnedSize(part.size, own);
  const flat = (s: Point): Index[] => INDICES.filter((i) => i !== thicknessOf([s.x.mm, s.y.mm, s.z.mm]));
  const [before, after] = [flat(part.size), flat(size)];
  const keeps = part.keeps ?? [-1, -1, -1];
  return {
    ...part,
    at: movedPlace(part.at, move),
    size,
    holes: part.holes.map((h) => {
      const along = (i: Index | undefined) => {
        const { j, sign } = comesFrom(own, i ?? 0);
        const v = j === before[0] ? h.x : h.y;
        return sign > 0 || v.mm === 0 ? v : statedExactly(-v.mm, move.units);
      };
      return { ...h, x: along(after[0]), y: along(after[1]) };
    }),
    ...(part.triangular
      ? { keeps: INDICES.map((i) => comesFrom(own, i).sign * keeps[comesFrom(own, i).j]) as DrawnPart["keeps"] }
      : {}),
  };
}

function turnedObstacle(o: Obstacle, move: Move): Obstacle {
  const size = turnedSize(o.size, move.turn);
  const corner = movedPlace(o.at, move);
  // Its lower left front corner is another one where an axis runs back.
  const low = (i: Index) =>
    comesFrom(move.turn, i).sign > 0
      ? corner[AXES[i]]
      : statedExactly(corner[AXES[i]].mm - size[AXES[i]].mm, move.units);
  return { ...o, size, at: { x: low(0), y: low(1), z: low(2) } };
}

/** Which line each face of a joint is after a turn: the one that looks where it looks then. */
function turnedLines(was: StructureJoint, is: StructureJoint, turn: Turn): ReadonlyMap<FaceLine, FaceLine> {
  return new Map(
    was.faces.map(({ line, toward }) => {
      const way = applied(turn, toward);
      const now = is.faces.reduce((best, f) => (dot3(f.toward, way) > dot3(best.toward, way) + 1e-9 ? f : best));
      return [line, now.line] as const;
    }),
  );
}

/** A frame that was turned, and which line every face of its joints is then. */
export interface Turned {
  frame: DrawnFrame;
  /** By the joint's name. */
  lines: ReadonlyMap<string, ReadonlyMap<FaceLine, FaceLine>>;
}

/**
 * A frame turned by quarters, with everything that is said of it: joints stay what they are, faces that are ground stay ground.
 * Its lowest, leftmost and foremost points are where they were. What it must clear below is no longer asked when that is not below.
 * @param units in which places are stated that were not typed.
 */
export function turnFrame(frame: DrawnFrame, turn: Turn, units: UnitPreference): Turned {
  const { structure: was, placed } = resolveStructure(frame);
  const move = moveOf(was, turn, units);
  const before = new Map(was.members.map((m) => [m.id, m]));
  const turned: DrawnFrame = {
    ...frame,
    members: frame.members.map((m) => turnedMember(m, before.get(m.id), move)),
    obstacles: frame.obstacles.map((o) => turnedObstacle(o, move)),
    floor: turn[2][2] === 1 ? frame.floor : null,
    largest: frame.largest && { ...frame.largest, size: turnedSize(frame.largest.size, turn) },
  };
  const joints = keptJoints(frame, was, turned);
  const { structure: is, placed: then } = resolveStructure({ ...turned, joints, parts: [] });
  const after = byPair(is.joints);
  const lines = new Map(
    was.joints.flatMap((j) => {
      const found = after.get([j.a, j.b].sort().join(" "));
      return found ? [[j.id, turnedLines(j, found, turn)] as const] : [];
    }),
  );
  const known = byPair(was.joints);
  const lineOf = (between: readonly [string, string], line: FaceLine): FaceLine => {
    const id = known.get([...between].sort().join(" "))?.id;
    return (id && lines.get(id)?.get(line)) || line;
  };
  const axesOf = (p: DrawnPart, all: typeof placed): Axes => (p.like && all.get(p.like)?.axes) || AS_IT_IS;
  return {
    lines,
    frame: {
      ...turned,
      joints: joints.map((j) => ({
        ...j,
        faces: j.faces
          .map((f) => ({ ...f, line: lineOf(j.between, f.line) }))
          .sort((a, b) => FACE_LINES.indexOf(a.line) - FACE_LINES.indexOf(b.line)),
      })),
      parts: frame.parts.map((p) => turnedPart(p, axesOf(p, placed), axesOf(p, then), move)),
    },
  };
}

/** How much tube lies on the bed as a frame is drawn, mm, and how high it stands. */
function lies({ members, low, high }: Structure): { lyingMm: number; highMm: number; isLong: boolean } {
  const lying = members.filter(
    (m) =>
      Math.abs(m.from[2] - m.to[2]) < TOLERANCES.onBedMm && depthsOf(m, FROM_ABOVE)[0] - low[2] < TOLERANCES.onBedMm,
  );
  return {
    lyingMm: lying.reduce((sum, m) => sum + m.longMm, 0),
    highMm: high[2] - low[2],
    isLong: high[0] - low[0] >= high[1] - low[1] - 1,
  };
}

/** What lays another side of a frame down, that first which changes least. */
const ONTO: readonly TurnName[] = [
  "upside down",
  "onto its front",
  "onto its back",
  "onto its left side",
  "onto its right side",
];

/** A frame laid down as flat as it goes, on the side on which most of its tube lies on the bed, the long way from left to right. */
export function laidFlat(frame: DrawnFrame, units: UnitPreference): DrawnFrame {
  const turned = ONTO.map((name) => turnFrame(frame, TURNS[name], units).frame);
  const ways = [frame, ...turned].map((f) => ({ f, ...lies(resolveStructure(f).structure) }));
  const best = ways.reduce((a, b) =>
    b.highMm < a.highMm - 1 || (b.highMm < a.highMm + 1 && b.lyingMm > a.lyingMm + 1) ? b : a,
  );
  return best.isLong ? best.f : turnFrame(best.f, TURNS["a quarter round"], units).frame;
}
