import { fail, fixed, ok, plainMm, type Result } from "../units";
import type { Instrument } from "./instrument";
import { levelReversal } from "./levelReversal";
import { turnedEdge } from "./straightedge";
import { collimationMmPerM } from "./twoPeg";
import { readingUncertainty, readsSlopes, type SelfTest } from "./uncertainty";

/** What was read in a test. Lengths in mm, slopes in mm per metre, sights in m. */
export type TestReadings =
  /** One length, read from the hook or end, and from a mark further along (as the tape shows it there). */
  | { test: "hook"; fromHookMm: number; fromMarkMm: number; markMm: number }
  /** A length that is known better. */
  | { test: "known length"; knownMm: number; uKnownMm: number; readMm: number }
  /** One place, the level turned end for end between; both with the level's own sign. */
  | { test: "reversal"; firstMmPerM: number; secondMmPerM: number }
  /** Rod at two pegs from the middle, then from near one of them. */
  | {
      test: "two pegs";
      a1Mm: number;
      b1Mm: number;
      a2Mm: number;
      b2Mm: number;
      a1M: number;
      b1M: number;
      a2M: number;
      b2M: number;
    }
  /** Each leaf with what a better instrument says of it. */
  | { test: "leaves"; uMm: number; leaves: readonly { markedMm: number; readMm: number }[] }
  /** Gaps under an edge at places along it, as it lies and turned over about its length. */
  | { test: "turned over"; places: readonly { xMm: number; firstMm: number; secondMm: number }[] };

/** What a test says of an instrument. */
export interface TestResult {
  /** Whether it reads as its shelf card says. */
  as: "sound" | "off";
  say: string;
  why: string;
  /** The instrument as it is known from now on. */
  updated: Omit<Instrument, "id">;
}

const TWO = 2;

/** A quantity known to u is within +- this, as limits are kept (rectangular). */
const limitOf = (u: number): number => u * Math.sqrt(3);

function shared(instrument: Instrument, at: string, test: SelfTest, found: string, change: Partial<Instrument>) {
  const { id, ...rest } = instrument;
  return { ...rest, ...change, replaces: id, checked: { at, test, found } };
}

/** An error that a test found, against what the shelf card allows. */
function judge(instrument: Instrument, errorMm: number, u: number, limitMm: number, what: string, unit: string) {
  const shown = `${fixed(errorMm, 2)} ± ${fixed(TWO * u, 2)} ${unit}`;
  const off = Math.abs(errorMm) > limitMm + TWO * u;
  return {
    as: off ? ("off" as const) : ("sound" as const),
    say: off
      ? `${instrument.name}: ${what} is ${shown}. It is taken off every reading from now on.`
      : `${instrument.name}: ${what} is ${shown}, within what its card says. It is taken off all the same.`,
    found: `${what} ${shown}`,
  };
}

/**
 * A guided test of an instrument, made by its owner: what it finds is taken off every later reading, and what is left unsure of
 * it takes the place of the limit on its card. Earlier readings keep the card that they were made with.
 * Sources: reversal, two pegs, turned edge: closed forms; hook and known length: difference of two readings.
 * @param at moment of the test, ISO 8601. @returns the new card, or what is wrong with the readings.
 */
export function selfTest(instrument: Instrument, read: TestReadings, at: string): Result<TestResult> {
  const { uMm } = readingUncertainty(instrument);
  const wasZero = instrument.foundZeroMm ?? 0;
  const card = (judged: ReturnType<typeof judge>, why: string, change: Partial<Instrument>): Result<TestResult> =>
    ok({
      as: judged.as,
      say: judged.say,
      why,
      updated: shared(instrument, at, read.test, judged.found, change),
    });
  switch (read.test) {
    case "hook": {
      if (!(read.fromHookMm > 0)) return fail("From the hook: a length is more than zero.");
      if (!(read.markMm > 0)) return fail("The mark lies after the end: 100 mm or 1 in.");
      if (read.fromMarkMm <= read.markMm)
        return fail(`From the mark the tape shows more than the mark itself (${plainMm(read.markMm)}).`);
      const error = read.fromHookMm - (read.fromMarkMm - read.markMm);
      const u = Math.SQRT2 * uMm;
      if (Math.abs(error) > 20)
        return fail(
          `The two differ by ${plainMm(error)}: that is no hook. Read both again; the mark was ${plainMm(read.markMm)}.`,
        );
      return card(
        judge(instrument, error, u, instrument.zeroMm, "the hook's error", "mm"),
        "The same length from a mark inside the tape does not know the hook. A worn hook was found wrong by 1.75 mm.",
        // Read from the hook it is corrected; what stays unsure is that of the two readings.
        { foundZeroMm: error, zeroMm: limitOf(u) },
      );
    }
    case "known length": {
      if (!(read.knownMm > 0) || !(read.readMm > 0)) return fail("A length is more than zero.");
      if (!(read.uKnownMm > 0)) return fail("What is known of the length is uncertain by something: give its ±.");
      const error = read.readMm - read.knownMm - wasZero;
      const u = Math.hypot(uMm, read.uKnownMm);
      const metres = read.knownMm / 1000;
      if (Math.abs(error) > Math.max(20, 20 * metres))
        return fail(`${plainMm(read.readMm)} against ${plainMm(read.knownMm)}: one of them is misread.`);
      const tape = instrument.kind === "tape" || instrument.kind === "rule";
      if (!tape)
        return card(
          judge(instrument, error, u, instrument.zeroMm, "its zero", "mm"),
          "One known length tells the zero of an instrument whose scale is sound.",
          { foundZeroMm: error + wasZero, zeroMm: limitOf(u) },
        );
      return card(
        judge(instrument, error / metres, u / metres, instrument.scaleMmPerM, "its scale", "mm/m"),
        "A long known length tells a stretched scale; the longer it is, the better.",
        { foundScaleMmPerM: error / metres, scaleMmPerM: limitOf(u / metres) },
      );
    }
    case "reversal": {
      if (!readsSlopes(instrument.kind)) return fail("Only a level is turned end for end.");
      const { zeroError, slope, u } = levelReversal(read.firstMmPerM, read.secondMmPerM, uMm, "level");
      if (Math.abs(zeroError) > 50)
        return fail("More than 50 mm/m of its own: read both again, each with the level's sign.");
      return card(
        judge(instrument, zeroError, u, instrument.zeroMm, "its own error", "mm/m"),
        `The place itself slopes ${fixed(slope, 2)} mm/m. Turned end for end, the slope changes its sign and the level's own error does not.`,
        { foundZeroMm: zeroError, zeroMm: limitOf(u) },
      );
    }
    case "two pegs": {
      const lever = read.a1M - read.b1M - (read.a2M - read.b2M);
      if ([read.a1M, read.b1M, read.a2M, read.b2M].some((d) => !(d >= 0)))
        return fail("A sight is nought metres or more.");
      if (Math.abs(lever) < 1)
        return fail("The sights are alike both times: stand in the middle first, then close to one peg.");
      const c = collimationMmPerM({
        a1: read.a1Mm,
        b1: read.b1Mm,
        a2: read.a2Mm,
        b2: read.b2Mm,
        distA1: read.a1M,
        distB1: read.b1M,
        distA2: read.a2M,
        distB2: read.b2M,
      });
      const u = (2 * uMm) / Math.abs(lever);
      if (Math.abs(c) > 20) return fail("More than 20 mm for each metre of sight: one of the rods is misread.");
      return card(
        judge(instrument, c, u, instrument.scaleMmPerM, "its line of sight rises by", "mm/m"),
        "From the middle a slanting sight errs alike on both pegs; from one end it does not. Equal sights need no correction.",
        { foundScaleMmPerM: c, scaleMmPerM: limitOf(u) },
      );
    }
    case "leaves": {
      if (read.leaves.length === 0) return fail("Measure one leaf or more.");
      const bad = read.leaves.findIndex((l) => !(l.markedMm > 0) || !(l.readMm > 0));
      if (bad >= 0) return fail(`Leaf ${bad + 1}: a leaf is thicker than nothing.`);
      const own = Math.hypot(read.uMm, instrument.zeroMm / Math.sqrt(3));
      const wrong = read.leaves.filter((l) => Math.abs(l.readMm - l.markedMm) > TWO * own);
      const names = wrong.map((l) => `${l.markedMm} is ${fixed(l.readMm, 3)}`).join(", ");
      const before = (instrument.leaves ?? []).filter((l) => !read.leaves.some((r) => r.markedMm === l.markedMm));
      return ok({
        as: wrong.length > 0 ? "off" : "sound",
        say:
          wrong.length > 0
            ? `${instrument.name}: ${names} mm. Stacks typed leaf by leaf are added with what they are.`
            : `${instrument.name}: every leaf is what is marked on it, within ${fixed(TWO * own, 3)} mm.`,
        why: "A mislabelled leaf, or one from another set, hides in every stack that it is used in.",
        updated: shared(instrument, at, "leaves", wrong.length > 0 ? `mislabelled: ${names} mm` : "all as marked", {
          leaves: [...before, ...read.leaves.map((l) => ({ markedMm: l.markedMm, trueMm: l.readMm }))].sort(
            (a, b) => a.markedMm - b.markedMm,
          ),
          ...(wrong.length > 0 ? { faults: `mislabelled leaf: ${names} mm`.slice(0, 300) } : {}),
        }),
      });
    }
    case "turned over": {
      if (read.places.length < 3) return fail("Read the gap at three places or more: both ends and the middle.");
      const places = [...read.places].sort((a, b) => a.xMm - b.xMm);
      if (places.some((p, i) => i > 0 && p.xMm === places[i - 1]?.xMm)) return fail("Two gaps at the same place.");
      if (places.some((p) => p.firstMm < 0 || p.secondMm < 0)) return fail("A gap is nought or more.");
      const { edgeMm } = turnedEdge(
        places.map((p) => p.firstMm),
        places.map((p) => p.secondMm),
      );
      // A gap is small where the edge bulges down: the edge's own share of the gap is minus its bulge.
      const bulge = edgeMm.map((e) => -e);
      const worst = bulge.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);
      return card(
        judge(instrument, worst, uMm / Math.SQRT2, instrument.zeroMm, "it bulges by", "mm"),
        "Turned over about its length, the edge's own shape changes its sign and the surface does not.",
        {
          edge: places.map((p, i) => ({ xMm: p.xMm, bulgeMm: bulge[i] as number })),
          zeroMm: limitOf(uMm / Math.SQRT2),
        },
      );
    }
  }
}
