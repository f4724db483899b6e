import * as z from "zod";
import { lengthSchema } from "../units";
import { FLAT_CLASSES, LINEAR_CLASSES } from "./iso13920";

/** Deviation from nominal, as in +0/-1.6. Null leaves that side open. */
const deviationSchema = z.strictObject({ lower: lengthSchema.nullable(), upper: lengthSchema.nullable() });
export type Deviation = z.infer<typeof deviationSchema>;

const slope = z
  .number("Give a number in mm per metre.")
  .positive("Must be more than zero.")
  .max(100, "More than 100 mm/m is no limit.");

/** What flatness is: the least distance of two planes that hold all heights, or the largest gap with one corner held down. */
export const FLAT_BY = ["slab", "held"] as const;
export type FlatBy = (typeof FLAT_BY)[number];
const flatBy = z.enum(FLAT_BY).optional();

const ownSchema = z.strictObject({
  kind: z.literal("own"),
  length: deviationSchema,
  width: deviationSchema,
  /** Worst corner in mm/m, or the difference of the diagonals. */
  square: z
    .discriminatedUnion("as", [
      z.strictObject({ as: z.literal("diagonal"), limit: lengthSchema }),
      z.strictObject({ as: z.literal("mm/m"), limit: slope }),
    ])
    .nullable(),
  flat: lengthSchema.nullable(),
  flatBy,
  /** Bow of a member between its ends; null or left out when nobody minds. */
  straight: lengthSchema.nullable().optional(),
  levelMmPerM: slope.nullable(),
  /** Gap at a joint before welding, and step between two parts that shall be flush; null when nobody minds. */
  gap: lengthSchema.nullable(),
  flush: lengthSchema.nullable(),
  /** Aimed at: the middle of the limits, unless the drawing's size is wanted. */
  aim: z.enum(["middle", "drawing"]).optional(),
});
const figure = z.number("Give a number.").positive("Must be more than zero.").max(100, "That is no limit.");
const classSchema = z.strictObject({
  kind: z.literal("class"),
  linear: z.enum(LINEAR_CLASSES),
  flat: z.enum(FLAT_CLASSES),
  flatBy,
  levelMmPerM: slope.nullable(),
  /** Figures of the class that were looked up and corrected; the rest stay from memory. */
  confirmed: z.strictObject({
    lengthMm: figure.optional(),
    widthMm: figure.optional(),
    angleMmPerM: figure.optional(),
    flatMm: figure.optional(),
  }),
});
export const limitsSchema = z.discriminatedUnion("kind", [ownSchema, classSchema]);
export type Limits = z.infer<typeof limitsSchema>;
