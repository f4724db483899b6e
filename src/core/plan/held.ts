import { GRAVITY_N_PER_KG } from "../bed";
import { lyingMembers } from "../fixture";
import { MATERIALS, type Structure } from "../frame";
import { fromStructure, type Station, type StructureMechanics } from "../mechanics";
import { add3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import { type ClampPlace, clampStations } from "./clamps";
import type { LiesOn } from "./step";

/** When a bar or block goes on: as the pieces are laid, when the frame was set square, when all is tacked. */
export const PUT_ON = ["laid", "square", "tacked"] as const;
export type PutOn = (typeof PUT_ON)[number];
/** When it comes off. */
export const TAKEN_OFF = ["tacked", "cold"] as const;
export type TakenOff = (typeof TAKEN_OFF)[number];
/** A bar tacked across on top, a bar tacked between as a temporary side, a block that only pushes. */
export const BAR_KINDS = ["strongback", "side", "block"] as const;
export type BarKind = (typeof BAR_KINDS)[number];

/** A bar or block from one member to another. */
export interface Bar {
  id: string;
  kind: BarKind;
  from: Station;
  to: Station;
  section: { widthMm: number; heightMm: number; wallMm: number };
  putOn: PutOn;
  takenOff: TakenOff;
}

/** A stop that a member lies against, or a clamp that is snug across from it: it pushes that way and never pulls. */
export interface HeldStop extends Station {
  id: string;
  kind: "stop" | "clamp";
  push: Vec3;
  gapMm: number;
}

/** How a frame lies while it is worked on. */
export const LIES = ["clamped", "weight", "loose"] as const;
export type Lies = (typeof LIES)[number];

/** What holds a frame while it is worked on. */
export interface Held {
  /** Clamped down flat, by its own weight alone, or by nothing. */
  lies: Lies;
  /** In the plane of the bed. */
  stops: readonly HeldStop[];
  bars: readonly Bar[];
  /** Where members lie on trestles or bars, along each from where it begins, mm, none for one that they do not carry; null where there is a plate or a floor under them all. */
  carriedAtMm: Readonly<Record<string, readonly number[]>> | null;
}

/** As a frame is held where nobody said otherwise. */
export const USUALLY_HELD: Held = { lies: "clamped", stops: [], bars: [], carriedAtMm: null };

interface At {
  member: string;
  point: string;
}

/** What holds a frame, at the points of its mechanics. */
export interface HeldBy {
  clamps: readonly ClampPlace[];
  stops: readonly (Omit<HeldStop, "at"> & At)[];
  /** Places where it lies by its weight. */
  rests: readonly At[];
  /** Of what lies on them, N per mm by member; what stands up is held by whoever set it up. */
  weightNPerMm: Readonly<Record<string, number>>;
  bars: readonly (Omit<Bar, "from" | "to"> & { from: At; to: At; way: Vec3 })[];
}

export const HELD_BY_NOTHING: HeldBy = { clamps: [], stops: [], rests: [], weightNPerMm: {}, bars: [] };

/**
 * The mechanics of a structure with the places where it is held. Clamps hold it flat at three places or more, or not at all: two would
 * only pin a line.
 * @param on three rests hold a plane and no more: statically that is a free frame, so nothing is clamped flat in the mechanics.
 */
export function heldMechanics(
  structure: Structure,
  on: LiesOn = "surface",
  held: Held = USUALLY_HELD,
): { mechanics: StructureMechanics; by: HeldBy } {
  const isFlat = on === "surface";
  const { carriedAtMm } = held;
  const clampable = (): Station[] =>
    carriedAtMm ? clampedToBearers(structure, carriedAtMm) : clampStations(structure);
  const clampsAt = isFlat && held.lies === "clamped" ? clampable() : [];
  const lying = isFlat && held.lies === "weight" ? lyingMembers(structure) : [];
  const rests = (): Station[] =>
    carriedAtMm ? restsOnBearers(structure, carriedAtMm) : restStations(structure, lying);
  const restsAt = lying.length > 0 ? rests() : [];
  const barsAt = held.bars.flatMap((b) => [b.from, b.to]);
  const wanted = [...clampsAt, ...restsAt, ...held.stops, ...barsAt].map(({ member, at }): Station => ({ member, at }));
  const built = fromStructure(structure, wanted);
  const names = [...built.stations];
  const points = (stations: readonly Station[]): At[] =>
    stations.map(({ member }) => ({ member, point: names.shift() as string }));
  const clamps = apart(points(clampsAt));
  const restPoints = apart(points(restsAt));
  const stops = points(held.stops).map((at, i) => ({ ...(held.stops[i] as HeldStop), ...at }));
  const ends = points(barsAt);
  const carried = stops.length > 0 || restPoints.length > 0 || held.bars.some((b) => b.kind === "block");
  return {
    mechanics: carried ? { ...built, frame: { ...built.frame, carried: true } } : built,
    by: {
      clamps: clamps.length >= 3 ? clamps : [],
      stops,
      rests: restPoints,
      weightNPerMm: Object.fromEntries(
        lying.map((m) => [m.id, m.properties.areaMm2 * MATERIALS[m.material].densityKgPerMm3 * GRAVITY_N_PER_KG]),
      ),
      bars: held.bars.map((b, i) => ({
        ...b,
        from: ends[2 * i] as At,
        to: ends[2 * i + 1] as At,
        way: unitOf(sub3(b.to.at, b.from.at)),
      })),
    },
  };
}

/** What lies by its weight rests at its ends and between them; what is put between others, in its middle: they hold its ends. */
const REST_SHARES = [0, 0.25, 0.75, 1] as const;
const MIDDLE = [0.5] as const;

/** Where what lies on a plate or a floor by its weight rests on it. */
function restStations(structure: Structure, lying: ReturnType<typeof lyingMembers>): Station[] {
  const carriers = new Set(clampStations(structure).map((c) => c.member));
  return lying.flatMap((m) =>
    (carriers.has(m.id) ? REST_SHARES : MIDDLE).map((share) => ({ member: m.id, at: along(m.from, m.to, share) })),
  );
}

/** Where a frame that lies on trestles or bars is clamped to them: each member that they carry at the outermost two. */
const clampedToBearers = (structure: Structure, carriedAtMm: NonNullable<Held["carriedAtMm"]>): Station[] =>
  onBearers(structure, carriedAtMm, (on) => [...on.slice(0, 1), ...on.slice(-1)]);

/** Where it rests on them; what they do not carry is propped in its middle until it is tacked. */
const restsOnBearers = (structure: Structure, carriedAtMm: NonNullable<Held["carriedAtMm"]>): Station[] =>
  onBearers(structure, carriedAtMm, (on) => (on.length === 0 ? MIDDLE : on));

const onBearers = (
  structure: Structure,
  carriedAtMm: NonNullable<Held["carriedAtMm"]>,
  shares: (on: readonly number[]) => readonly number[],
): Station[] =>
  lyingMembers(structure).flatMap((m) => {
    const long = norm3(sub3(m.to, m.from)) || 1;
    const on = (carriedAtMm[m.id] ?? []).map((mm) => mm / long);
    return shares(on).map((share): Station => ({ member: m.id, at: along(m.from, m.to, share) }));
  });

const along = (from: Vec3, to: Vec3, share: number): Vec3 => add3(from, scale3(sub3(to, from), share));

const unitOf = (v: Vec3): Vec3 => scale3(v, 1 / (norm3(v) || 1));

/** Each place once. */
function apart(places: readonly At[]): At[] {
  const seen = new Set<string>();
  return places.filter(({ point }) => !seen.has(point) && seen.add(point));
}
