import { CORNERS } from "../geometry";
import { cross3, degrees, dot3, Groups, squareTo, sub3, unit3 } from "../numeric";
import { type Problem, plainLength, rangeWords, type UnitPreference } from "../units";
import { clearances } from "./clearance";
import type { DrawnFrame, DrawnSection } from "./drawnSchema";
import { sharedFeet } from "./feet";
import type { Clash } from "./findJoints";
import { handedness } from "./handed";
import { intoMember, type Placed, reach } from "./meeting";
import { JOINT_REACH_MM, nearMisses } from "./nearMisses";
import { place, shapeOf } from "./placing";
import { isRound } from "./sectionOutline";
import { fits } from "./sizeLimit";
import type { PieceAlong, Structure, StructureJoint } from "./structure";

const error = (path: string, message: string): Problem => ({ path, message, severity: "error" });
const warning = (path: string, message: string): Problem => ({ path, message, severity: "warning" });

/** What rests of the bed are called. */
const REST_NAME = /^R[1-9]\d?$/;
/** Largest coordinate taken: beyond it is a typing slip, mm. */
const FAR_MM = 30_000;
const TUBE_MM = { min: 5, max: 400 } as const;
/** Sizes of a bead on tube; beyond them it is a slip. */
const BEAD_MM = { min: 1, max: 25 } as const;
/** A shorter piece of seam is a tack. */
const PIECE_MM = 10;
/** Angles between which a mitre can be cut on a saw. */
const MITRE_DEG = { min: 20, max: 179.5 } as const;

function sectionProblems(s: DrawnSection, units: UnitPreference): Problem[] {
  const at = `frame.drawn.sections.${s.id}`;
  const found: Problem[] = [];
  const size = (field: "width" | "height", label: string) => {
    const v = s[field].mm;
    if (!(v >= TUBE_MM.min && v <= TUBE_MM.max) && !(s.shape === "flat" && v >= 2 && v <= TUBE_MM.max))
      found.push(
        error(
          `${at}.${field}`,
          `${s.id}: ${label} of ${plainLength(v, units)} is outside ${rangeWords(TUBE_MM.min, TUBE_MM.max, units)}. Check the unit.`,
        ),
      );
  };
  const round = isRound(shapeOf(s));
  size("width", round ? "a diameter" : "a width");
  if (!round) size("height", "a height");
  if (s.shape !== "bar" && s.shape !== "flat") {
    const half = (round ? s.width.mm : Math.min(s.width.mm, s.height.mm)) / 2;
    if (!(s.wall.mm >= 0.5))
      found.push(error(`${at}.wall`, `${s.id}: a wall under ${plainLength(0.5, units)} is foil. Check the unit.`));
    else if (s.wall.mm >= half)
      found.push(
        error(
          `${at}.wall`,
          `${s.id}: a wall of ${plainLength(s.wall.mm, units)} fills the section: it must be under ${plainLength(half, units)}.`,
        ),
      );
  }
  return found;
}

function memberProblems(frame: DrawnFrame): Problem[] {
  const found: Problem[] = [];
  if (frame.members.length === 0)
    found.push(error("frame.drawn.members", "The frame has no member yet. Start from a shape, or draw one."));
  const seen = new Set<string>();
  for (const m of frame.members) {
    const at = `frame.drawn.members.${m.id}`;
    if (seen.has(m.id)) found.push(error(at, `Two members are called ${m.id}. Give one another name.`));
    seen.add(m.id);
    if (REST_NAME.test(m.id))
      found.push(
        warning(
          at,
          `A rest on the bed is called ${m.id}, too. Give the member another name, so that no reading is mistaken.`,
        ),
      );
    if (!frame.sections.some((s) => s.id === m.section))
      found.push(error(at, `${m.id} is made of ${m.section}, which is not among the sections.`));
    const d = sub3(place(m.to), place(m.from));
    if (Math.hypot(...d) < 1) found.push(error(at, `${m.id} has no length: both ends are the same place.`));
    for (const end of ["from", "to"] as const)
      for (const axis of ["x", "y", "z"] as const)
        if (Math.abs(m[end][axis].mm) > FAR_MM)
          found.push(
            error(`${at}.${end}.${axis}`, `${m.id}: ${axis} is too far away to be of a frame. Check the unit.`),
          );
    if (m.flush && !frame.members.some((x) => x.id === m.flush?.to))
      found.push(error(at, `${m.id} lies flush with ${m.flush.to}, which is gone. Choose another.`));
    if (m.mirror && !frame.members.some((x) => x.id === m.mirror?.of))
      found.push(error(at, `${m.id} mirrors ${m.mirror.of}, which is gone. Take the link off.`));
  }
  return found;
}

/** A branch that leans more than this has a side in which no torch reaches the root, degrees. */
const HEEL_DEG = 30;

/** The side of a branch that leans so far that its seam there reaches no root, with the angle in degrees; null where none does. */
function sharpHeel(j: StructureJoint, placed: ReadonlyMap<string, Placed>): { words: string; deg: number } | null {
  const [a, b] = [placed.get(j.a), placed.get(j.b)];
  if (!a || !b || !j.endB || j.kind === "mitre" || j.kind === "lap") return null;
  const into = intoMember(b, j.endB);
  const deg = degrees(Math.acos(Math.min(1, Math.abs(dot3(into, a.axes[0])))));
  const heel = deg < HEEL_DEG ? j.faces.find((f) => f.bead && dot3(f.toward, into) > Math.SQRT1_2) : undefined;
  return heel ? { words: heel.words, deg } : null;
}

/** How far a branch stands out beside the face that it lands on, mm. */
function overhang(j: StructureJoint, placed: ReadonlyMap<string, Placed>): number {
  const [a, b] = [placed.get(j.a), placed.get(j.b)];
  if (!a || !b || !j.endB || j.kind === "mitre" || j.kind === "lap") return 0;
  const into = j.endB === "from" ? b.axes[0] : ([-b.axes[0][0], -b.axes[0][1], -b.axes[0][2]] as const);
  const across = squareTo(into, a.axes[0]);
  if (Math.hypot(...across) < 1e-6) return 0;
  const e2 = cross3(a.axes[0], unit3(across));
  const off = Math.abs(dot3(e2, j.atB) - dot3(e2, j.at));
  return reach(b, e2) + off - reach(a, e2);
}

/** What is wrong with the pieces of seam along two members; told at the first of them. */
function piecesAlong(
  { id, a, b }: StructureJoint,
  { seamMm, overlapMm, pieces, nth }: PieceAlong,
  units: UnitPreference,
): Problem[] {
  if (nth > 1) return [];
  const at = `frame.drawn.joints.${id}`;
  if (!Number.isInteger(pieces)) return [error(at, `${a} and ${b}: pieces of seam are a whole number.`)];
  if (!(seamMm >= PIECE_MM))
    return [
      error(at, `${a} and ${b}: a piece of seam under ${plainLength(PIECE_MM, units)} is a tack. Check the unit.`),
    ];
  return pieces * seamMm > overlapMm + 1e-6
    ? [
        error(
          at,
          `${a} and ${b} lie along each other for ${plainLength(overlapMm, units)}: ${pieces} of ${plainLength(seamMm, units)} have no room there. Take fewer, or shorter ones.`,
        ),
      ]
    : [];
}

function jointProblems(structure: Structure, placed: ReadonlyMap<string, Placed>, units: UnitPreference): Problem[] {
  const found: Problem[] = [];
  for (const j of structure.joints) {
    const at = `frame.drawn.joints.${j.id}`;
    if (j.kind === "mitre" && (j.angleDeg < MITRE_DEG.min || j.angleDeg > MITRE_DEG.max))
      found.push(
        error(
          at,
          `${j.id}: no mitre can be cut at ${j.angleDeg.toFixed(0)}° between ${j.a} and ${j.b}. Make it a butt, or open the angle to ${MITRE_DEG.min}° or more.`,
        ),
      );
    const heel = sharpHeel(j, placed);
    if (heel)
      found.push(
        warning(
          at,
          `${j.b} meets ${j.a} at ${heel.deg.toFixed(0)}°: on its sharp side (${heel.words}) a torch hardly reaches the root. Bevel it there, or count on the other sides alone; where it carries, a procedure of its own is asked for (AWS D1.1, from memory).`,
        ),
      );
    const over = overhang(j, placed);
    const through = placed.get(j.a);
    if (over > 0.5 && through?.round)
      found.push(
        error(
          at,
          `${j.b} is wider than ${j.a}, which is round and which it lands on, by ${plainLength(over, units)} on a side: its cope would not close. Take a smaller branch, or move it to the middle.`,
        ),
      );
    else if (through && over > 0.15 * reach(through, through.axes[1]) + 0.5)
      found.push(
        warning(
          at,
          `${j.b} stands out beside ${j.a} by ${plainLength(over, units)}: its edge has nothing to be welded to there. Take a narrower branch, lay it flush, or turn it.`,
        ),
      );
    if (j.along) found.push(...piecesAlong(j, j.along, units));
    for (const f of j.faces)
      if (f.legMm !== null && !(f.legMm >= BEAD_MM.min && f.legMm <= BEAD_MM.max))
        found.push(
          error(
            at,
            `${j.id}, ${f.words}: a bead of ${plainLength(f.legMm, units)} is outside ${rangeWords(BEAD_MM.min, BEAD_MM.max, units)}. Check the unit, or leave it empty for one as the wall.`,
          ),
        );
    if (j.faces.every((f) => !f.bead))
      found.push(
        error(at, `${j.id} has no bead on any face. Give it one, or say that ${j.a} and ${j.b} are not joined.`),
      );
  }
  for (const m of structure.members)
    if (m.shortMm <= 0)
      found.push(
        error(
          `frame.drawn.members.${m.id}`,
          `${m.id} is cut away at one edge: it is ${plainLength(m.centreMm, units)} long and its ends need ${plainLength(m.centreMm - m.shortMm, units)}. Make it longer or its cuts squarer.`,
        ),
      );
  return found;
}

/** Ends that stand a little short of another member, and what would join them. */
const missed = (placed: ReadonlyMap<string, Placed>, structure: Structure, units: UnitPreference): Problem[] =>
  nearMisses(placed, structure.joints).map(({ member, end, to, gapMm }) =>
    warning(
      `frame.drawn.members.${member}.${end}`,
      `${member} ends ${plainLength(gapMm, units)} short of ${to}: joints are found up to ${plainLength(JOINT_REACH_MM, units)}. Bring it to ${to}, or leave it free.`,
    ),
  );

function loose(structure: Structure): Problem[] {
  const groups = new Groups(structure.members.map((m) => m.id));
  for (const j of structure.joints) groups.join(j.a, j.b);
  const first = structure.members[0];
  if (!first) return [];
  return structure.members
    .filter((m) => groups.of(m.id) !== groups.of(first.id))
    .map((m) =>
      warning(
        `frame.drawn.members.${m.id}`,
        `${m.id} touches nothing that is joined to ${first.id}. Move it up to a face, or make it a job of its own.`,
      ),
    );
}

const placeWords = (at: readonly number[], units: UnitPreference): string =>
  `x ${at.map((v) => plainLength(Math.round(v), units)).join(", ")}`.replace(/, ([^,]*), ([^,]*)$/, ", y $1, z $2");

/** Members that land on a third in each other's place. */
const inOnePlace = (structure: Structure, units: UnitPreference): Problem[] =>
  sharedFeet(structure).map(({ on, a, b, sharedMm }) =>
    warning(
      `frame.drawn.members.${b}`,
      `${a} and ${b} land on ${on} in each other's place, ${plainLength(sharedMm, units)} of it. Move one along it, or let one end at the other.`,
    ),
  );

/** Members that are called like a corner: a step that names one is read two ways. */
const likeCorners = ({ members, quad }: Structure): Problem[] =>
  members
    .filter((m) => quad !== null && CORNERS.some((corner) => corner === m.id))
    .map((m) =>
      warning(
        `frame.drawn.members.${m.id}`,
        `A corner of the frame is called ${m.id}, too. Give the member another name, so that no step is mistaken.`,
      ),
    );

/**
 * What is wrong or doubtful with a drawn frame, each at its place (`frame.drawn.members.M1`, `frame.drawn.joints.A`), with what would put
 * it right. @param resolved of the same frame.
 */
export function structureProblems(
  frame: DrawnFrame,
  resolved: { structure: Structure; clashes: readonly Clash[]; placed: ReadonlyMap<string, Placed> },
  units: UnitPreference = "mm",
): Problem[] {
  const found = [...frame.sections.flatMap((s) => sectionProblems(s, units)), ...memberProblems(frame)];
  if (!(frame.gap.mm >= 0 && frame.gap.mm <= 10))
    found.push(error("frame.drawn.gap", `A root gap is ${rangeWords(0, 10, units)}.`));
  // What stands on an error is not looked at; a warning hides nothing.
  if (found.some((p) => p.severity === "error")) return found;
  const { structure, clashes, placed } = resolved;
  for (const c of clashes)
    found.push(
      error(
        `frame.drawn.members.${c.b}`,
        c.kind === "cross"
          ? `${c.a} and ${c.b} run through each other at ${placeWords(c.at, units)} without a joint. Split one of them there, end one at the other, or lay one on top.`
          : `${c.a} and ${c.b} lie in each other at ${placeWords(c.at, units)}. Move one aside until their faces touch.`,
      ),
    );
  found.push(...jointProblems(structure, placed, units), ...missed(placed, structure, units), ...loose(structure));
  found.push(...likeCorners(structure), ...inOnePlace(structure, units));
  for (const c of clearances(frame, structure, units))
    if (!c.ok) found.push(warning(c.of === "floor" ? "frame.drawn.floor" : `frame.drawn.obstacles.${c.of}`, c.why));
  frame.pairs.forEach((p, i) => {
    const hand = handedness(structure, p.left, p.right);
    if (hand.verdict !== "mirrored") found.push(warning(`frame.drawn.pairs.${i}`, hand.why));
  });
  for (const part of frame.parts) {
    const size = place(part.size);
    if (size.some((v) => !(v > 0)))
      found.push(error(`frame.drawn.parts.${part.id}`, `${part.id}: all three sizes must be more than zero.`));
    const sorted = [...size].sort((a, b) => b - a) as [number, number, number];
    for (const h of part.holes)
      if (
        !(h.diameter.mm > 0) ||
        Math.abs(h.x.mm) + h.diameter.mm / 2 > sorted[0] / 2 ||
        Math.abs(h.y.mm) + h.diameter.mm / 2 > sorted[1] / 2
      )
        found.push(
          error(
            `frame.drawn.parts.${part.id}`,
            `${part.id}: a hole of ${plainLength(h.diameter.mm, units)} at ${plainLength(h.x.mm, units)}, ${plainLength(h.y.mm, units)} from the middle does not lie inside the part.`,
          ),
        );
    if (part.on && !frame.members.some((m) => m.id === part.on))
      found.push(
        error(`frame.drawn.parts.${part.id}`, `${part.id} sits on ${part.on}, which is gone. Choose another member.`),
      );
  }
  for (const o of frame.obstacles)
    if (place(o.size).some((v) => !(v > 0)))
      found.push(error(`frame.drawn.obstacles.${o.id}`, `${o.id}: all three sizes must be more than zero.`));
  if (frame.largest) {
    const room = place(frame.largest.size);
    const size = structure.high.map((v, i) => v - (structure.low[i] as number)) as unknown as [number, number, number];
    if (room.some((v) => !(v > 0)))
      found.push(error("frame.drawn.largest", "The room must have three sizes of more than zero."));
    else if (!fits(size, room))
      found.push(
        warning(
          "frame.drawn.largest",
          `${size.map((v) => plainLength(v, units)).join(" × ")} does not go into ${frame.largest.what || "the room given"} of ${room.map((v) => plainLength(v, units)).join(" × ")}. See where to part it.`,
        ),
      );
  }
  return found;
}
