import { radians, type Candidate as Suspect } from "../numeric";
import {
  adjustNetwork,
  type Candidate,
  type NetworkFit,
  oneMore,
  type Places,
  type Reading,
  type Tape,
} from "../square";

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
});

/** What could be measured besides on a frame, cheapest first. */
function candidates(places: Places, readings: readonly Reading[], cut: readonly Reading[]): Candidate[] {
  const { nodes } = places;
  const taken = new Set(readings.map((r) => r.id));
  const rectangle = CORNER_ANGLES[0].every((c) => nodes[c]);
  const pieces: Reading[] = (["AB", "BC", "CD", "DA"] as const).map((s) => ({
    ...tapeBetween(s[0] as string, s[1] as string),
    id: `${s} as cut`,
    uMm: U_AS_CUT_MM,
  }));
  const angles = rectangle ? CORNER_ANGLES.map(([p, q, t]) => angleAt(p, q, t)) : [];
  const others = Object.keys(nodes).flatMap((p, i, all) => all.slice(i + 1).map((q) => tapeBetween(p, q)));
  const reached = new Set(readings.flatMap((r) => [r.from, r.to]));
  const loose = others.filter(
    (r) =>
      !taken.has(r.id) &&
      !taken.has(`${r.from}${r.to}`) &&
      !taken.has(`${r.to}${r.from}`) &&
      reached.has(r.from) &&
      "to" in r &&
      reached.has(r.to),
  );
  return [
    ...(rectangle ? [{ readings: cut.length === 4 ? cut : pieces, cost: cut.length === 4 ? 0 : 4 }] : []),
    ...loose.slice(0, 6).map((r) => ({ readings: [r], cost: 1 })),
    ...angles.filter((r) => !taken.has(r.id)).map((r) => ({ readings: [r], cost: 2 })),
  ];
}

/** A reading as one would ask for it. */
export function askWords(id: string): string {
  const angle = id.split("^");
  if (angle.length === 3) return `the angle at ${angle[1]} with a gauge good to 0.1°`;
  if (id.endsWith(" as cut")) return "the lengths of AB, BC, CD and DA as they were cut (under Cut list)";
  const [from, to] = id.split("-");
  return `the distance from ${from} to ${to}`;
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
  const nodes = Object.fromEntries(Object.keys(fit.points).map((n) => [n, places.nodes[n] ?? { x: 0, y: 0 }]));
  const known = readings.filter((r) => fit.readings.some((f) => f.id === r.id));
  if (cut.length > 0) {
    const { diagnosis } = adjustNetwork({ nodes, readings: [...known, ...cut], tapes });
    const [first] = diagnosis.candidates;
    if (diagnosis.status === "located" && first && suspects.includes(first.id)) return { byCut: first, ask: [] };
  }
  const asked = oneMore(nodes, known, tapes, suspects, candidates(places, known, cut));
  const ids = asked?.ids.filter((id) => !(cut.length === 4 && id.endsWith(" as cut"))) ?? [];
  return { byCut: null, ask: [...new Set(ids.map(askWords))] };
}
