import { type Offer, type Offered, onJudged, type RemedyContext } from "./remedy";

/** Minutes, chance to spoil something, scatter of the effect. Source: own judgement. */
const BEAD = { effortMin: 10, risk: 0.01, cv: 0.4 } as const;
const PEEN = { effortMin: 8, risk: 0, cv: 0.6 } as const;
const MOST_BEADS = 2;
/** Share of its contraction that peening gives back. Source: own judgement. */
const PEENED = 0.3;

/** One more bead over a seam: the same contraction again. */
export const moreBead = (context: RemedyContext): Offered => ({
  refused: [],
  offers: context.beads.map(
    ({ id, joint, face: line }): Offer => ({
      id: { do: "bead", joint, line },
      counts: "pieces",
      push: null,
      cautions: ["Grind the first bead down where the second must not stand proud."],
      option: { ...BEAD, effect: onJudged(context, context.more.get(id)), max: MOST_BEADS, unitSteps: true },
    }),
  ),
});

/** A bead hammered over: some of what it pulled comes back. */
export const peening = (context: RemedyContext): Offered => ({
  refused: [],
  offers: context.beads.map(
    ({ id, joint, face: line }): Offer => ({
      id: { do: "peen", joint, line },
      counts: "pieces",
      push: null,
      cautions: [
        "Cold, with a round-nosed hammer, not the first and not the last layer of a critical weld. Eyes and ears covered.",
      ],
      option: { ...PEEN, effect: onJudged(context, context.elastic.get(id), -PEENED), max: 1, unitSteps: true },
    }),
  ),
});
