import type { Survey } from "../bed";
import { fixed, formatSmall, type UnitPreference } from "../units";
import type { BedRound } from "./bedRound";
import type { How } from "./entrySchema";
import { quantityWords } from "./quantityId";

/** How a rest is read, as one says it. */
export function howWords(how: How | undefined): string {
  if (!how) return "as the round";
  switch (how.by) {
    case "height":
      return `height from datum ${how.datum}`;
    case "rod":
      return `rod, set-up ${how.setUp}${how.sightM === null ? "" : `, ${how.sightM} m away`}`;
    case "slope":
      return `level from ${how.from}${how.arrow === "back" ? ", arrow back" : ""}`;
    case "difference":
      return `height above ${how.from}`;
    case "edge":
      return `gap under an edge from ${how.from} to ${how.to}`;
  }
}

/** Name of a reading of a survey by its key: `R2, level from R1`. */
export function surveyReadingWords(round: Pick<BedRound, "readings" | "slants">, key: string): string {
  const s = round.readings.get(key) ?? round.slants.get(key);
  if (!s) return key;
  const rest = quantityWords(s.what);
  return s.how ? `${rest}, ${howWords(s.how)}` : rest;
}

/** What a survey says of itself: whether it hangs together, closes, and which reading looks wrong. */
export function surveyWords(
  round: Pick<BedRound, "readings" | "slants" | "survey" | "orphaned">,
  u: UnitPreference,
): { say: string; wrong: boolean } {
  const { survey } = round;
  const small = (mm: number): string => formatSmall(mm, u, { decimals: 2 });
  const gone =
    round.orphaned.length > 0
      ? ` Left out, for a rest that is no longer there: ${round.orphaned.map((k) => surveyReadingWords(round, k)).join("; ")}.`
      : "";
  const said = wordsOf(survey, (key) => surveyReadingWords(round, key), small);
  return { say: `${said.say}${gone}`, wrong: said.wrong };
}

function wordsOf(
  survey: Survey,
  name: (key: string) => string,
  small: (mm: number) => string,
): { say: string; wrong: boolean } {
  switch (survey.status) {
    case "nothing":
      return { say: "Nothing read yet.", wrong: false };
    case "disconnected":
      return {
        say: `Nothing ties ${survey.unreached.join(", ")} to the other rests: read one of them from a rest that is read already.`,
        wrong: true,
      };
    case "loose":
      return {
        say: `The height of ${survey.loose.join(", ")} is left open: each gap under an edge needs the heights that the edge lies on.`,
        wrong: true,
      };
    case "ok_no_check":
      return { say: "Every reading counts once: a misread one could not be noticed. Read one more.", wrong: false };
    case "ok": {
      const { diagnosis, agree, freedom } = survey;
      const names = diagnosis.candidates.map((c) => name(c.id));
      if (diagnosis.status === "located") {
        const slip = diagnosis.candidates[0]?.slip ?? 0;
        return { say: `${names[0]} looks misread by about ${small(Math.abs(slip))}: read it again.`, wrong: true };
      }
      if (diagnosis.status === "detected_not_located")
        return {
          say: `One of these looks misread, and the readings cannot say which: ${names.join("; ")}.`,
          wrong: true,
        };
      if (!agree)
        return {
          say: "The readings disagree a little more than their instruments should. Read the largest one again.",
          wrong: true,
        };
      const finest = Math.max(...survey.readings.filter((r) => r.controlled).map((r) => r.detectableMm));
      return {
        say: `It closes: ${fixed(freedom, 0)} ${freedom === 1 ? "reading" : "readings"} more than needed, none looks wrong. A slip shows from about ${small(finest)}.`,
        wrong: false,
      };
    }
  }
}
