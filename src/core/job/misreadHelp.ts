import { CORNERS, ends, SIDES } from "../geometry";
import { radians, type Candidate as Suspect } from "../numeric";
import {
  adjustNetwork,
  type Candidate,
  type NetworkFit,
  oneMore,
  type Places,
  REAL_CORNERS_MM,
  type Reading,
  type Tape,
  tapedTo,
} from "../square";
import { distanceId, quantityKey } from "./quantityId";

/** Help with a misread that the readings of a round show but cannot name. */
export interface MisreadHelp {
  /** Named once the pieces' lengths as cut are taken in; null when they do not name it either. */
  byCut: Suspect | null;
  /** What to measure besides, in words; empty when nothing would help. */
  ask: string[];
}

/** A workshop's angle gauge, deg (1 sigma). */
const U_GAUGE_DEG = 0.1;
/** A tape reading where none tells otherwise, mm. */
const U_TAPE_MM = 0.5;
const U_AS_CUT_MM = 2;

const CORNER_ANGLES = [
  ["D", "A", "B"],
  ["A", "B", "C"],
  ["B", "C", "D"],
  ["C", "D", "A"],
] as const;

function angleAt(from: string, at: string, to: string): Reading {
  return { kind: "angle", id: `${from}^${at}^${to}`, from, at, to, valueRad: 0, uRad: radians(U_GAUGE_DEG) };
}

const tapeBetween = (from: string, to: string): Reading => ({
  kind: "distance",
  id: `${from}-${to}`,
  from,
  to,
  valueMm: 0,
  uMm: U_TAPE_MM,
  realMm: REAL_CORNERS_MM,
});

/** Something that could be measured besides, and how one asks for it. */
type Asked = Candidate & { ask: string };

const AS_CUT = "the lengths of AB, BC, CD and DA as they were cut (under Cut list)";

/** What could be measured besides on a frame, cheapest first. */
function candidates(places: Places, readings: readonly Reading[], cut: readonly Reading[]): Asked[] {
  const { nodes } = places;
  const taken = new Set(readings.map((r) => r.id));
  const corners = CORNERS.every((c) => nodes[c]);
  const pieces: Reading[] = SIDES.map((s) => ({
    ...tapeBetween(...ends(s)),
    id: `${s} as cut`,
    uMm: U_AS_CUT_MM,
  }));
  const logged = cut.length === SIDES.length;
  const angles = corners ? CORNER_ANGLES.map(([p, q, t]) => ({ at: q, reading: angleAt(p, q, t) })) : [];
  const reached = new Set(readings.flatMap((r) => [r.from, r.to]));
  const loose = Object.keys(nodes).flatMap((p, i, all) =>
    all.slice(i + 1).flatMap((q) => {
      const id = quantityKey(distanceId(p, q));
      return reached.has(p) && reached.has(q) && !taken.has(id)
        ? [{ p, q, reading: { ...tapeBetween(p, q), id } }]
        : [];
    }),
  );
  return [
    ...(corners ? [{ readings: logged ? cut : pieces, cost: logged ? 0 : 4, ask: AS_CUT }] : []),
    ...loose
      .slice(0, 6)
      .map(({ p, q, reading }) => ({ readings: [reading], cost: 1, ask: `the distance from ${p} to ${q}` })),
    ...angles
      .filter(({ reading }) => !taken.has(reading.id))
      .map(({ at, reading }) => ({
        readings: [reading],
        cost: 2,
        ask: `the angle at ${at} with a gauge good to 0.1°`,
      })),
  ];
}

/**
 * What else tells which reading was misread: the pieces' lengths as cut, where they were logged, or the least that could be
 * measured besides.
 * @param readings that were fitted, with `fit` made of them. @param cut sides by their pieces' lengths, where logged.
 */
export function misreadHelp(
  places: Places,
  readings: readonly Reading[],
  tapes: Record<string, Tape>,
  fit: NetworkFit,
  cut: readonly Reading[],
): MisreadHelp {
  const suspects = fit.diagnosis.candidates.map((c) => c.id);
  const all = tapedTo(places);
  const nodes = Object.fromEntries(Object.keys(fit.points).map((n) => [n, all[n] ?? { x: 0, y: 0 }]));
  const known = readings.filter((r) => fit.readings.some((f) => f.id === r.id));
  if (cut.length > 0) {
    const { diagnosis } = adjustNetwork({ nodes, readings: [...known, ...cut], tapes });
    const [first] = diagnosis.candidates;
    if (diagnosis.status === "located" && first && suspects.includes(first.id)) return { byCut: first, ask: [] };
  }
  const besides = candidates(places, known, cut);
  const asked = oneMore(nodes, known, tapes, suspects, besides);
  const words = besides
    .filter((c) => !(cut.length === SIDES.length && c.ask === AS_CUT))
    .filter((c) => c.readings.some((r) => asked?.ids.includes(r.id)))
    .map((c) => c.ask);
  return { byCut: null, ask: [...new Set(words)] };
}
