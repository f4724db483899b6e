import type { DrawingUnit } from "./lineWork";

/** A distance between two points of an object, or the place of one, in a unit of its own. */
export interface Measure {
  kind: "distance" | "point";
  names: readonly string[];
  /** The distance, or x and y. */
  values: readonly number[];
}

/** Measures as one writes them down, a line each: see readSurvey. */
export const surveyFrom = (measures: readonly Measure[], unit: DrawingUnit): string =>
  measures
    .map(({ kind, names, values }) =>
      kind === "distance"
        ? `${names.join(" ")} ${values[0]} ${unit}`
        : `${names[0]} = ${values.map((v) => `${v} ${unit}`).join(", ")}`,
    )
    .join("\n");
