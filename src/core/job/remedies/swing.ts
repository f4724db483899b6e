import { outOf, type Structure } from "../../frame";
import { CORNERS } from "../../geometry";
import { dot, norm, sub, type Vec2 } from "../../numeric";
import type { PullAt, UnitDeed } from "../../shrink";
import { type Places, placesOf } from "../../square";
import { cantileverOf, turning } from "./cantilever";
import { aside, type FreeEndOff, keysOf, movedBy } from "./freeEnds";
import { tooMuch } from "./pushable";
import { LEAST_EFFECT, mostOf, type Offer, type Offered, type RemedyContext } from "./remedy";
import { swung } from "./swung";

/** Minutes, chance to spoil something, scatter with a reading after each push. Source: own judgement. */
const SWING = { effortMin: 8, risk: 0.02, cv: 0.1 } as const;
/** A strap that leaves its member by less than this, sine, hardly turns it. */
const LEAST_SINE = 0.3;

/** A free end that may be pushed across its member, with the place that it is drawn to or pushed away from. */
interface Swing extends FreeEndOff {
  id: string;
  by: string;
  way: "toward" | "away";
  /** Share of the pull that goes across. */
  sine: number;
}

/** Places that a strap or a jack holds on to, for a free end: the corners; without them every other place. */
const holdsOf = ({ nodes, freeEnds }: Places, { quad }: Structure, member: string): string[] =>
  quad ? [...CORNERS] : Object.keys(nodes).filter((n) => freeEnds[n]?.member !== member);

/** Free ends that stand aside, each with what it is drawn to; where nothing stands on that side, with what it is pushed away from. */
function swings(structure: Structure, places: Places, quantities: RemedyContext["quantities"]): Swing[] {
  return aside(structure, places, quantities).flatMap((end): Swing[] => {
    const at = places.nodes[end.place] as Vec2;
    const held = holdsOf(places, structure, end.member)
      .map((by) => {
        const to = sub(places.nodes[by] as Vec2, at);
        return { by, sine: dot(to, end.across) / (norm(to) || 1) };
      })
      .sort((p, q) => q.sine - p.sine || (p.by < q.by ? -1 : 1));
    const [to, from] = [held[0], held.at(-1)];
    if (to && to.sine >= LEAST_SINE) return [{ ...end, ...to, id: `${end.place}-${to.by}`, way: "toward" }];
    if (from && from.sine <= -LEAST_SINE)
      return [{ ...end, by: from.by, sine: -from.sine, id: `${end.place}-${from.by}`, way: "away" }];
    return [];
  });
}

/** Free ends that stand aside, pulled towards the place that they are held on to. */
export function swingPulls(structure: Structure, quantities: RemedyContext["quantities"]): UnitDeed[] {
  const places = placesOf(structure);
  const at = (name: string): PullAt => places.freeEnds[name] ?? { joint: places.joints[name] ?? "" };
  return swings(structure, places, quantities).map(({ id, place, by }) => ({
    ...{ id, do: "pull", from: at(place), to: at(by) },
  }));
}

/** A free end drawn or pushed across past yield; what springs back is the frame's own give. */
export function swing({ structure, quantities, elastic, plan }: RemedyContext): Offered {
  const places = placesOf(structure);
  const refused: string[] = [];
  const offers = swings(structure, places, quantities).flatMap((s): Offer[] => {
    const { id, place, by, way, across, asideMm, sine } = s;
    const perN = Math.abs(dot(across, movedBy(elastic.get(id), place)));
    const effect = swung(places, { [place]: across }, Object.keys(quantities));
    const own = Math.abs(dot(across, movedBy(effect, place)));
    const arm = cantileverOf(structure, s.member, s.end);
    if (!arm || perN === 0 || own <= LEAST_EFFECT) return [];
    const turned = turning([{ ...arm, normal: outOf(places.view) }], `The end of ${s.member}, ${place},`);
    if ("why" in turned) {
      refused.push(turned.why);
      return [];
    }
    const forceN = turned.forceN / sine;
    const springbackMm = forceN * perN;
    const why = tooMuch({ springbackMm, forceN, sideMm: turned.armMm }, plan.units);
    if (why) {
      refused.push(`Pushing ${place} across past yield ${why}.`);
      return [];
    }
    const [of] = keysOf(place).sort((p, q) => Math.abs(effect[q] ?? 0) - Math.abs(effect[p] ?? 0));
    return [
      {
        id: { do: "swing", place, by, way },
        counts: "mm",
        push: { springbackMm, forceN, mmPerUnit: 1 / Math.abs(effect[of] ?? 1), of },
        cautions: [
          way === "toward"
            ? "A strap or chain that parts flies: nobody in line with it. Pad what it lies round."
            : "A jack or screw on pads that reach both side walls; what slips out flies: nobody over it.",
          `Watch the seams where ${arm.leg.id} stands on ${arm.root.id}, and stop where one opens.`,
        ],
        option: { ...SWING, effect, max: mostOf(asideMm) / own, risk: SWING.risk + turned.risk },
      },
    ];
  });
  return { offers, refused };
}
