import * as z from "zod";
import { lengthSchema } from "../units";

/** What pieces are cut from, and how the saw takes them. */
export const stockSchema = z.strictObject({
  bars: z
    .array(
      z.strictObject({
        id: z.string().regex(/^B[1-9]\d?$/, "Bars are named B1 to B99."),
        length: lengthSchema,
        /** In any currency, the same for all. */
        price: z.number().min(0, "A price is not negative.").max(1e6, "Over a million: check the price.").nullable(),
      }),
    )
    .max(12, "At most 12 lengths to buy."),
  offcuts: z
    .array(
      z.strictObject({
        id: z.string().regex(/^O[1-9]\d?$/, "Offcuts are named O1 to O99."),
        length: lengthSchema,
        quantity: z.int().min(1, "One at least.").max(50, "At most 50 of a kind."),
        /** Section that it is of; of the first one when nobody said. */
        section: z.string().max(4).optional(),
      }),
    )
    .max(20, "At most 20 kinds of offcut."),
  /** Pieces for something else that are cut from the same bars. */
  also: z
    .array(
      z.strictObject({
        id: z.string().regex(/^X[1-9]\d?$/, "Other pieces are named X1 to X99."),
        /** What it is. */
        name: z.string().max(40, "At most 40 characters."),
        length: lengthSchema,
        quantity: z.int().min(1, "One at least.").max(500, "At most 500 of a kind."),
        /** How its ends are cut, in words. */
        ends: z.string().max(60, "At most 60 characters."),
        section: z.string().max(4).optional(),
      }),
    )
    .max(60, "At most 60 kinds of other pieces.")
    .optional(),
  /** Width of the saw cut. */
  kerf: lengthSchema,
  /** End of a bar that the vice keeps. */
  grip: lengthSchema,
  /** Shortest offcut worth keeping. */
  least: lengthSchema,
  /** Turn every other mitred piece over, so that two of them share a cut. */
  flip: z.boolean(),
});
export type Stock = z.infer<typeof stockSchema>;
