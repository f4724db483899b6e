import type { ShopLearned } from "../learn";
import { type OrderChoice, orderKey, SCHOOL_NAMES } from "../plan";
import { inField, type PhysicalKind, type UnitPreference, unitOf } from "../units";
import type { SeamHow } from "../weld";
import type { Change } from "./entrySchema";
import { learnedWords } from "./learnedWords";
import type { Plan } from "./planSchema";

const LABELS: Record<string, string> = {
  name: "Name",
  purpose: "Purpose",
  carries: "Carries",
  units: "Units",
  "limits.kind": "Limits",
  "limits.linear": "ISO 13920 class, sizes",
  "limits.flat": "Flatness limit",
  "limits.levelMmPerM": "Level limit",
  "limits.length.lower": "Length, lower limit",
  "limits.length.upper": "Length, upper limit",
  "limits.width.lower": "Width, lower limit",
  "limits.width.upper": "Width, upper limit",
  "limits.square": "Squareness limit",
  "limits.square.as": "Squareness stated as",
  "limits.square.limit": "Squareness limit",
  "frame.sizes.length": "Length",
  "frame.sizes.width": "Width",
  "frame.sizes.section.profile": "Section",
  "frame.sizes.section.face": "Tube width in plan",
  "frame.sizes.section.depth": "Tube height",
  "frame.sizes.section.wall": "Wall",
  "frame.sizes.material": "Material",
  "frame.sizes.crossRuns": "Cross members run",
  "frame.sizes.corners": "Corners",
  "frame.sizes.gap": "Root gap",
  "frame.sizes.caps": "Caps on open ends",
  "bed.adjust": "Bed set by",
  "bed.laid": "Rests laid under the frame",
  "bed.mode": "Shimmed to",
  "bed.pitch": "Foot pitch",
  "bed.thread": "Foot thread",
  "bed.school": "Flat by",
  "bed.feet": "Rests on feet",
  "frame.by": "Frame entered by",
  aim: "Squared to",
  learned: "What the shop had learned",
  order: "Order of work",
  "limits.gap": "Gap limit",
  "limits.flush": "Flush limit",
  "limits.straight": "Straightness limit",
  "limits.flatBy": "Flatness is",
  "limits.aim": "Aimed at",
  "limits.confirmed.lengthMm": "Class figure for the length",
  "limits.confirmed.widthMm": "Class figure for the width",
  "limits.confirmed.angleMmPerM": "Class figure for angles",
  "limits.confirmed.flatMm": "Class figure for flatness",
  "stock.kerf": "Saw cut",
  "stock.grip": "End for the vice",
  "stock.least": "Shortest offcut worth keeping",
  "stock.flip": "Mitred pieces turned over in turn",
  "saw.gap": "Saw test, gap",
  "saw.leg": "Saw test, from the corner",
  "saw.placing": "Saw test, how it was held",
  "saw.gapAt": "Saw test, where it opens",
  finish: "Finish",
  sawScale: "Saw's scale counts from",
  "weld.process": "Process",
  "weld.volts": "Volts",
  "weld.amps": "Amps",
  "weld.travelMmPerS": "Travel speed",
  "weld.tackLength": "Tack length",
  "weld.from": "Settings are",
  "weld.tackProcess": "Tacks by",
  "fixture.side": "Stops of the ring",
  "fixture.holes.pitch": "Holes of the bed, apart",
  "fixture.holes.x": "First hole, from A along",
  "fixture.holes.y": "First hole, from A across",
  "fixture.at.x": "Corner A, from the bed's left edge",
  "fixture.at.y": "Corner A, from the bed's near edge",
  "fixture.bed.length": "Bed, length",
  "fixture.bed.width": "Bed, width",
  "fixture.plates.material": "Plates, material",
  "fixture.plates.thickness": "Plates, thickness",
  "fixture.plates.width": "Plates, width of both",
  "fixture.plates.length": "Plates, length of the seam",
  "fixture.slots.run": "Slots of the bed, which way",
  "fixture.slots.pitch": "Slots of the bed, apart",
  "fixture.slots.first": "First slot, from A",
  "fixture.floor": "On a bare floor",
  "fixture.have.stops": "Stops at hand",
  "fixture.have.angles": "Angle plates at hand",
  "fixture.have.blocks": "Blocks at hand",
  "fixture.have.squares": "Squares at hand",
  "fixture.have.magnets": "Magnets at hand",
  "fixture.have.vBlocks": "V-blocks at hand",
  "fixture.have.clamps": "Clamps at hand",
  "fixture.have.toggles": "Toggle clamps at hand",
  "fixture.have.risers": "Risers at hand",
  "fixture.have.spreaders": "Spreaders at hand",
  "fixture.have.strings": "Strings at hand",
  "held.lies": "How it lies",
  "held.stops": "The lay-out's stops hold it",
  "hands.two": "Two weld at once",
  "hands.overhead": "Welded overhead, too",
  "hands.noUpright": "Not welded upright",
};

const DRAWN_LABELS: Record<string, string> = {
  members: "Member",
  sections: "Section",
  joints: "Joint",
  parts: "Part",
  obstacles: "Object to clear",
  groups: "Sub-assembly",
  pairs: "Left and right",
  gap: "Root gap",
  floor: "Floor",
  largest: "Largest size",
  survey: "Measured sizes",
};

/** What bars, offcuts and other pieces are called by the letter of their names. */
const BAR_WORDS: Record<string, string> = { B: "Bar", O: "Offcut", X: "Piece for something else" };

/** What a number is by the unit that ends its name, to be told in the units of the job. */
const KINDS: readonly [ends: RegExp, kind: PhysicalKind][] = [
  [/MmPerS$/, "speed"],
  [/MmPerM$/, "slope"],
  [/[a-z]Mm$/, "length"],
];

/** A number of the plan as its field shows it. */
function numberWords(path: string, value: number, units: UnitPreference): string {
  const kind = KINDS.find(([ends]) => ends.test(path))?.[1];
  return kind ? `${inField(kind, value, units)} ${unitOf(kind, units)}` : String(value);
}

/** Name of a plan field as a person says it. */
function fieldLabel(path: string): string {
  const cross = /^frame\.sizes\.cross\.(M\d+)/.exec(path);
  if (cross) return `Cross member ${cross[1]}`;
  const rest = /^bed\.rests\.(R\d+)(?:\.(x|y))?/.exec(path);
  if (rest) return `Rest ${rest[1]}${rest[2] ? `, ${rest[2]}` : ""}`;
  const bar = /^stock\.(?:bars|offcuts|also)\.([BOX]\d+)(?:\.(length|price|quantity|name|ends))?/.exec(path);
  if (bar) return `${BAR_WORDS[bar[1]?.[0] ?? ""] ?? "Bar"} ${bar[1]}${bar[2] ? `, ${bar[2]}` : ""}`;
  const drawn = /^frame\.drawn\.(\w+)(?:\.(\w+))?/.exec(path);
  if (drawn) return `${DRAWN_LABELS[drawn[1] ?? ""] ?? "Drawn frame"}${drawn[2] ? ` ${drawn[2]}` : ""}`;
  const hole = /^drill\.(H\d+)\.(\w+)/.exec(path);
  if (hole) return `Hole ${hole[1]}, ${hole[2]}`;
  const point = /^points\.(\w+)\.?(\w*)/.exec(path);
  if (point) return `Point ${point[1]} off the frame${point[2] ? `, ${point[2]}` : ""}`;
  if (path.startsWith("frame.sizes.ground.")) return "Face ground flush";
  const arc = /^weld\.others\.([\w ]+)\.(\w+)$/.exec(path);
  if (arc) return `${LABELS[`weld.${arc[2]}`] ?? arc[2]}, ${arc[1]}`;
  if (path.startsWith("weld.seams.")) return `How the seam ${path.slice("weld.seams.".length)} is laid`;
  const moved = /^fixture\.moved\.(.+)\.along$/.exec(path);
  if (moved) return `${moved[1]}, along its member's line`;
  const trial = /^fixture\.trials\.(.+)\.(shim|left)$/.exec(path);
  if (trial) return `Bent over a shim, ${trial[1]}, ${trial[2] === "shim" ? "shim" : "left when cold"}`;
  const bearer = /^fixture\.bearers\.(T\d+)/.exec(path);
  if (bearer) return `Trestle or bar ${bearer[1]}`;
  const own = /^fixture\.own\.(E\d+)/.exec(path);
  if (own) return `Of your own to hold with, ${own[1]}`;
  if (path.startsWith("fixture.without.")) return "Left out of the fixture";
  if (path.startsWith("holds.")) return "A weld that waits";
  if (path.startsWith("found.")) return `Gap at joint ${path.slice("found.".length)}, filled as found`;
  const held = /^held\.bars\.(\w+)/.exec(path);
  if (held) return `Bar or block ${held[1]}`;
  if (path.startsWith("fixed.")) return "Length that must not move";
  const closing = /^closing\.(\w+)/.exec(path);
  if (closing) return `Gap that ${closing[1]} is cut to`;
  if (path.startsWith("bed.feet.")) return "Rest on a foot";
  if (path.startsWith("bed.leaves")) return "Shims at hand";
  return LABELS[path] ?? path;
}

type Leaves = Map<string, string>;

/** What a person would recognise of one item of a drawn frame: its lengths and words in their order. */
function inShort(value: unknown): string {
  if (value === null) return "none";
  if (typeof value !== "object") return String(value) || "empty";
  if (isLength(value)) return value.text;
  const places = ["x", "y", "z"].filter((k) => k in value);
  if (places.length > 1 && Object.keys(value).length === places.length)
    return places.map((k) => `${k} ${inShort((value as Record<string, unknown>)[k])}`).join(", ");
  const parts = Array.isArray(value) ? value : fieldsOf(value).flatMap(([k, v]) => (k === "id" ? [] : [v]));
  const words = parts.map(inShort).filter((w) => w !== "none" && w !== "" && w !== "empty");
  return words.length > 0 ? words.join(", ").slice(0, 200) : "nothing";
}

const isLength = (v: object): v is { mm: number; text: string; unit: string } => "mm" in v && "text" in v;

/** An order in a line: of one that was laid step by step, so much that two are told apart. */
function orderInShort(order: OrderChoice): string {
  const schools = `${SCHOOL_NAMES[order.tack]}, ${SCHOOL_NAMES[order.weld].toLowerCase()}`;
  if (order.by === "schools")
    return `${schools}${order.together ? ", sub-assemblies together" : ""}${order.cutAndSet ? ", cut and set when tacked" : ""}${order.bottomUp ? ", bottom face up" : ""}`;
  let mark = 7;
  for (const c of orderKey(order)) mark = (31 * mark + c.charCodeAt(0)) % 1_679_616;
  const by = order.by === "own" ? "own order" : "computed order";
  return `${by} of ${order.steps.length} steps, begun from ${schools} (${mark.toString(36)})`;
}

/** How a seam is laid, in a line. */
const seamInShort = ({ lengths, turned, process }: SeamHow): string =>
  [
    ...(lengths ? [`${lengths} lengths`] : []),
    ...(turned ? ["from its other end"] : []),
    ...(process ? [process] : []),
  ].join(", ");

/** Flattens a plan to its leaves. A length is one leaf; items of lists go by their id, not their place. */
function leaves(value: unknown, path: string, out: Leaves, units: UnitPreference): Leaves {
  if (value === undefined) return out;
  if (value === null) out.set(path, "none");
  else if (path === "learned") out.set(path, learnedWords(value as ShopLearned));
  else if (path === "order") out.set(path, orderInShort(value as OrderChoice));
  else if (/^(holds|held\.bars|found)\.[^.]+$/.test(path)) out.set(path, inShort(value));
  else if (/^weld\.seams\.[^.]+$/.test(path)) out.set(path, seamInShort(value as SeamHow));
  else if (path.startsWith("frame.drawn.") && path.split(".").length > 3) out.set(path, inShort(value));
  else if (Array.isArray(value))
    value.forEach((item, i) => {
      const id = typeof item === "object" && item !== null && "id" in item ? String(item.id) : String(i);
      leaves(item, `${path}.${id}`, out, units);
    });
  else if (typeof value === "object") {
    if (isLength(value)) out.set(path, /[a-z"']/i.test(value.text) ? value.text : `${value.text} ${value.unit}`);
    else
      for (const [key, inner] of Object.entries(value))
        if (key !== "id") leaves(inner, path ? `${path}.${key}` : key, out, units);
  } else if (typeof value === "number") out.set(path, numberWords(path, value, units));
  else out.set(path, value === "" ? "empty" : String(value));
  return out;
}

/** @returns every leaf that differs, in words. @param before, @param after two plans of one job. */
export function planChanges(before: Plan, after: Plan): Change[] {
  const a = leaves(before, "", new Map(), after.units);
  const b = leaves(after, "", new Map(), after.units);
  const all = [...new Set([...a.keys(), ...b.keys()])]
    .filter((path) => a.get(path) !== b.get(path))
    .map((path) => ({
      path,
      label: fieldLabel(path),
      from: a.get(path) ?? "not there",
      to: b.get(path) ?? "taken out",
    }));
  if (all.length <= MOST_CHANGES) return all;
  // A frame started anew: one line says it.
  const members = ({ frame }: Plan): string =>
    frame.by === "members" ? `${frame.drawn.members.length} members` : "a rectangle by its sizes";
  return [
    ...all.filter((c) => !c.path.startsWith("frame.drawn.")).slice(0, MOST_CHANGES - 1),
    { path: "frame.drawn", label: "Drawn frame", from: members(before), to: members(after) },
  ];
}

/** More lines than this nobody reads. */
const MOST_CHANGES = 300;

type Tree = { [key: string]: unknown };
const isTree = (v: unknown): v is Tree => typeof v === "object" && v !== null && !Array.isArray(v) && !isLength(v);
/** The same, whichever way round its fields were written: the server writes them in the order of its own schema. */
const same = (a: unknown, b: unknown): boolean => JSON.stringify(inOrder(a)) === JSON.stringify(inOrder(b));

/** A value with its fields by name, all the way down. */
function inOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(fieldsOf(value).map(([k, v]) => [k, inOrder(v)]));
}

const fieldsOf = (value: object): [string, unknown][] =>
  Object.entries(value).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));

type Item = Tree & { id: string };
const isList = (v: unknown): v is Item[] => Array.isArray(v) && v.every((x) => isTree(x) && typeof x.id === "string");

/** Lists of named things: each thing is merged by its name; what one took out or put in is so. */
function mergeLists(base: readonly Item[], mine: readonly Item[], theirs: readonly Item[]): Item[] {
  const by = (list: readonly Item[]) => new Map(list.map((x) => [x.id, x]));
  const [was, here, there] = [by(base), by(mine), by(theirs)];
  const out: Item[] = [];
  for (const id of new Set([...theirs, ...mine].map((x) => x.id))) {
    const [b, m, t] = [was.get(id), here.get(id), there.get(id)];
    if (m && t) out.push(b ? (merge(b, m, t) as Item) : m);
    // One of the two took it out; it stays when the other changed it.
    else if (m && (!b || !same(m, b))) out.push(m);
    else if (t && (!b || !same(t, b))) out.push(t);
  }
  return out;
}

/** Whether two objects are of one make: the same kind, entered the same way. */
const alike = (a: Tree, b: Tree): boolean => a.kind === b.kind && a.by === b.by;

function merge(base: unknown, mine: unknown, theirs: unknown): unknown {
  if (same(mine, base)) return theirs;
  if (same(theirs, base)) return mine;
  // Objects of the same make are merged field by field; anything else is taken whole.
  if (isList(base) && isList(mine) && isList(theirs)) return mergeLists(base, mine, theirs);
  if (isTree(base) && isTree(mine) && isTree(theirs) && alike(base, mine) && alike(base, theirs))
    return Object.fromEntries(
      [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].flatMap((k) => {
        const value = merge(base[k], mine[k], theirs[k]);
        return value === undefined ? [] : [[k, value]];
      }),
    );
  return mine;
}

/** What two people did to one plan, from the version that both started at. */
export interface Collision {
  /** What the other one changed. */
  theirs: Change[];
  /** Paths that both changed, to different values. */
  both: string[];
  /** Mine laid over theirs: where both changed, mine. */
  merged: Plan;
  /** Members that both added under one name: mine goes by another from now on. */
  renamed: { from: string; to: string }[];
}

/** Names of a frame's members, as it is entered. */
const memberNames = ({ frame }: Plan): string[] => [
  ...frame.sizes.cross.map((c) => c.id),
  ...(frame.by === "members" ? frame.drawn.members.map((m) => m.id) : []),
];
const memberOf = ({ frame }: Plan, id: string): unknown =>
  frame.by === "members" ? frame.drawn.members.find((m) => m.id === id) : frame.sizes.cross.find((c) => c.id === id);

/** Letters and digits of a member's name. */
const MOST_NAME = 6;

/** The next name of the same make that nobody has: after M5, M6. */
function freeName(name: string, taken: ReadonlySet<string>): string {
  const [, stem = name, digits = ""] = /^(.*?)(\d*)$/.exec(name) ?? [];
  for (let n = Number(digits || 1) + 1; ; n++) {
    const fresh = `${stem.slice(0, MOST_NAME - String(n).length)}${n}`;
    if (!taken.has(fresh)) return fresh;
  }
}

/** My plan with its own names for members that both added under one name and that are not one member. */
function apart(base: Plan, mine: Plan, theirs: Plan): { mine: Plan; renamed: Collision["renamed"] } {
  const [was, there] = [new Set(memberNames(base)), new Set(memberNames(theirs))];
  const taken = new Set([...was, ...there, ...memberNames(mine)]);
  const renamed: Collision["renamed"] = [];
  const { name, purpose, ...start } = mine as Plan & { purpose?: unknown };
  let rest: unknown = start;
  for (const from of new Set(memberNames(mine))) {
    if (was.has(from) || !there.has(from) || same(memberOf(mine, from), memberOf(theirs, from))) continue;
    const to = freeName(from, taken);
    taken.add(to);
    renamed.push({ from, to });
    // Wherever it is named: its joints, what waits for them, its holes and parts.
    const word = new RegExp(`(?<![A-Za-z0-9])${from}(?![A-Za-z0-9])`, "g");
    rest = JSON.parse(JSON.stringify(rest).replace(word, to));
  }
  return {
    mine:
      renamed.length > 0
        ? ({ ...(rest as object), name, ...(purpose === undefined ? {} : { purpose }) } as Plan)
        : mine,
    renamed,
  };
}

/** @param base the version that both started at. @param own, @param theirs the plans now. */
export function collide(base: Plan, own: Plan, theirs: Plan): Collision {
  const { mine, renamed } = apart(base, own, theirs);
  const myPaths = new Map(planChanges(base, mine).map((c) => [c.path, c.to]));
  const changes = planChanges(base, theirs);
  return {
    theirs: changes,
    both: changes.filter((c) => myPaths.has(c.path) && myPaths.get(c.path) !== c.to).map((c) => c.path),
    merged: merge(base, mine, theirs) as Plan,
    renamed,
  };
}
