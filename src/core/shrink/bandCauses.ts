import { SCATTERS, type ScatterName } from "./draws";
import type { SimulatedOutcome } from "./simulate";

type Banded = Pick<SimulatedOutcome, "id" | "estimate" | "wide">;

const WORDS: Record<ScatterName, string> = {
  heat: "heat that all beads share",
  tacks: "tacks that differ one from another",
  beads: "beads that differ one from another",
  gaps: "gaps at the joints",
  joints: "how stiff the joints are",
  strength: "how strong the steel is",
};
/** What measured coupons leave of the scatter of shared heat. */
export const COUPON_LEAVES = 0.3;
/** Shares below this are not told. */
const LEAST = 0.08;
/** Bands of which less than this can be said hardly narrow. */
export const HARDLY = 0.05;
const QUANTITIES = [
  { kinds: ["length"], words: "lengths" },
  { kinds: ["square"], words: "AC less BD" },
  { kinds: ["flat"], words: "flatness" },
] as const;

const percent = (share: number): string => `${Math.round(100 * share)} %`;
/** By how much a band narrows when part of its variance goes. */
const narrower = (gone: number): number => 1 - Math.sqrt(Math.max(0, 1 - gone));

/**
 * By how much coupons would narrow the band of an outcome at least, as a share: from what shared heat makes of it by itself. What heat and
 * other things make together goes too, and is not in it.
 */
export const couponNarrows = ({ wide }: Banded): number => narrower((1 - COUPON_LEAVES ** 2) * (wide?.heat ?? 0));
/** By how much measuring the tacked frame before welding would: what the tacks did is known then. */
const tackedNarrows = ({ wide }: Banded): number => narrower(wide?.tacks ?? 0);

/** The outcomes of some kinds, taken together: each scatter's share as a mean weighted by the width of the bands. */
function together(outcomes: readonly Banded[], kinds: readonly string[]): Banded | null {
  const some = outcomes.filter((o) => o.wide && kinds.includes(o.id.kind));
  const [first] = some;
  if (!first) return null;
  const weight = some.map(({ estimate }) => (estimate.high - estimate.low) ** 2);
  const sum = weight.reduce((s, w) => s + w, 0);
  if (!(sum > 0)) return null;
  const share = (name: ScatterName): number =>
    some.reduce((s, o, i) => s + ((weight[i] ?? 0) / sum) * (o.wide?.[name] ?? 0), 0);
  return { ...first, wide: Object.fromEntries(SCATTERS.map((n) => [n, share(n)])) as Record<ScatterName, number> };
}

/**
 * What makes the bands of a frame wide, and what would narrow them, in words made from the draws of this very frame.
 * @returns nothing where there are no draws.
 */
export function bandCauses(outcomes: readonly Banded[]): string[] {
  const told = QUANTITIES.flatMap(({ kinds, words }) => {
    const whole = together(outcomes, kinds);
    return whole ? [{ words, whole }] : [];
  });
  if (told.length === 0) return [];
  const parts = told.map(({ words, whole }) => {
    const most = SCATTERS.map((name) => ({ name, share: whole.wide?.[name] ?? 0 }))
      .filter((s) => s.share >= LEAST)
      .sort((a, b) => b.share - a.share);
    const own = most.map(({ name, share }) => `${WORDS[name]} ${percent(share)}`);
    return `${words}: ${own.length > 0 ? own.join(", ") : "many small things"}`;
  });
  /** What something would do to each, told where it is worth telling. */
  const narrows = (what: string, of: (o: Banded) => number): string[] => {
    const some = told.filter(({ whole }) => of(whole) >= HARDLY);
    const rest = told.filter(({ whole }) => of(whole) < HARDLY).map(({ words }) => words);
    if (some.length === 0) return [];
    const most = some.map(({ words, whole }) => `that of ${words} by ${percent(of(whole))} or more`).join(", ");
    return [
      `${what} would narrow the bands: ${most}${rest.length > 0 ? `; that of ${rest.join(" and ")} little or not at all` : ""}.`,
    ];
  };
  return [
    `What makes the bands wide, by share of the variance. ${parts.join("; ")}.`,
    ...narrows("Coupons of this welding", couponNarrows),
    ...narrows("Measuring the tacked frame before it is welded", tackedNarrows),
  ];
}
