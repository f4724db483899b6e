import { limitName } from "../check";
import type { UnitPreference } from "../units";
import { chanceWords, type Forecast, forecastWords } from "./forecast";
import { EQUAL } from "./orderOutlook";

/** What was tried where no order makes it likely, with the chance that every limit is kept then. */
export interface Remedy {
  by: "set-up" | "side" | "block" | "strongbacks" | "heat" | "cut and set";
  chance: number;
}

/** Why no order makes it likely, and what would. */
export interface Remedies {
  /** The limit that is kept most seldom: how it is likely to end, and its chance by the draws. */
  worst: { forecast: Forecast; chance: number } | null;
  /** Chance in that order as things are. */
  chance: number;
  tried: Remedy[];
}

const SAID: Record<Remedy["by"], string> = {
  "set-up": "Set up off nominal, by what it is predicted to move",
  side: "With a side tacked across its open mouth before the first bead, cut off when it is cold",
  block: "With a block in its open mouth, until it is cold",
  strongbacks: "With two strongbacks tacked across, crossed, cut off when it is cold",
  heat: "With three tenths less heat in every bead",
  "cut and set": "Cut and set once more when it is tacked",
};

/** Why no order makes it likely and what would, in words, each with its number. */
export function remedyWords({ worst, chance, tried }: Remedies, units: UnitPreference): string[] {
  const why =
    worst === null
      ? []
      : [
          `What fails is ${limitName(worst.forecast.limit)}: in the likeliest order it is kept ${chanceWords(worst.chance)} (${forecastWords(worst.forecast, units)}). A limit that takes in those nine in ten would be kept.`,
        ];
  return [
    ...why,
    ...tried.map(({ by, chance: then }) => {
      const gain = then - chance;
      return `${SAID[by]}: ${chanceWords(then)} instead of ${chanceWords(chance)}${gain < EQUAL ? ", so no help" : ""}.`;
    }),
  ];
}
