// The four jobs of Fernhollow Clayworks' metal shop. Shop, jobs, people and readings are all made up.
import { v5 as uuidv5 } from "uuid";
import { footprint } from "../../src/core/bed";
import { type DrawnFrame, fromRectangle, member, type Rectangle, STARTERS } from "../../src/core/frame";
import { SPANS } from "../../src/core/geometry";
import { SHELF } from "../../src/core/instruments";
import {
  builtOf,
  CLOSE,
  type Entry,
  frameTeachingOf,
  type How,
  type Job,
  newPlan,
  type Plan,
  type QuantityId,
  restsUnder,
  spanId,
  type TickId,
} from "../../src/core/job";
import type { Lesson } from "../../src/core/learn";
import type { Gate, Step } from "../../src/core/plan";
import { type BareUnit, length } from "../../src/core/units";

const NAMESPACE = "6f0e4a52-6a0f-4b62-9d0c-3d2f6a1b7c11";
const uuid = (name: string): string => uuidv5(name, NAMESPACE);

/** What is read, by the short word that the lists below use: AB a side or diagonal, zA the height of a corner, R1 a rest. */
function quantity(word: string): QuantityId {
  const span = SPANS.find((s) => s === word);
  if (span) return spanId(span);
  return word.startsWith("z") ? { kind: "height", at: word.slice(1) } : { kind: "rest", rest: word };
}

/** Writes the entries of one job as if they had been made one after the other. */
class Record {
  readonly entries: Entry[] = [];
  private minute = 0;
  private readonly start: number;
  private round = "";

  constructor(
    private readonly job: string,
    start: string,
    private readonly unit: BareUnit = "mm",
    private readonly by = "Odo, bench",
  ) {
    this.start = Date.parse(start);
  }

  private base(gap: number) {
    this.minute += gap;
    const at = new Date(this.start + this.minute * 60_000).toISOString();
    return { id: uuid(`${this.job}/${this.entries.length}`), at, origin: this.by };
  }

  get lastAt(): string {
    return this.entries.at(-1)?.at ?? new Date(this.start).toISOString();
  }

  measure(
    gate: Gate,
    instrumentId: string,
    values: { [what: string]: string },
    method: "heights" | "rod" = "heights",
  ): this {
    const base = this.base(6);
    this.round = base.id;
    this.entries.push({ kind: "round", ...base, gate, method });
    return this.more(instrumentId, values);
  }

  more(instrumentId: string, values: { [what: string]: string }): this {
    for (const [what, text] of Object.entries(values))
      this.entries.push({
        kind: "reading",
        ...this.base(0.7),
        roundId: this.round,
        instrumentId,
        what: quantity(what),
        value: length(text, this.unit),
      });
    return this;
  }

  /** Readings of a bed by other methods than its round's. */
  also(instrumentId: string, list: readonly [what: string, how: How, text: string][]): this {
    for (const [what, how, text] of list)
      this.entries.push({
        kind: "reading",
        ...this.base(0.7),
        roundId: this.round,
        instrumentId,
        what: quantity(what),
        how,
        value: how.by === "slope" ? { value: Number(text), text, slant: "mm/m" } : length(text, this.unit),
      });
    return this;
  }

  tick(...steps: TickId[]): this {
    for (const step of steps) this.entries.push({ kind: "tick", ...this.base(2.5), step, done: true });
    return this;
  }

  later(minutes: number): this {
    this.minute += minutes;
    return this;
  }

  note(text: string): this {
    this.entries.push({ kind: "note", ...this.base(1), text });
    return this;
  }
}

function jobOf(name: string, createdAt: string, plan: Plan, record: Record): { job: Job; changedAt: string } {
  const used = new Set(record.entries.flatMap((e) => (e.kind === "reading" ? [e.instrumentId] : [])));
  return {
    job: {
      id: uuid(name),
      createdAt,
      version: 1,
      plan,
      instruments: SHELF.filter((i) => used.has(i.id)),
      entries: record.entries,
    },
    changedAt: record.lastAt,
  };
}

const tube = (profile: string, face: string, depth: string, wall: string, unit: BareUnit = "mm") => ({
  profile,
  face: length(face, unit),
  depth: length(depth, unit),
  wall: length(wall, unit),
});

/** Sets rests under a frame; the order that it is built in. */
function withRests(plan: Plan, count: 4 | 6): { plan: Plan; steps: Step[] } {
  const { structure, order } = builtOf(plan);
  const over = structure && footprint(structure);
  if (!over || !order) throw new Error(`The frame of ${plan.name} cannot be built.`);
  return { plan: { ...plan, bed: { ...plan.bed, rests: restsUnder(over, count, plan.units) } }, steps: order.steps };
}

/** Steps of an order from one to before another. */
const part = (steps: readonly Step[], from: string | null, to: string): TickId[] => {
  const at = (key: string): number => {
    const i = steps.findIndex((s) => s.key === key);
    if (i < 0) throw new Error(`The order of the demo has no step ${key}.`);
    return i;
  };
  return steps.slice(from === null ? 0 : at(from), at(to)).map((s) => s.id);
};

/** Sizes of a rectangle that starts from what a new job has. */
const sizes = (base: Plan, own: Partial<Rectangle>): Rectangle => ({ ...base.frame.sizes, ...own });

function wareCart(): { job: Job; changedAt: string } {
  const base = newPlan("Ware cart base", "mm");
  const frame = sizes(base, {
    length: length("1200"),
    width: length("800"),
    section: tube("40×40×3", "40", "40", "3"),
    cross: [
      { id: "M1", at: length("400") },
      { id: "M2", at: length("800") },
    ],
  });
  const drawing: Plan = {
    ...base,
    purpose:
      "Carries boards of green ware from the throwing room to the kiln. Four castors under the corners; top must sit flat.",
    frame: { by: "sizes", sizes: frame },
    limits: {
      kind: "own",
      length: { lower: length("-1.6"), upper: length("+1.6") },
      width: { lower: length("-1.6"), upper: length("+1.6") },
      square: { as: "diagonal", limit: length("2.5") },
      flat: length("2"),
      levelMmPerM: null,
      gap: null,
      flush: null,
    },
    bed: { ...base.bed, mode: "best_fit" },
  };
  const { plan, steps } = withRests(drawing, 6);
  const record = new Record("Ware cart base", "2026-11-19T08:05:00.000Z")
    .measure(
      "bed",
      "level-rod",
      { R1: "1412.5", R2: "1413", R3: "1412.0", R4: "1411.5", R5: "1413", R6: "1412.5" },
      "rod",
    )
    .note("Old bed: channel on trestles. R2 sits on the weld seam of the channel.")
    .measure("bed", "height-gauge", { R1: "0.35", R2: "0.10", R3: "0.55", R4: "0.60", R5: "0.15", R6: "0.40" })
    .also("spirit-level", [
      ["R2", { by: "slope", from: "R1", arrow: "on" }, "-0.4"],
      ["R3", { by: "slope", from: "R2", arrow: "on" }, "0.8"],
      ["R5", { by: "slope", from: "R4", arrow: "on" }, "-0.8"],
      ["R6", { by: "slope", from: "R5", arrow: "on" }, "0.4"],
    ])
    .also("straightedge", [
      ["R2", { by: "edge", from: "R1", to: "R3", blocks: [length("5"), length("5")] }, "5.35"],
      ["R5", { by: "edge", from: "R4", to: "R6", blocks: [length("5"), length("5")] }, "5.30"],
    ])
    .tick(...part(steps, null, "measure/dry fit"))
    .measure("dry fit", "tape-100", {
      AB: "1200.5",
      BC: "800.5",
      CD: "1200.5",
      DA: "800.5",
      AC: "1445.0",
      BD: "1440.5",
    })
    .measure("dry fit", "tape-100", {
      AB: "1200.5",
      BC: "800.5",
      CD: "1200.5",
      DA: "800.5",
      AC: "1443.0",
      BD: "1442.5",
    })
    .tick(...part(steps, "measure/dry fit", "measure/tacked"))
    .measure("tacked", "tape-100", { AB: "1200.5", BC: "800.5", CD: "1200.5", DA: "800.5", AC: "1442.0", BD: "1443.5" })
    .note("Corner B had closed on its tack. Bumped side CD back before the outside tacks.")
    .measure("tacked", "tape-100", { AB: "1200.5", BC: "800.5", CD: "1200.5", DA: "800.5", AC: "1443.0", BD: "1442.5" })
    .tick(...part(steps, "measure/tacked", "measure/tacked-2"))
    .measure("tacked", "tape-100", { AB: "1200.5", BC: "800.5", CD: "1200.0", DA: "800.5", AC: "1443.0", BD: "1442.0" })
    .later(35)
    .tick(...part(steps, "measure/tacked-2", "bead/D/top"));
  return jobOf("Ware cart base", "2026-11-18T15:20:00.000Z", plan, record);
}

function gateLeaf(): { job: Job; changedAt: string } {
  const base = newPlan("Courtyard gate leaf", "mm");
  const frame = sizes(base, {
    length: length("1800"),
    width: length("1000"),
    section: tube("50×30×3", "50", "30", "3"),
    crossRuns: "along",
    cross: [{ id: "M1", at: length("520") }],
  });
  const drawn = fromRectangle(frame, "mm");
  const drawing: Plan = {
    ...base,
    purpose:
      "Gate leaf for the courtyard, hung on DA. M1 is the middle rail, X1 the brace up from the foot of the hinge side.",
    carries: "people",
    frame: {
      by: "members",
      sizes: frame,
      drawn: { ...drawn, members: [...drawn.members, member("X1", [25, 25, 15], [1775, 520, 15], "S1", "mm")] },
    },
    limits: { kind: "class", linear: "B", flat: "F", levelMmPerM: null, confirmed: {} },
    weld: { ...base.weld, volts: 17.5, amps: 110 },
  };
  const { plan, steps } = withRests(drawing, 6);
  const record = new Record("Courtyard gate leaf", "2026-11-09T07:50:00.000Z", "mm", "Wren, bench")
    .measure(
      "bed",
      "level-rod",
      { R1: "1508.5", R2: "1508", R3: "1508.0", R4: "1509", R5: "1508.5", R6: "1508.5" },
      "rod",
    )
    .tick(...part(steps, null, "measure/dry fit"))
    .measure("dry fit", "tape-ii", { AB: "1800.5", BC: "1000.5", CD: "1800.5", DA: "1000.5", AC: "2059", BD: "2061.5" })
    .measure("dry fit", "tape-ii", { AB: "1800.5", BC: "1000.5", CD: "1800.5", DA: "1000.5", AC: "2060", BD: "2060" })
    .tick(...part(steps, "measure/dry fit", "measure/tacked"))
    .measure("tacked", "tape-ii", {
      AB: "1800.5",
      BC: "1000.5",
      CD: "1800.5",
      DA: "1000.5",
      AC: "2060.5",
      BD: "2059.5",
    })
    .tick(...part(steps, "measure/tacked", "measure/tacked-2"))
    .measure("tacked", "tape-ii", { AB: "1800.5", BC: "1000.5", CD: "1800.5", DA: "1000.5", AC: "2060", BD: "2059.5" })
    .later(25)
    .tick(...part(steps, "measure/tacked-2", "wait/cold"))
    .note("Wind through the yard door; screen put up before the inside beads.")
    .later(90)
    .tick(...part(steps, "wait/cold", "measure/cold"))
    .measure("cold", "tape-ii", { AB: "1800", BC: "1000", CD: "1800", DA: "1000.5", AC: "2059.5", BD: "2059.0" })
    .more("feeler", { zA: "0", zB: "0", zC: "0", zD: "0.9" })
    .tick({ do: "measure", gate: "cold", nth: 1 })
    .note("Lifted at D by 0.9 mm with A, B and C down. Hung and swinging.")
    .tick(CLOSE);
  return jobOf("Courtyard gate leaf", "2026-11-06T13:00:00.000Z", plan, record);
}

function loftDeck(): { job: Job; changedAt: string } {
  const base = newPlan("Drying-loft deck", "mm");
  const frame = sizes(base, {
    length: length("2400"),
    width: length("1200"),
    section: tube("60×40×3", "40", "60", "3"),
    cross: Array.from({ length: 9 }, (_, i) => ({ id: `M${i + 1}`, at: length(String(240 * (i + 1))) })),
  });
  const drawing: Plan = {
    ...base,
    purpose: "Deck of the drying loft: boards of ware and one person. Sits on the ring beam, bolted at the corners.",
    carries: "people",
    frame: { by: "sizes", sizes: frame },
    limits: { kind: "class", linear: "B", flat: "F", levelMmPerM: 1, confirmed: {} },
    weld: { ...base.weld, volts: 19, amps: 130 },
  };
  const { plan } = withRests(drawing, 6);
  const record = new Record("Drying-loft deck", "2026-11-20T16:10:00.000Z", "mm", "Wren, desk").note(
    "The engineer's drawing asks for 60 on edge. Ring beam measured 2402 × 1203 inside: deck stays 2400 × 1200.",
  );
  return jobOf("Drying-loft deck", "2026-11-20T15:40:00.000Z", plan, record);
}

/** Top frame, legs and stretchers of the stand, 30 in high. */
function kilnDrawn(): DrawnFrame {
  const starter = STARTERS.find((s) => s.name === "table base");
  const section: DrawnFrame["sections"][number] = {
    id: "S1",
    shape: "tube",
    profile: "1 1/2×1 1/2×1/8 in",
    width: length("1 1/2", "in"),
    height: length("1 1/2", "in"),
    wall: length("1/8", "in"),
    material: "mild steel",
  };
  const stand = { length: 47.25 * 25.4, width: 23.625 * 25.4, height: 30 * 25.4, stretchers: "H", low: 6 * 25.4 };
  const built = starter?.build(stand, section, "inch-fraction");
  if (!built?.ok) throw new Error("The stand of the demo cannot be built.");
  const free = built.value;
  const ab = free.members.find((m) => m.id === "AB");
  const cd = free.members.find((m) => m.id === "CD");
  if (!ab || !cd) throw new Error("The stand of the demo has no top frame.");
  const x = 23.625 * 25.4;
  const top = member("M1", [x, ab.from.y.mm, ab.from.z.mm], [x, cd.from.y.mm, cd.from.z.mm], "S1", "inch-fraction");
  return {
    ...free,
    members: [...free.members, top],
    groups: [
      { id: "U1", name: "top frame", members: ["AB", "BC", "CD", "DA", "M1"] },
      { id: "U2", name: "legs and stretchers", members: ["L1", "L2", "L3", "L4", "T1", "T2", "T3"] },
    ],
  };
}

function kilnStand(): { job: Job; changedAt: string } {
  const base = newPlan("Kiln-shelf stand", "inch-fraction");
  const inch = (text: string) => length(text, "in");
  const frame = sizes(base, {
    length: inch("47 1/4"),
    width: inch("23 5/8"),
    section: tube("1 1/2×1 1/2×1/8 in", "1 1/2", "1 1/2", "1/8", "in"),
    cross: [{ id: "M1", at: inch("23 5/8") }],
  });
  const drawing: Plan = {
    ...base,
    purpose:
      "Stand for kiln shelves: top frame with its middle member M1, four legs, stretchers near the floor. The top frame is built first and squared; the legs are set on it.",
    frame: { by: "members", sizes: frame, drawn: kilnDrawn() },
    limits: {
      kind: "own",
      length: { lower: inch("-1/16"), upper: inch("0") },
      width: { lower: inch("-1/16"), upper: inch("0") },
      square: { as: "mm/m", limit: 2 },
      flat: inch("1/16"),
      levelMmPerM: 1.5,
      gap: null,
      flush: null,
    },
    bed: { ...base.bed, adjust: "feet", pitch: length("1.5", "mm") },
    weld: { ...base.weld, process: "TIG", volts: 14, amps: 110, travelMmPerS: 2.5 },
  };
  const { plan, steps } = withRests(drawing, 4);
  const record = new Record("Kiln-shelf stand", "2026-11-23T09:30:00.000Z", "in")
    .measure("bed", "height-gauge", { R1: "0.4 mm", R2: "1.9 mm", R3: "0.7 mm", R4: "1.1 mm" })
    .tick(...part(steps, null, "measure/dry fit"))
    .measure("dry fit", "rule", {
      AB: "47 1/4",
      BC: "23 5/8",
      CD: "47 1/4",
      DA: "23 5/8",
      AC: "52 13/16",
      BD: "52 7/16",
    })
    .note("BD read again: the rule had slipped off the corner.")
    .more("rule", { BD: "52 13/16" })
    .tick(...part(steps, "measure/dry fit", "measure/tacked"))
    .measure("tacked", "rule", { AB: "47 1/4", BC: "23 5/8", CD: "47 1/4", DA: "23 5/8", AC: "52 7/8", BD: "52 3/4" });
  return jobOf("Kiln-shelf stand", "2026-11-23T09:10:00.000Z", plan, record);
}

/** The demo jobs, each at another stage. */
export const demoJobs = (): { job: Job; changedAt: string }[] => [wareCart(), gateLeaf(), loftDeck(), kilnStand()];

/** What the shop has put in its book: two coupons of plate, and the gate leaf, by its record. */
export function demoLessons(): Lesson[] {
  const coupon = (n: number, day: string, afterMm: number): Lesson => ({
    kind: "coupon",
    id: uuid(`coupon ${n}`),
    at: `${day}T14:10:00.000Z`,
    origin: "Wren, bench",
    ...{ process: "MAG", volts: 18, amps: 120, travelMmPerS: 5 },
    ...{ material: "mild steel", wallMm: 3, uMm: 0.06 },
    beforeMm: 100,
    afterMm,
    coupon: { of: "butt" },
  });
  const leaf = frameTeachingOf(gateLeaf().job);
  return [
    coupon(1, "2026-11-05", 99.61),
    coupon(2, "2026-11-05", 99.66),
    ...(leaf.ok
      ? [
          {
            kind: "frame" as const,
            id: uuid("lesson of the gate leaf"),
            at: "2026-11-10T15:30:00.000Z",
            origin: "Wren, bench",
            ...leaf.taught.lesson,
          },
        ]
      : []),
  ];
}
