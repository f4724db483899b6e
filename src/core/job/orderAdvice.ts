import { limitName } from "../check";
import { type OrderChoice, orderKey, orderWords } from "../plan";
import type { UnitPreference } from "../units";
import { chanceWords } from "./forecast";
import { isCutAndSet } from "./orderChoices";
import { EQUAL, type OrderOutlook } from "./orderOutlook";
import { mostWords } from "./outlookWords";

/** Chances below this are said to be unlikely whatever the order: then other changes are tried. */
const UNLIKELY = 0.5;

/** Where some orders keep what must wait, the others are none to advise. */
function allowed<T extends OrderOutlook>(outlooks: readonly T[]): readonly T[] {
  const kept = outlooks.filter((o) => o.keeps);
  return kept.length > 0 ? kept : outlooks;
}

/** The likeliest order where not even that is likely; null where there is a likely one, or nothing is told. */
export function unlikelyAtBest(outlooks: readonly OrderOutlook[]): OrderOutlook | null {
  const top = allowed(outlooks).reduce<OrderOutlook | null>(
    (a, o) => ((o.chance ?? -1) > (a?.chance ?? -1) ? o : a),
    null,
  );
  return top?.chance !== null && top !== null && top.chance < UNLIKELY ? top : null;
}

/** What comparing orders comes to. */
export interface OrderAdvice {
  /** The order that is advised; null where nothing can be told of any. */
  choice: OrderChoice | null;
  /** In words, each with the numbers that bear it. */
  words: string[];
}

/** By how much each limit is likelier kept in one order than in another; the one that gains most, where any gains enough to tell. */
export function gainsMost(by: OrderOutlook, than: OrderOutlook): string | null {
  const gains = by.limits.map(({ limit, chance }) => ({
    limit,
    gain: chance - (than.limits.find((l) => l.limit.id === limit.id)?.chance ?? chance),
  }));
  const most = gains.reduce<(typeof gains)[number] | null>((a, g) => (g.gain > (a?.gain ?? EQUAL) ? g : a), null);
  return most && limitName(most.limit);
}

/** The steps that matter most in an order, where any do. */
const mattering = (outlook: OrderOutlook, units: UnitPreference): string[] =>
  [mostWords(outlook, units)].filter((w) => w !== "");

type Told = OrderOutlook & { chance: number };

/** What cutting and setting the frame once more when it is tacked is worth, by the same schools with it and without. */
function cutWords(others: readonly Told[], told: readonly Told[]): string[] {
  return others.flatMap((other) => {
    const schools = withoutCut(other.choice);
    const same = told.find((o) => withoutCut(o.choice) === schools);
    if (!same) return [];
    const [by, than] = isCutAndSet(other.choice) ? [other, same] : [same, other];
    const minutes = Math.round((by.totalS - than.totalS) / 60);
    const gain = by.chance - than.chance;
    return [
      `Measured when all is tacked, what holds it off cut, the frame set and tacked again: ${chanceWords(by.chance)} instead of ${chanceWords(than.chance)} (${orderWords(than.choice).replace(/^./, (c) => c.toLowerCase())}), for about ${minutes} min more${gain < EQUAL ? ": not worth it by these numbers" : ""}.`,
    ];
  });
}

const withoutCut = (choice: OrderChoice): string => orderKey({ ...choice, cutAndSet: undefined } as OrderChoice);

/**
 * Which of several orders is advised, and why: the likeliest to keep every limit; of those that are equal to it the one as planned, else
 * a school before a computed order, then fewer turns.
 * @param outlooks by the same draws, any order. @param current as planned. @param units that amounts are told in.
 */
export function orderAdvice(
  outlooks: readonly OrderOutlook[],
  current: OrderChoice,
  units: UnitPreference,
): OrderAdvice {
  const any = outlooks.filter((o): o is Told => o.chance !== null);
  const all = allowed(any);
  // Cutting and setting once more is work of another kind: it is told beside the orders, with its gain.
  const told = all.filter((o) => isCutAndSet(o.choice) === isCutAndSet(current));
  const planned = told.find((o) => orderKey(o.choice) === orderKey(current));
  if (told.length === 0)
    return {
      choice: null,
      words: ["Nothing is predicted of the limits of this job, so no order is better than another."],
    };
  const top = Math.max(...told.map((o) => o.chance));
  const equal = told.filter((o) => top - o.chance < EQUAL);
  const advised =
    planned && equal.includes(planned)
      ? planned
      : ([...equal].sort(
          (a, b) =>
            Number(a.choice.by !== "schools") - Number(b.choice.by !== "schools") ||
            a.turns - b.turns ||
            b.chance - a.chance,
        )[0] as Told);
  const hopeless = top < UNLIKELY ? ["No order compared here makes it likely."] : [];
  const [first] = told[0]?.untold ?? [];
  const besides = first
    ? [`Not counted, for nothing is predicted of it: ${(told[0]?.untold ?? []).map(limitName).join(", ")}.`]
    : [];
  const without = [
    ...hopeless,
    ...cutWords(
      all.filter((o) => isCutAndSet(o.choice) !== isCutAndSet(current)),
      told,
    ),
    ...besides,
  ];
  if (advised === planned)
    return {
      choice: current,
      words: [
        `As planned is as good as any of the ${told.length} worked out here. Chance that every limit is kept: ${chanceWords(planned.chance)}. Less than ${100 * EQUAL} in 100 apart is equal.`,
        ...mattering(planned, units),
        ...without,
      ],
    };
  const isBroken = any.some((o) => !o.keeps && orderKey(o.choice) === orderKey(current));
  if (!planned)
    return {
      choice: advised.choice,
      words: [
        `Advised: ${orderWords(advised.choice).replace(/^./, (c) => c.toLowerCase())}. Chance that every limit is kept: ${chanceWords(advised.chance)}. ${isBroken ? "The order as planned does not keep what must wait, so it does not count." : "The order as planned was not among those compared: compare again."}`,
        ...without,
      ],
    };
  const gain = gainsMost(advised, planned);
  return {
    choice: advised.choice,
    words: [
      `Advised: ${orderWords(advised.choice).replace(/^./, (c) => c.toLowerCase())}. Chance that every limit is kept: ${chanceWords(advised.chance)}; as planned: ${chanceWords(planned.chance)}.${gain ? ` It gains most on ${gain}.` : ""}`,
      ...(advised.turns === planned.turns
        ? []
        : [`It turns the frame over ${advised.turns} times instead of ${planned.turns}.`]),
      ...mattering(advised, units),
      ...without,
    ],
  };
}
