import * as z from "zod";
import { lengthSchema } from "../units";
import { CORNER_WAYS } from "./frameWords";
import { MATERIAL_NAMES } from "./materials";

const sectionSchema = z.strictObject({
  /** Name in the table, or null for a size of one's own. */
  profile: z.string().max(60).nullable(),
  face: lengthSchema,
  depth: lengthSchema,
  wall: lengthSchema,
});

const crossMemberSchema = z.strictObject({
  id: z.string().regex(/^M[1-9]\d?$/, "Cross members are named M1 to M99."),
  /** From the outside of DA (or AB, when it runs along) to the member's centre line. */
  at: lengthSchema,
});

/** One rectangular frame, cross members all running one way. */
export const rectangleSchema = z.strictObject({
  /** AB and CD, outside. */
  length: lengthSchema,
  /** BC and DA, outside. */
  width: lengthSchema,
  section: sectionSchema,
  material: z.enum(MATERIAL_NAMES),
  /** `across`: from AB to CD. `along`: from DA to BC. */
  crossRuns: z.enum(["across", "along"]),
  cross: z.array(crossMemberSchema).max(40, "At most 40 cross members."),
  corners: z.enum(CORNER_WAYS).optional(),
  /** Root gap left at every joint; none when left out. */
  gap: lengthSchema.optional(),
  /** Faces whose beads are ground flush. */
  ground: z
    .array(z.enum(["top", "bottom"]))
    .max(2)
    .optional(),
  /** A cap on each end that stands open. */
  caps: z.boolean().optional(),
});
export type Rectangle = z.infer<typeof rectangleSchema>;
