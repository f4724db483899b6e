import { walkRests } from "@/core/bed";
import { fitPlane, heightOf } from "@/core/geometry";
import { type BedRound, type How, keyOf, type QuantityId, quantityWords, type Rest, type Standing } from "@/core/job";
import { bareSlope, type Length, type UnitPreference } from "@/core/units";
import { HEIGHT_KINDS, type Quantity, SLOPE_KINDS } from "../measure";

/** How the next rests are read. */
export type Method =
  | { by: "usual" }
  | { by: "height"; datum: number }
  | { by: "rod"; setUp: number; sightM: number | null }
  /** From the rest before it in the order, or from one rest. */
  | { by: "slope"; from: string | "before"; arrow: "on" | "back" }
  | { by: "difference"; from: string | "before" }
  | { by: "edge"; from: string; to: string; blocks: [Length, Length] };

const ASK_MM = 25;
const ASK_SLOPE_MM_PER_M = 15;
const ASK_GAP_MM = 15;

function howOf(method: Method, rests: readonly Rest[], rest: Rest, before: string | undefined): How | null | undefined {
  switch (method.by) {
    case "usual":
      return undefined;
    case "height":
    case "rod":
      return method;
    case "slope": {
      const from = method.from === "before" ? before : method.from;
      return from && from !== rest.id ? { by: "slope", from, arrow: method.arrow } : null;
    }
    case "difference": {
      const from = method.from === "before" ? before : method.from;
      return from && from !== rest.id ? { by: "difference", from } : null;
    }
    case "edge":
      return method.from === method.to || [method.from, method.to].includes(rest.id) || !between(rests, rest, method)
        ? null
        : method;
  }
}

/** Whether a rest lies under an edge from one rest to another. */
function between(rests: readonly Rest[], rest: Rest, edge: { from: string; to: string }): boolean {
  const [a, b] = [edge.from, edge.to].map((n) => rests.find((r) => r.id === n));
  if (!a || !b) return false;
  const d = { x: b.x.mm - a.x.mm, y: b.y.mm - a.y.mm };
  const length = Math.hypot(d.x, d.y);
  if (length === 0) return false;
  const p = { x: rest.x.mm - a.x.mm, y: rest.y.mm - a.y.mm };
  const t = (p.x * d.x + p.y * d.y) / length ** 2;
  return t > 0 && t < 1 && Math.abs(p.x * d.y - p.y * d.x) / length < 0.03 * length;
}

/** How a rest is read, in a word or two for the list. */
function shortWords(how: How): string {
  switch (how.by) {
    case "height":
      return `datum ${how.datum}`;
    case "rod":
      return `rod ${how.setUp}`;
    case "slope":
      return `level ${how.from}`;
    case "difference":
      return `over ${how.from}`;
    case "edge":
      return `edge ${how.from}–${how.to}`;
  }
}

/** Two rests with another between them, for an edge to begin with. */
export function firstEdge(rests: readonly Rest[]): [string, string] {
  for (const a of rests)
    for (const b of rests)
      if (a !== b && rests.some((r) => r !== a && r !== b && between(rests, r, { from: a.id, to: b.id })))
        return [a.id, b.id];
  return [rests[0]?.id ?? "R1", rests.at(-1)?.id ?? "R2"];
}

function quantity(
  rest: Rest,
  how: How | undefined,
  usual: "heights" | "rod",
  mean: number | null,
  units: UnitPreference,
): Quantity {
  const what: QuantityId = { kind: "rest", rest: rest.id };
  const key = keyOf({ what, ...(how ? { how } : {}) });
  const base = { what, key, ...(how ? { how, short: shortWords(how) } : {}) };
  const by = how?.by ?? (usual === "rod" ? "rod" : "height");
  switch (by) {
    case "rod":
      return { ...base, say: "Rod reading on this rest", kinds: ["optical level"], expected: mean, askBeyond: ASK_MM };
    case "slope":
      return {
        ...base,
        say: `Slope up to it from ${how && "from" in how ? how.from : ""}, with the level's feet on both`,
        kinds: SLOPE_KINDS,
        slant: bareSlope(units),
        ends: [how && "from" in how ? how.from : "", rest.id],
        expected: 0,
        askBeyond: ASK_SLOPE_MM_PER_M,
      };
    case "difference":
      return {
        ...base,
        say: `How much higher it lies than ${how && "from" in how ? how.from : ""}`,
        kinds: HEIGHT_KINDS,
        expected: 0,
        askBeyond: ASK_MM,
      };
    case "edge":
      return {
        ...base,
        say: `Gap here under the edge from ${how && "from" in how ? how.from : ""} to ${how && "to" in how ? how.to : ""}`,
        kinds: ["straightedge", "feeler", "string line"],
        expected: how?.by === "edge" ? (how.blocks[0].mm + how.blocks[1].mm) / 2 : 0,
        askBeyond: ASK_GAP_MM,
      };
    default:
      return { ...base, say: "Height of this rest", kinds: HEIGHT_KINDS, expected: mean, askBeyond: ASK_MM };
  }
}

/** A bed may well be so far out of its own plane that a right reading looks odd, mm. */
const ASK_IMPLIED_MM = 6;
/** As many times as the others miss their plane is asked about. */
const ASK_TIMES = 4;

/** What the other heights imply for one rest: their own plane there. Nothing while they carry no plane. */
function impliedAt(rest: Rest, rests: readonly Rest[], read: readonly Standing<Length>[]): Partial<Quantity> {
  const others = read.flatMap((s) => {
    const at = rests.find((r) => r.id === quantityWords(s.what));
    return at && at.id !== rest.id ? [{ x: at.x.mm, y: at.y.mm, z: s.value.mm }] : [];
  });
  const plane =
    others.length >= 3
      ? fitPlane(
          others,
          others.map((o) => o.z),
        )
      : null;
  if (!plane) return {};
  const missed = Math.max(...others.map((o) => Math.abs(o.z - heightOf(plane, o))));
  return {
    expected: heightOf(plane, { x: rest.x.mm, y: rest.y.mm }),
    expectedBy: "what the others imply",
    askBeyond: Math.max(ASK_IMPLIED_MM, ASK_TIMES * missed),
  };
}

/** What is read next by the method in hand, and whatever was read by another already. */
export function surveyQuantities(
  method: Method,
  rests: readonly Rest[],
  round: BedRound | null,
  usual: "heights" | "rod",
  units: UnitPreference,
): Quantity[] {
  const alike = [...(round?.readings.values() ?? [])].filter((r) => !r.how);
  const mean = alike.length > 0 ? alike.reduce((s, r) => s + r.value.mm, 0) / alike.length : null;
  const places = rests.map((r) => ({ x: r.x.mm, y: r.y.mm }));
  const stepped = "from" in method && method.from === "before";
  // A level goes along the sides; from one rest to all others, or by heights, they come in their own order.
  const steps = stepped
    ? walkRests(places).map(([from, to]) => ({ rest: rests[to] as Rest, before: rests[from]?.id }))
    : rests.map((rest) => ({ rest, before: undefined }));
  const next = steps.flatMap(({ rest, before }): Quantity[] => {
    const how = howOf(method, rests, rest, before);
    if (how === null) return [];
    const made = quantity(rest, how, usual, how ? null : mean, units);
    // One that is read again was moved between: then the others imply nothing of it.
    const again = alike.some((r) => quantityWords(r.what) === rest.id);
    return [how || again ? made : { ...made, ...impliedAt(rest, rests, alike) }];
  });
  const known = new Set(next.map((q) => q.key));
  const others = [...(round?.readings.values() ?? []), ...(round?.slants.values() ?? [])].flatMap((s): Quantity[] => {
    const rest = rests.find((r) => r.id === quantityWords(s.what));
    return rest && !known.has(s.key) ? [quantity(rest, s.how, usual, null, units)] : [];
  });
  return [...next, ...others];
}
