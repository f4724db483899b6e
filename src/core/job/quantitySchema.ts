import * as z from "zod";

/** Name of a place on a frame: a corner `A`, a joint `M1AB`, a diagonal. */
const place = z.string().regex(/^[A-Z][A-Z0-9]{0,9}$/, "Not a place on a frame.");
const restName = z.string().regex(/^R[1-9]\d?$/, "Rests are named R1 to R99.");
const memberName = z.string().regex(/^[A-Z][A-Z0-9]{0,5}$/, "Not a member of a frame.");

/** What a reading is of. */
export const quantityIdSchema = z.discriminatedUnion("kind", [
  /** A piece as cut, long point to long point. */
  z.strictObject({ kind: z.literal("piece"), member: memberName }),
  z.strictObject({ kind: z.literal("rest"), rest: restName }),
  /** A side or diagonal of the corners A to D, or between any two places. */
  z.strictObject({ kind: z.literal("distance"), from: place, to: place }),
  z.strictObject({ kind: z.literal("angle"), from: place, at: place, to: place }),
  /** How far `of` lies off the line between two others, to the left of one who looks along it. */
  z.strictObject({ kind: z.literal("offset"), of: place, from: place, to: place }),
  z.strictObject({ kind: z.enum(["height", "flush", "gap", "straightness", "edge", "level"]), at: place }),
  /** `held`: the corner that was pressed down; null for the free frame. */
  z.strictObject({ kind: z.literal("rock"), held: z.enum(["A", "B", "C", "D"]).nullable() }),
]);
export type QuantityId = z.infer<typeof quantityIdSchema>;
