import {
  closedVolumes,
  type Quadrilateral,
  type Structure,
  type StructureFace,
  type StructureJoint,
  seenAt,
  tubeBeginsMm,
} from "../frame";
import { CORNERS, type Corner, ends, SIDES, type Side } from "../geometry";
import { dot, norm3, sub, sub3, unit, type Vec2 } from "../numeric";
import { placesOf } from "../square";
import { physical, plainLength, type UnitPreference } from "../units";
import type { Bar } from "./held";
import { isOfWhole, type PartOfStep, partsOfSteps, wholeFrame } from "./partOfStep";
import type { Reason } from "./reason";
import type { Step } from "./step";
import type { StepId } from "./stepSchema";

/** A step as it is said: what to do, why it stands there, and what to watch; null where nothing is. */
export interface StepWords {
  say: string;
  why: string;
  caution: string | null;
}

/** A frame heavier than this wants more than one pair of hands, kg (common practice, no source). */
const ONE_PERSON_KG = 25;
/** A face looks toward a side when its way is this near to square to it, cosine. */
const TOWARD = 0.9;
const UPRIGHT = 0.7;

/** The side of a quadrilateral that a direction looks toward. */
function sideToward(quad: Quadrilateral, way: Vec2): Side | null {
  const centre = { x: 0, y: 0 };
  for (const c of CORNERS) {
    centre.x += quad.corners[c].x / 4;
    centre.y += quad.corners[c].y / 4;
  }
  const found = SIDES.find((s) => {
    const [p, q] = ends(s).map((c) => quad.corners[c]) as [Vec2, Vec2];
    const along = unit(sub(q, p));
    const normal = { x: -along.y, y: along.x };
    const out = dot(normal, sub(p, centre)) < 0 ? { x: -normal.x, y: -normal.y } : normal;
    return dot(out, way) > TOWARD;
  });
  return found ?? null;
}

/** The corner that a joint is all of: where a post runs through, two sides have each their own. */
const cornerOf = (quad: Quadrilateral | null, { id }: StructureJoint): Corner | null =>
  (quad && CORNERS.find((c) => quad.joints[c] === id && !quad.posts[c])) ?? null;

/** A joint by the name of its corner, or of its two members; of two that lie along each other, by its piece of seam. */
export function jointWords({ quad }: Pick<Structure, "quad">, joint: StructureJoint): string {
  const corner = cornerOf(quad, joint);
  const { id, a, b, kind, along } = joint;
  const piece = along && along.pieces > 1 ? `, piece ${along.nth} of ${along.pieces}` : "";
  return corner ?? (kind === "mitre" ? id : `${b} on ${a}${piece}`);
}

/** A face of a joint in words that need no key: "A, inside corner", "M1 on AB, side toward DA". */
export const faceWords = (structure: Pick<Structure, "quad">, joint: StructureJoint, face: StructureFace): string =>
  `${jointWords(structure, joint)}, ${faceAlone(structure, joint, face)}`;

/** The same without its joint: "inside corner", "side toward DA". */
export function faceAlone({ quad }: Pick<Structure, "quad">, joint: StructureJoint, face: StructureFace): string {
  if (Math.abs(face.toward[2]) > UPRIGHT) return `${face.toward[2] > 0 ? "top" : "bottom"} face`;
  const corner = cornerOf(quad, joint);
  if (quad && corner) {
    const [x, y] = [face.toward[quad.view.right], face.toward[quad.view.up]];
    const across = quad.corners[CORNERS[(CORNERS.indexOf(corner) + 2) % 4] as "A"];
    const inward = sub(across, quad.corners[corner]);
    return `${dot({ x, y }, inward) > 0 ? "inside" : "outside"} corner`;
  }
  if (joint.kind === "mitre" && (face.line === "inside" || face.line === "outside")) return `${face.line} corner`;
  const side = quad && sideToward(quad, seenAt(face.toward, quad.view));
  if (!quad || !side) return face.words;
  // Beyond a side of the ring, on that side itself or on a post at its end, there is nothing to look toward.
  const member = quad.sides[side];
  const isOuter = member === joint.a || member === joint.b || ends(side).some((c) => quad.posts[c] === joint.a);
  return isOuter ? "outer side" : `side toward ${member}`;
}

/** A tack or bead in words: "tack at B, top face"; by its names alone where the frame no longer has it. */
export function weldWords(
  structure: Pick<Structure, "quad" | "joints">,
  { do: what, joint, line }: Pick<Extract<StepId, { joint: string }>, "do" | "joint" | "line">,
): string {
  const j = structure.joints.find((x) => x.id === joint);
  const f = j?.faces.find((x) => x.line === line);
  return `${what} at ${j && f ? faceWords(structure, j, f) : `${joint}, ${line}`}`;
}

/** What a joint is called where a reason speaks of it. */
type Naming = (joint: string) => string;

const REASONS: { [K in Reason["kind"]]: (r: Extract<Reason, { kind: K }>, name: Naming) => string } = {
  "bed holds flat": ({ stands, rolls }) =>
    stands
      ? "The bed gives the flat; what stands up wants a square and a clamp of its own until it is tacked."
      : rolls
        ? "The bed gives the flat; a round tube rolls, and a V-block keeps it from that where it was measured."
        : "The bed gives the flat; a clamp opposite each stop keeps the corner where it was measured.",
  "error costs a nudge": () => "An error found now costs a nudge. After the beads it costs a cut.",
  "joint still turns": () => "One tack lets the joint hinge, so that the frame can still be squared.",
  "one before the next": () => "One tack at each joint before any gets its second.",
  "stiff already": () =>
    "With one tack at each joint nothing turns any more in this frame: what is off is put right by cutting one, sooner than two.",
  "pulls alike": ({ joint }, name) =>
    `Across from ${name(joint)}: it pulls the frame out of square the same way. The other two pull it back.`,
  "pulls against": ({ joints }, name) =>
    `It pulls the frame out of square the other way, against ${joints.map(name).join(" and ")}.`,
  "ends before middle": () =>
    "The ends of what lies along it first, then inward: it lies straight before its middle is held.",
  "close while it turns": () =>
    "Each tack pulled toward its side. On one tack a joint still turns; after the next it does not.",
  locks: () => "Locks the joint against its first tack: the two pulls oppose.",
  "holds against lifting": () => "Holds the corner against lifting when the first face is welded.",
  "far end is free": () => "Its far end is free and leans the way this tack pulls: look along it before the next one.",
  "corners are locked": () => "The corners are locked, so it sets no shape of its own.",
  "opposes the other side": () => "Across from the other side of the same joint: the two pull against each other.",
  "one tack turns": () => "The next side of the same joint that can be reached: about one tack alone it turns.",
  "both sides hold": () => "The other side of the same joint: with both tacked it turns no more.",
  "below wants a tack": () => "Faces that looked down want a tack before any bead, or the first beads lift them.",
  "back on its bottom": () => "The next part is set on from above.",
  "every side holds": () => "The last of its sides: with it the joint holds all round before the first bead.",
  "last cheap moment": () => "Last moment to cut a tack and put it right cheaply: accept, nudge, or cut and re-fit.",
  "outside first": () => "The school begins outside: the seams there make the corners stiff for the others.",
  "across from": ({ joint }, name) => `Across from ${name(joint)}: no end of the frame collects all the heat.`,
  "hot reads long": () => "A hot side reads long, and the next bead pulls more on hot steel.",
  "face all round": () => "One face all round before the turn: equal lifts at all corners fit together.",
  "second takes back": () => "The other face pulls the other way: it takes back part of what the first lifted.",
  "inside last": () =>
    "This school leaves the inside until the other faces hold: it meets a corner that is stiff already.",
  "jumping about": () => "Jumping about, so that no member collects its pull in one place.",
  "while it is up": () => "Before the turn, while it can be reached from above.",
  "cold in its clamps": () => "Clamps that come off hot let the frame take a set; readings on hot steel are long.",
  "now it shows": () => "What the clamps held now shows, and the cold readings are of the frame as it will be used.",
  "only cold counts": () => "Only a cold frame can be held against its limits.",
  "outside holds": () => "The middle of the outside holds the joint and lets it still turn.",
  "top and bottom soon": () => "Top and bottom in quick succession, so that neither side lifts alone.",
  "inside tacked last": () => "The inside last; first where it lies on the short diagonal.",
  "half by itself": () => "Each half turns on one tack at its own corner, where nothing else can pull it.",
  "halves before joining": () =>
    "Each half is set to its angle while it turns: joined, the halves hold the frame as they are.",
  "joins the halves": () => "Joins the halves: from here on their angles are those of the frame.",
  joined: () => "What is off now lies in the halves: accept, or cut a corner of one and set it anew.",
  "all faces at once": () => "Held on all sides while every face is tacked: nothing is let go before both sides hold.",
  "what it took": () => "No joint was left to turn: what is off now is cut and re-fitted, or taken along.",
  carries: () => "The fillet that carries comes first: it holds when the others pull.",
  "outside last": () => "This school keeps the flat outside seam for last.",
  "corners cool first": () => "The corners are done: let them cool before what lies between pulls on them.",
  "field jumps about": () => "What lies between, jumping about, so that no member collects its pull in one place.",
  "as they come": () => "Along the layout, every face that can be reached before going on.",
  "below in one go": () => "The faces that looked down, along the same way.",
  "short lengths": () => "In short lengths, moving on after each, so that no place collects the heat.",
  "sub-assembly cold": ({ name }) =>
    `Not before ${name} is cold: what is set on it now would be set on a frame that still moves.`,
  "cut and set": () =>
    "All that the tacks pulled is let go once more, but for what the new tacks pull: it costs some grinding and sets out on the beads square.",
  "bar on": ({ bar }) =>
    bar.kind === "block"
      ? "It keeps what lies between from closing; it only pushes."
      : bar.kind === "side"
        ? "Closes the open side while it is welded: the mouth cannot draw together as far."
        : "Holds that distance while the rest is welded. What it holds elastically comes back when it is cut.",
  "bar off": ({ bar }) =>
    bar.kind === "block"
      ? "What it still presses on comes in when it goes."
      : "Only cold: before that the frame would still move. What it held comes back a little. Grind the places flush.",
  own: () => "As this order was laid.",
};

/** A reason as it is said. */
const reasonWords = (reason: Reason, name: Naming): string =>
  (REASONS[reason.kind] as (r: Reason, name: Naming) => string)(reason, name);

/**
 * @param of name of the sub-assembly that is measured by itself. @param sits what was set on the rest. @param beyond places beyond the corners of
 * the whole.
 */
const measureWords = (
  step: Step,
  { ring, of, sits }: Pick<PartOfStep, "ring" | "of" | "sits">,
  beyond: readonly string[],
): string => {
  const ofRing =
    of || beyond.length === 0
      ? "four sides and both diagonals"
      : `four sides, both diagonals and the ways to ${beyond.join(" and ")}`;
  const what = ring ? ofRing : `distances between ${of ? "places" : "its places"}`;
  if (step.id.do === "measure" && step.id.cut)
    return "Measure, all tacked; cut the tacks that hold it off, set it square and flat, and tack it again";
  if (step.closes && step.why.kind === "halves before joining") return "Measure each half and set it to its angle";
  const across = `Measure across${of ? ` ${of}` : ""}`;
  if (step.closes)
    return `${across} and close ${of ? "its" : "the"} error while ${of ? "its" : "the"} joints still turn`;
  if (step.why.kind === "close while it turns") return `${across} while the joints still turn`;
  if (step.why.kind === "stiff already") return `${across}, each joint on one tack`;
  if (step.gate === "tacked") return `Measure ${of ? `${of} ` : ""}again, all tacked`;
  if (step.gate === "cold") return `Measure cold: ${what}${ring ? ", four corner heights" : ", heights"}`;
  return `Measure ${what}${of ? ` of ${of}` : ""}, dry${sits ? `, and where ${sits} sits` : ""}`;
};

/** What a place along a member is counted from. */
export const ALONG_WORDS = "Along a member is taped from the end that it begins at, from its long point.";

/** Where a bar meets a member: so far from where its tube begins. */
function barEnd({ members }: Structure, { member, at }: Bar["from"], units: UnitPreference): string {
  const m = members.find((x) => x.id === member);
  return m ? `${member}, ${plainLength(norm3(sub3(at, m.from)) - tubeBeginsMm(m), units)} along` : member;
}

/** What a bar is called where several are. */
export const barName = ({ kind, id }: Pick<Bar, "kind" | "id">): string =>
  `${kind === "side" ? "temporary side" : kind} ${id}`;

/** A bar or block going on, or coming off, in words. */
export function barWords(structure: Structure, bar: Bar, on: boolean, units: UnitPreference): Omit<StepWords, "why"> {
  const where = `${barEnd(structure, bar.from, units)}, to ${barEnd(structure, bar.to, units)}`;
  if (bar.kind === "block")
    return on
      ? { say: `Put ${barName(bar)} between ${where}`, caution: null }
      : { say: `Take ${barName(bar)} out`, caution: "It may be gripped: knock it out sideways, hands clear." };
  return on
    ? {
        say: `Tack ${barName(bar)} on: ${where}, a tack on either side at each end`,
        caution: "Grind its ends clean first: a bar tacked on paint or zinc lets go when it is wanted.",
      }
    : {
        say: `Cut ${barName(bar)} off, one end after the other`,
        caution: "It holds the frame sprung: stand clear of where it goes when the last tack is through.",
      };
}

/** Where a tube is shut all round in the end. */
const ventWords = (structure: Structure): string | null =>
  closedVolumes(structure).length > 0
    ? "Vent any closed tube before welding: trapped gas blows out through the last bead."
    : null;

/** Every step of an order in words, by its key. @param steps the whole order: what a step is about hangs on what is worked before and after it. */
export function stepsInWords(
  structure: Structure,
  steps: readonly Step[],
  units: UnitPreference = "mm",
): Map<string, StepWords> {
  const parts = partsOfSteps(structure, steps);
  return new Map(steps.map((s) => [s.key, stepWords(structure, s, units, parts.get(s.key))]));
}

/** One step in words. @param structure that it is done on. @param part of it that the step is about. */
export function stepWords(
  structure: Structure,
  step: Step,
  units: UnitPreference = "mm",
  part: PartOfStep = wholeFrame(structure),
): StepWords {
  const { what, massKg, ring, of, sits } = part;
  const weight = physical("mass", massKg, units, 0);
  const heavy = massKg > ONE_PERSON_KG;
  const why = reasonWords(step.why, (id) => {
    const named = structure.joints.find((j) => j.id === id);
    return named ? jointWords(structure, named) : id;
  });
  const plain = (say: string, caution: string | null = null): StepWords => ({ say, why, caution });
  const { id } = step;
  const three = step.on === "three rests";
  switch (id.do) {
    case "hold":
      if (three)
        return {
          say: "Lay it on its three rests; clamp it only straight over them",
          why: "Three never rock, whatever the floor. A clamp between them bends the frame to where it pulls.",
          caution: ventWords(structure),
        };
      return plain(
        `${
          step.why.kind === "bed holds flat" && step.why.rolls
            ? "Strap what lies on the bed into its V-blocks"
            : "Clamp what lies on the bed"
        }, joints free to be reached${
          step.why.kind === "bed holds flat" && step.why.stands ? "; hold what stands up square to it" : ""
        }`,
        ventWords(structure),
      );
    case "tack":
    case "bead": {
      const joint = structure.joints.find((j) => j.id === id.joint);
      const face = joint?.faces.find((f) => f.line === id.line);
      const where = joint && face ? faceWords(structure, joint, face) : `${id.joint}, ${id.line}`;
      if (id.do === "tack") return plain(`Tack ${where}${(id.nth ?? 1) > 1 ? ", once more" : ""}`);
      const ground = face?.care === "grind flush" ? " It is ground flush afterwards: keep it full and small." : "";
      const more = (id.nth ?? 1) > 1 ? ", once more" : "";
      return { say: `Weld ${where}${more}`, why: `${why}${ground}`, caution: null };
    }
    case "measure": {
      const name = structure.groups.find((g) => g.id === of)?.name || of;
      const beyond = structure.quad && isOfWhole(part, step) ? placesOf(structure).beyond : [];
      return plain(measureWords(step, { ring, of: name, sits }, beyond));
    }
    case "flip":
      return plain(
        step.part === "tack"
          ? `Release, turn ${what} over (${weight}), ${three ? "lay it on its three rests" : "clamp again"}`
          : `Turn ${what} over, ${step.up} up (${weight}), ${three ? "lay it on its three rests" : "clamp again"}`,
        heavy
          ? `${weight}: plan the lift, two people or a hoist.`
          : step.part === "tack"
            ? "Springs back when the clamps come off: stand clear, release slowly."
            : null,
      );
    case "wait":
      return id.until === "touch"
        ? plain(
            ring ? "Wait until all four corners can be touched" : "Wait until every joint can be touched",
            "Mark the joints hot until they are cool.",
          )
        : three
          ? {
              say: "Leave it on its rests until it is cold all over",
              why: "Readings on hot steel are long.",
              caution: null,
            }
          : plain("Leave it clamped until it is cold all over");
    case "brace":
    case "unbrace": {
      const { why: reason } = step;
      if (reason.kind !== "bar on" && reason.kind !== "bar off") return plain(`${id.do} ${id.bar}`);
      return { ...barWords(structure, reason.bar, id.do === "brace", units), why };
    }
    case "release":
      if (three)
        return {
          say: "Take the clamps off over the rests",
          why: "Held on three places only, it has hardly been bent: the cold readings are of the frame as it will be used.",
          caution: null,
        };
      return plain(
        "Release the clamps slowly, one at a time",
        "A clamped frame stores energy: stand clear, release from the clamp side.",
      );
  }
}

/** A step as it is said where its frame no longer has it: a tick may outlive what it was set at. */
export function stepIdWords(id: StepId): string {
  switch (id.do) {
    case "tack":
    case "bead":
      return `${id.do} ${id.joint}, ${id.line} (no longer in the order)`;
    case "measure":
      return `measure, ${id.gate} (no longer in the order)`;
    case "flip":
      return "turn over (no longer in the order)";
    case "wait":
      return `wait until ${id.until === "touch" ? "it can be touched" : "cold"} (no longer in the order)`;
    case "brace":
      return `bar ${id.bar} on (no longer in the order)`;
    case "unbrace":
      return `bar ${id.bar} off (no longer in the order)`;
    default:
      return `${id.do} (no longer in the order)`;
  }
}
