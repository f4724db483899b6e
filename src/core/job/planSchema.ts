import * as z from "zod";
import { SHIM_MODES } from "../bed";
import { limitsSchema } from "../check";
import { drillSchema, FINISHES, sawTestSchema, stockSchema } from "../cut";
import { drawnFrameSchema, rectangleSchema } from "../frame";
import { lengthSchema, UNIT_PREFERENCES, type UnitPreference } from "../units";
import { weldSchema } from "../weld";
import { CARRIES } from "./carries";

export const restSchema = z.strictObject({
  id: z.string().regex(/^R[1-9]\d?$/, "Rests are named R1 to R99."),
  x: lengthSchema,
  y: lengthSchema,
});

export const bedSchema = z.strictObject({
  rests: z.array(restSchema).max(40, "At most 40 rests."),
  adjust: z.enum(["shims", "feet"]),
  mode: z.enum(SHIM_MODES),
  /** Thread pitch of the feet. */
  pitch: lengthSchema,
  thread: z.enum(["right", "left"]),
  /** A surface under the whole frame, or three points. */
  school: z.enum(["surface", "three"]).optional(),
  /** Shims at hand; a common set when left out. */
  leaves: z.array(lengthSchema).max(40, "At most 40 leaves.").optional(),
});

/** Everything about a job that is edited and saved as a whole, with a version. */
export const planSchema = z.strictObject({
  name: z.string().trim().min(1, "Give the job a name.").max(120, "At most 120 characters."),
  purpose: z.string().max(2000, "At most 2000 characters."),
  carries: z.enum(CARRIES),
  units: z.enum(UNIT_PREFERENCES as [UnitPreference, ...UnitPreference[]]),
  limits: limitsSchema,
  /** A rectangle by its sizes. */
  frame: rectangleSchema,
  /** Members drawn freely. Where it is there it is what is built, and `frame` is only kept for going back to it. */
  free: drawnFrameSchema.optional(),
  bed: bedSchema,
  /** What it is squared to before it is welded: off nominal for what the weld will do, or as drawn. */
  aim: z.enum(["set-up", "drawing"]).optional(),
  weld: weldSchema,
  /** What pieces are cut from; plans from before there was such a list have none. */
  stock: stockSchema.optional(),
  /** Last test of the saw, when there was one. */
  saw: sawTestSchema.optional(),
  /** What happens after welding; bare when nobody said. */
  finish: z.enum(FINISHES).optional(),
  /** Holes that are wanted besides the vents. */
  drill: z.array(drillSchema).max(99, "At most 99 holes.").optional(),
});
export type Plan = z.infer<typeof planSchema>;
export type Bed = z.infer<typeof bedSchema>;
export type Rest = z.infer<typeof restSchema>;
