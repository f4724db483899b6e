import { z } from "zod";
import { lengthSchema } from "../units";
import { MATERIAL_NAMES } from "./materials";

/** Corners anticlockwise seen from above: A bottom-left, B bottom-right, C top-right, D top-left. */
export const CORNERS = ["A", "B", "C", "D"] as const;
export type Corner = (typeof CORNERS)[number];

/** Sides in walking order. */
export const SIDES = ["AB", "BC", "CD", "DA"] as const;
export type Side = (typeof SIDES)[number];
export const DIAGONALS = ["AC", "BD"] as const;
export const SPANS = [...SIDES, ...DIAGONALS] as const;
/** Everything that is taped on a rectangle: four sides, two diagonals. */
export type Span = (typeof SPANS)[number];

export const sectionSchema = z.strictObject({
  /** Name in the table, or null for a size of one's own. */
  profile: z.string().max(60).nullable(),
  face: lengthSchema,
  depth: lengthSchema,
  wall: lengthSchema,
});

export const crossMemberSchema = z.strictObject({
  id: z.string().regex(/^M[1-9]\d?$/, "Cross members are named M1 to M99."),
  /** From the outside of DA (or AB, when it runs along) to the member's centre line. */
  at: lengthSchema,
});

/** One rectangular frame with mitred corners, cross members all running one way. */
export const frameSchema = z.strictObject({
  /** AB and CD, outside. */
  length: lengthSchema,
  /** BC and DA, outside. */
  width: lengthSchema,
  section: sectionSchema,
  material: z.enum(MATERIAL_NAMES),
  /** `across`: from AB to CD. `along`: from DA to BC. */
  crossRuns: z.enum(["across", "along"]),
  cross: z.array(crossMemberSchema).max(40, "At most 40 cross members."),
});
export type Frame = z.infer<typeof frameSchema>;
