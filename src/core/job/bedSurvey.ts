import { type Survey, type SurveyReading, survey } from "../bed";
import type { BedHeights } from "../check";
import { bulgeAt, type Instrument, readingUncertainty } from "../instruments";
import type { Vec2 } from "../numeric";
import type { Length, Slant } from "../units";
import type { How } from "./entrySchema";
import type { Rest } from "./planSchema";
import type { Mean, Round, Standing } from "./rounds";

/** A round of the bed, adjusted: every reading of it, by whichever method. */
interface BedSurvey {
  survey: Survey;
  /** Keys of readings that name a rest which is no longer there. */
  orphaned: string[];
}

/** How a rest was read where the entry does not say: as its round says. */
const usualHow = (round: Round): How =>
  round.round.method === "rod" ? { by: "rod", setUp: 1, sightM: null } : { by: "height", datum: 1 };

/** Which way the level pointed, averaged over what is averaged: turned end for end its own error drops out, and this is nought. */
function directionOf({ repeats }: Standing<Length> | Standing<Slant>): number {
  const ways = repeats.map((r) => (r.how?.by === "slope" && r.how.arrow === "back" ? -1 : 1));
  return ways.reduce<number>((s, w) => s + w, 0) / Math.max(1, ways.length);
}

function readingOf(
  key: string,
  what: string,
  how: How,
  mean: Mean,
  instrument: Instrument,
  places: ReadonlyMap<string, Vec2>,
  direction: number,
): SurveyReading {
  const base = { id: key, at: what, uMm: mean.uMm };
  const { uZeroMm } = readingUncertainty(instrument);
  switch (how.by) {
    case "height":
      return { ...base, by: "height", mm: mean.mm, datum: String(how.datum) };
    case "rod": {
      const tilt = instrument.foundScaleMmPerM ?? 0;
      return {
        ...base,
        by: "rod",
        mm: mean.mm - (how.sightM === null ? 0 : tilt * how.sightM),
        setUp: String(how.setUp),
        level: instrument.id,
        sightM: how.sightM,
      };
    }
    case "slope": {
      const [p, q] = [places.get(how.from), places.get(what)] as [Vec2, Vec2];
      const metres = Math.hypot(p.x - q.x, p.y - q.y) / 1000;
      return {
        ...base,
        by: "slope",
        from: how.from,
        // Slopes are noted as the bed lies: a level that points back errs the other way.
        mmPerM: mean.mm + (1 - direction) * (instrument.foundZeroMm ?? 0),
        uMm: mean.uMm * metres,
        level: instrument.id,
        direction,
      };
    }
    case "difference":
      return { ...base, by: "difference", from: how.from, mm: mean.mm, uMm: Math.hypot(mean.uMm, uZeroMm) };
    case "edge": {
      const [p, q] = [places.get(how.from), places.get(what)] as [Vec2, Vec2];
      return {
        ...base,
        by: "edge",
        // What is not known of the edge's own shape lies in each gap.
        uMm: Math.hypot(mean.uMm, uZeroMm),
        from: how.from,
        to: how.to,
        gapMm: mean.mm,
        blocksMm: [how.blocks[0].mm, how.blocks[1].mm],
        bulgeMm: bulgeAt(instrument.edge, Math.hypot(p.x - q.x, p.y - q.y)),
      };
    }
  }
}

/**
 * A round of the bed as a survey.
 * @param rests of the plan. @param means of the round's readings. @param instruments the shelf.
 */
export function bedSurvey(
  round: Round,
  rests: readonly Rest[],
  means: ReadonlyMap<string, Mean>,
  instruments: readonly Instrument[],
): BedSurvey {
  const places = new Map(rests.map((r) => [r.id, { x: r.x.mm, y: r.y.mm }]));
  const orphaned: string[] = [];
  const shared: Record<string, number> = {};
  const readings = [...round.readings.values(), ...round.slants.values()].flatMap((s): SurveyReading[] => {
    const how = s.how ?? usualHow(round);
    const mean = means.get(s.key);
    const instrument = instruments.find((i) => i.id === s.instrumentId);
    if (!mean || !instrument) return [];
    const rest = s.what.kind === "rest" ? s.what.rest : "";
    const names = [rest, ...("from" in how ? [how.from] : []), ...("to" in how ? [how.to] : [])];
    if (names.some((n) => !places.has(n))) {
      orphaned.push(s.key);
      return [];
    }
    const u = readingUncertainty(instrument);
    const alike = how.by === "rod" ? u.uScale * 1000 : how.by === "slope" ? u.uZeroMm : 0;
    shared[instrument.id] = Math.max(alike, shared[instrument.id] ?? 0);
    return [readingOf(s.key, rest, how, mean, instrument, places, directionOf(s))];
  });
  return { survey: survey(places, readings, shared), orphaned };
}

/** What a survey says of the heights; nothing when it does not hang together. */
export const heightsOf = (s: Survey): BedHeights =>
  s.status === "ok" || s.status === "ok_no_check"
    ? { points: s.points, heightsMm: s.zMm, cov: s.cov, levelKnown: s.levelKnown }
    : { points: [], heightsMm: {}, cov: [], levelKnown: true };
