import type { Footprint } from "../bed";
import { limitProblems } from "../check";
import { closingProblems, drillProblems, sawTestProblems, stockProblems } from "../cut";
import type { Rectangle } from "../frame";
import { CORNERS, type Corner, lineCrossing } from "../geometry";
import { add, cross, distance, scale, sub, unit, type Vec2 } from "../numeric";
import { length, type Problem, plainLength, rangeWords, stated, statedExactly, type UnitPreference } from "../units";
import { weldProblems } from "../weld";
import { builtOf, orderProblems } from "./built";
import { FORMAT } from "./format";
import { heldProblems } from "./held";
import type { Plan, Rest } from "./planSchema";
import { platesProblems } from "./plateBow";
import { materialOf, narrowestFaceMm, thinnestWallMm, weldOf } from "./settings";
import { usualStock } from "./usualStock";

/** What a frame lies on is no farther away than this, mm: else it is a slip of the unit. */
const FARTHEST_MM = 30_000;
const LEAST_BEARER_MM = 50;

/**
 * What keeps a plan from being stored. A frame that is being drawn is kept as it stands, clashes and all: only what could
 * not be read again, or is a slip of a number, is refused.
 */
export const refusals = (plan: Plan): Problem[] =>
  planProblems(plan).filter((p) => p.severity === "error" && !p.path.startsWith("frame.drawn."));

/** Everything wrong or doubtful in a plan, each at its field. Schema errors are not repeated here. */
export function planProblems(plan: Plan): Problem[] {
  const built = builtOf(plan);
  const found = [
    ...limitProblems(plan.limits, plan.units),
    ...built.problems,
    ...orderProblems(plan),
    ...heldProblems(built.structure, plan),
    ...platesProblems(plan),
    ...weldProblems(weldOf(plan), thinnestWallMm(plan), materialOf(plan), plan.units, narrowestFaceMm(plan)),
    ...stockProblems(plan.stock, plan.units),
    ...drillProblems(built.structure, plan.drill, plan.units),
    ...closingProblems(built.structure, plan.closing ?? [], plan.units),
    ...(plan.saw ? sawTestProblems(plan.saw.gap.mm, plan.saw.leg.mm, plan.units) : []),
  ];
  if (plan.bed.pitch.mm < 0.2 || plan.bed.pitch.mm > 10)
    found.push({
      path: "bed.pitch",
      message: `A foot's thread has a pitch of ${rangeWords(0.2, 10, plan.units)}.`,
      severity: "error",
    });
  for (const [i, leaf] of plan.bed.leaves.entries())
    if (leaf.mm < 0.01 || leaf.mm > 50)
      found.push({
        path: `bed.leaves.${i}`,
        message: `A shim is ${rangeWords(0.01, 50, plan.units)} thick, not ${plainLength(leaf.mm, plan.units)}.`,
        severity: "error",
      });
  found.push(...bedProblems(plan));
  const seen = new Set<string>();
  plan.bed.rests.forEach((rest, i) => {
    for (const axis of ["x", "y"] as const)
      if (Math.abs(rest[axis].mm) > FARTHEST_MM)
        found.push({
          path: `bed.rests.${i}.${axis}`,
          message: `${rest.id} is too far away for a rest. Check the unit.`,
          severity: "error",
        });
    const place = `${rest.x.mm}/${rest.y.mm}`;
    if (seen.has(place) || plan.bed.rests.findIndex((r) => r.id === rest.id) !== i)
      found.push({
        path: `bed.rests.${i}.x`,
        message: `${rest.id} stands where another rest already is.`,
        severity: "error",
      });
    seen.add(place);
  });
  return found;
}

/** What is wrong with what a frame is laid out on: holes, slots, trestles. */
function bedProblems({ fixture = {}, units }: Plan): Problem[] {
  const found: Problem[] = [];
  const error = (path: string, message: string) => found.push({ path, message, severity: "error" });
  for (const [key, what] of [
    ["holes", "Holes"],
    ["slots", "Slots"],
  ] as const) {
    const pitch = fixture[key]?.pitch.mm;
    if (pitch !== undefined && (pitch < 5 || pitch > 1000))
      error(`fixture.${key}.pitch`, `${what} are ${rangeWords(5, 1000, units)} apart. Check the unit.`);
  }
  fixture.bearers?.forEach(({ id, from, to }, i) => {
    const far = [["from", from] as const, ["to", to] as const].flatMap(([end, p]) =>
      (["x", "y"] as const).flatMap((axis) => (Math.abs(p[axis].mm) > FARTHEST_MM ? [`${end}.${axis}`] : [])),
    );
    for (const at of far)
      error(`fixture.bearers.${i}.${at}`, `${id} is too far away for what a frame lies on. Check the unit.`);
    if (Math.hypot(from.x.mm - to.x.mm, from.y.mm - to.y.mm) < LEAST_BEARER_MM)
      error(
        `fixture.bearers.${i}.to.x`,
        `${id} begins and ends at one place: a trestle or bar is ${plainLength(LEAST_BEARER_MM, units)} long or more.`,
      );
    if (fixture.bearers?.findIndex((b) => b.id === id) !== i)
      error(`fixture.bearers.${i}.from.x`, `There is a ${id} already.`);
  });
  return found;
}

/** Rests along AB and along CD, as shares of the way between the tubes' centres. */
const RESTS_ALONG = {
  3: [[0, 1], [0.5]],
  4: [
    [0, 1],
    [0, 1],
  ],
  6: [
    [0, 0.5, 1],
    [0, 0.5, 1],
  ],
} as const;

/** Places in a row by less than this carry nothing, mm. */
const ROW_MM = 20;

/** So many of some places or all, each as far from those before it as one lies: none where they lie in one row. */
function farApart(places: readonly Vec2[], count: number): Vec2[] {
  const [first] = places;
  if (!first) return [];
  const farthestFrom = (chosen: readonly Vec2[]): Vec2 =>
    places.reduce((best, p) => (nearest(p, chosen) > nearest(best, chosen) + 1e-6 ? p : best), first);
  const nearest = (p: Vec2, chosen: readonly Vec2[]): number => Math.min(...chosen.map((q) => distance(p, q)));
  const chosen = [farthestFrom([first])];
  while (chosen.length < Math.min(count, places.length)) {
    const next = farthestFrom(chosen);
    if (nearest(next, chosen) < ROW_MM) break;
    chosen.push(next);
  }
  const [p, q] = chosen;
  const long = p && q ? distance(p, q) : 0;
  const across = (r: Vec2): number => (p && q ? Math.abs(cross(sub(q, p), sub(r, p))) / Math.max(long, 1) : 0);
  return chosen.some((r) => across(r) > ROW_MM) ? chosen : [];
}

/** Corners of the same sides set in by so much: where the middles of tubes cross, however a corner leans. */
function setIn(corners: Record<Corner, Vec2>, byMm: number): Record<Corner, Vec2> {
  const way = cross(sub(corners.B, corners.A), sub(corners.D, corners.A)) < 0 ? -1 : 1;
  const inner = (corner: Corner, i: number): Vec2 => {
    const here = corners[corner];
    const [before, after] = [CORNERS.at(i - 1), CORNERS[(i + 1) % CORNERS.length]] as [Corner, Corner];
    const [u, v] = [unit(sub(here, corners[before])), unit(sub(corners[after], here))];
    // Where the letters go round to the left, inward lies to the left.
    const [p, q] = [u, v].map((w) => add(here, scale({ x: -w.y, y: w.x }, way * byMm))) as [Vec2, Vec2];
    return lineCrossing(p, u, q, v) ?? p;
  };
  return Object.fromEntries(CORNERS.map((c, i) => [c, inner(c, i)])) as Record<Corner, Vec2>;
}

/**
 * Rests of a frame without corners where its tubes lie, as far apart as they reach. Else at the centre of the tubes: two corners and the
 * middle across (3), under the corners (4), or under corners and middles
 * of AB and CD (6).
 */
export function restsUnder(
  over: Pick<Footprint, "lengthMm" | "widthMm" | "insetMm"> & Partial<Pick<Footprint, "touches" | "corners">>,
  count: 3 | 4 | 6,
  units: UnitPreference,
): Rest[] {
  const apart = farApart(over.touches ?? [], count);
  const { lengthMm: x, widthMm: y } = over;
  const box = { A: { x: 0, y: 0 }, B: { x, y: 0 }, C: { x, y }, D: { x: 0, y } };
  const on = setIn(over.corners ?? box, over.insetMm);
  const inCorners = [[on.A, on.B] as const, [on.D, on.C] as const].flatMap(([from, to], row) =>
    (RESTS_ALONG[count][row] ?? []).map((share) => add(from, scale(sub(to, from), share))),
  );
  const places = apart.length > 0 ? apart : inCorners;
  return places.map((p, i) => ({ id: `R${i + 1}`, x: stated(p.x, units), y: stated(p.y, units) }));
}

/** Points over the whole surface under a frame, from corner to corner, row by row: what a survey reads. */
export function restsGrid(
  over: Pick<Footprint, "lengthMm" | "widthMm">,
  along: number,
  across: number,
  units: UnitPreference,
): Rest[] {
  return Array.from({ length: along * across }, (_, i) => {
    const row = Math.floor(i / along);
    // To and fro, so that one walks round once.
    const column = row % 2 === 0 ? i % along : along - 1 - (i % along);
    return {
      id: `R${i + 1}`,
      // To the last digit: a point a hair off its line would make a survey by straightedge look open.
      x: statedExactly((column / (along - 1)) * over.lengthMm, units),
      y: statedExactly((row / (across - 1)) * over.widthMm, units),
    };
  });
}

/** A new job: common sizes, own limits, so that every screen has something true to say. */
export function newPlan(name: string, units: UnitPreference): Plan {
  const inch = units !== "mm";
  const l = (mm: string, inches: string) => (inch ? length(inches, "in") : length(mm));
  const sizes: Rectangle = {
    length: l("1000", "40"),
    width: l("600", "24"),
    section: inch
      ? { profile: "2×2×1/8 in", face: length("2", "in"), depth: length("2", "in"), wall: length("1/8", "in") }
      : { profile: "40×40×3", face: length("40"), depth: length("40"), wall: length("3") },
    material: "mild steel",
    crossRuns: "across",
    cross: [],
  };
  const over = { lengthMm: sizes.length.mm, widthMm: sizes.width.mm, insetMm: sizes.section.face.mm / 2 };
  return {
    format: FORMAT,
    name,
    purpose: "",
    carries: "furniture",
    units,
    limits: {
      kind: "own",
      length: { lower: l("-1.5", "-1/16"), upper: l("1.5", "1/16") },
      width: { lower: l("-1.5", "-1/16"), upper: l("1.5", "1/16") },
      square: { as: "diagonal", limit: l("3", "1/8") },
      flat: l("2", "3/32"),
      levelMmPerM: null,
      gap: null,
      flush: null,
    },
    frame: { by: "sizes", sizes },
    bed: {
      rests: restsUnder(over, 4, units),
      laid: 4,
      adjust: "shims",
      mode: "level",
      pitch: l("1.5", "0.06"),
      thread: "right",
      school: "surface",
      leaves: [],
    },
    aim: "set-up",
    weld: { process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, from: "starting" },
    stock: usualStock(units),
    saw: null,
    finish: "bare",
    drill: [],
  };
}
