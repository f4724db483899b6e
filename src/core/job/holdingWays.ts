import type { Structure } from "../frame";
import { type Lies, type OrderChoice, orderKey, orderWords } from "../plan";
import { outcomeWords } from "../shrink";
import type { UnitPreference } from "../units";
import { barProposals } from "./barProposals";
import { builtOf } from "./built";
import { chanceWords } from "./forecast";
import { usuallyLies } from "./held";
import type { Job } from "./jobSchema";
import { gainsMost } from "./orderAdvice";
import { EQUAL, type OrderOutlook } from "./orderOutlook";
import { worstWords } from "./outlookWords";
import type { Plan } from "./planSchema";
import { shortForce } from "./releaseWords";
import { bandWords } from "./words";

type HeldPlan = NonNullable<Plan["held"]>;

/** A way of holding a frame while it is welded. */
export interface HoldingWay {
  id:
    | "planned"
    | "clamped"
    | "weight"
    | "loose"
    | "stops"
    | "crossed"
    | "crossed clamped"
    | "corners"
    | "side"
    | "block"
    | "drawn"
    | "suited";
  say: string;
  plan: Pick<Plan, "held" | "aim">;
  /** How many things are put on besides what lies there anyhow. */
  takes: number;
}

/** The plan's own way without what is held in another. */
const held = (of: HeldPlan): Plan["held"] => (Object.keys(of).length > 0 ? of : undefined);

const sameHeld = (a: Plan["held"], b: Plan["held"], usual: Lies): boolean => {
  const text = (h: Plan["held"]): string =>
    JSON.stringify([h?.lies ?? usual, h?.stops ?? false, (h?.bars ?? []).map(({ size: _, ...bar }) => bar)]);
  return text(a) === text(b);
};

const count = (h: Plan["held"]): number => (h?.bars?.length ?? 0) + (h?.stops ? 1 : 0);

/** Ways in which a plan's frame could be held, the plan's own first; none twice, and none that this frame has no use for. */
export function holdingWays(plan: Plan, structure: Structure): HoldingWay[] {
  const { crossed, corners, sides, blocks } = barProposals(structure, plan.units);
  const onSurface = builtOf(plan).on === "surface";
  const usually = usuallyLies(plan);
  const canClamp = onSurface && usually === "clamped";
  const lies = plan.held?.lies;
  const usual = lies ? { lies } : {};
  const list: Omit<HoldingWay, "takes">[] = [
    { id: "planned", say: "As planned", plan: { held: plan.held, aim: plan.aim } },
    ...(canClamp ? ([{ id: "clamped", say: "Clamped flat", plan: { held: undefined, aim: plan.aim } }] as const) : []),
    ...(onSurface
      ? ([{ id: "weight", say: "By its own weight", plan: { held: { lies: "weight" }, aim: plan.aim } }] as const)
      : []),
    { id: "loose", say: onSurface ? "Loose" : "On its three rests", plan: { held: { lies: "loose" }, aim: plan.aim } },
    { id: "stops", say: "In the lay-out's stops", plan: { held: { ...usual, stops: true }, aim: plan.aim } },
    ...(crossed.length > 0
      ? ([
          {
            id: "crossed",
            say: "Two strongbacks crossed, loose",
            plan: { held: { lies: "loose", bars: crossed }, aim: plan.aim },
          },
          ...(canClamp
            ? [
                {
                  id: "crossed clamped" as const,
                  say: "Two strongbacks crossed, clamped flat",
                  plan: { held: { bars: crossed }, aim: plan.aim },
                },
              ]
            : []),
          {
            id: "corners",
            say: "Strongbacks over the corners",
            plan: { held: { ...usual, bars: corners }, aim: plan.aim },
          },
        ] as const)
      : []),
    ...(sides.length > 0
      ? ([
          {
            id: "side",
            say: "Temporary side over the mouth",
            plan: { held: { ...usual, bars: sides }, aim: plan.aim },
          },
          { id: "block", say: "Block in the mouth", plan: { held: { ...usual, bars: blocks }, aim: plan.aim } },
        ] as const)
      : []),
    ...(plan.aim === "set-up"
      ? ([{ id: "drawn", say: "As planned, but set up as drawn", plan: { held: plan.held, aim: "drawing" } }] as const)
      : ([
          { id: "drawn", say: "As planned, but set up off nominal", plan: { held: plan.held, aim: "set-up" } },
        ] as const)),
  ];
  const ways: HoldingWay[] = [];
  for (const way of list) {
    const own = { ...way, plan: { ...way.plan, held: way.plan.held && held(way.plan.held) } };
    if (ways.some((w) => w.plan.aim === own.plan.aim && sameHeld(w.plan.held, own.plan.held, usually))) continue;
    ways.push({ ...own, takes: count(own.plan.held) });
  }
  // What is planned is one of these: it is called by its name.
  const named = list.find(
    (w) => w.id !== "planned" && w.plan.aim === plan.aim && sameHeld(w.plan.held, plan.held, usually),
  );
  return ways.map((w) => (w.id === "planned" ? { ...w, say: named ? `${named.say}, as planned` : w.say } : w));
}

/** A way of holding with how the frame is likely to end. */
export interface HoldingOutlook {
  way: HoldingWay;
  outlook: OrderOutlook;
}

/** A job held another way. */
export const heldSo = (job: Job, { plan }: HoldingWay): Job => {
  const { held: _, ...rest } = job.plan;
  return { ...job, plan: { ...rest, aim: plan.aim, ...(plan.held ? { held: plan.held } : {}) } };
};

/** A way of holding to be worked through: in the order as planned, or in the one that suits it. */
export interface HoldingTrial {
  way: HoldingWay;
  inItsOrder: boolean;
}

/** What is worked through: every way as planned, or the plan's own as planned and each, that too, in the order that suits it. */
export function holdingTrials(ways: readonly HoldingWay[], suited: boolean): HoldingTrial[] {
  if (!suited) return ways.map((way) => ({ way, inItsOrder: false }));
  const [planned] = ways;
  if (!planned) return [];
  const own: HoldingWay = { ...planned, id: "suited", say: "Held as planned" };
  return [{ way: planned, inItsOrder: false }, ...[own, ...ways.slice(1)].map((way) => ({ way, inItsOrder: true }))];
}

/** What was worked through with one more; held as planned in the order as planned stands there already. */
export function withTrial(all: readonly HoldingOutlook[], found: HoldingOutlook): HoldingOutlook[] {
  const isThere =
    found.way.id === "suited" && all.some((o) => orderKey(o.outlook.choice) === orderKey(found.outlook.choice));
  return isThere ? [...all] : [...all, found];
}

/** What comparing ways of holding comes to: the one that is advised, with the numbers that bear it. */
export interface HoldingAdvice {
  way: HoldingWay | null;
  words: string[];
}

type Told = HoldingOutlook & { outlook: OrderOutlook & { chance: number } };

/**
 * The likeliest; of those that are equal to it the plan's own, else the one that takes least.
 * @param order as planned: a way that was worked through in another says which.
 */
export function holdingAdvice(all: readonly HoldingOutlook[], order: OrderChoice): HoldingAdvice {
  const named = ({ way, outlook: { choice } }: HoldingOutlook): string =>
    `${lower(way.say)}${orderKey(choice) === orderKey(order) ? "" : ` (${lower(orderWords(choice))})`}`;
  const told = all.filter((o): o is Told => o.outlook.chance !== null);
  if (told.length === 0)
    return {
      way: null,
      words: ["Nothing is predicted of the limits of this job: read the bands and the forces below."],
    };
  const top = Math.max(...told.map((o) => o.outlook.chance));
  const equal = told.filter((o) => top - o.outlook.chance < EQUAL);
  const planned = told.find((o) => o.way.id === "planned");
  const [least] = [...equal].sort(
    (a, b) => a.way.takes - b.way.takes || a.outlook.totalS - b.outlook.totalS || b.outlook.chance - a.outlook.chance,
  ) as [Told];
  // As good with less to put on is better; as good with as much is no reason to change.
  const advised = planned && equal.includes(planned) && planned.way.takes <= least.way.takes ? planned : least;
  const others = told.filter((o) => o !== advised).sort((a, b) => b.outlook.chance - a.outlook.chance);
  const [next] = others;
  const lost = planned && planned !== advised ? planned : next;
  const gain = lost && gainsMost(advised.outlook, lost.outlook);
  return {
    way: advised.way,
    words: [
      advised === planned
        ? `As planned is as good as any of these ${told.length}. Chance that every limit is kept: ${chanceWords(advised.outlook.chance)}. Less than ${100 * EQUAL} in 100 apart is equal.`
        : `Advised: ${named(advised)}. Chance that every limit is kept: ${chanceWords(advised.outlook.chance)}${planned ? `; as planned ${chanceWords(planned.outlook.chance)}` : ""}.${equal.length > 1 ? ` ${equal.length} of these are less than ${100 * EQUAL} in 100 apart, which is equal: of them it takes least.` : ""}`,
      ...(gain ? [`Against ${named(lost)} it gains most on ${gain}.`] : []),
    ],
  };
}

const lower = (words: string): string => words.replace(/^./, (c) => c.toLowerCase());

/** Forces that are let go with less are not told, N. */
const TOLD_N = 50;
/** A way that keeps its limits this surely needs no word on the limit that it keeps most seldom. */
const SURE = 0.95;

/** A way of holding in a line: its shape with the band, what is let go, and the limit that it keeps most seldom. */
export function wayWords({ outlook }: HoldingOutlook, tacksBearN: number, units: UnitPreference): string[] {
  const { letGo, chance, shape } = outlook;
  return [
    ...shape.map(({ id, estimate }) => `${outcomeWords(id)} ${bandWords(estimate, units, false)}`),
    letGo.highN >= TOLD_N
      ? `let go at one place: up to ${shortForce(letGo.highN, units)}`
      : "nothing to speak of is let go",
    ...(letGo.barN > tacksBearN
      ? [
          `a bar would hold up to ${shortForce(letGo.barN, units)}, its tacks bear ${shortForce(tacksBearN, units)}: longer tacks, or more bars`,
        ]
      : []),
    ...(chance !== null && chance < SURE
      ? [
          worstWords({ ...outlook, holdN: 0 }, units)
            .replace(/\.$/, "")
            .replace(/^./, (c) => c.toLowerCase()),
        ]
      : []),
  ];
}
