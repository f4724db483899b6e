import * as z from "zod";
import { lengthSchema } from "../units";
import { DRILL_FACES, DRILL_FOR } from "./drill";

/** One hole that is wanted besides the vents: for a cable, a bolt, a hook. */
export const drillSchema = z.strictObject({
  id: z.string().regex(/^H[1-9]\d?$/, "Holes are named H1 to H99."),
  member: z.string().max(10),
  for: z.enum(DRILL_FOR),
  /** From the member's first end, along its centre line. */
  at: lengthSchema,
  face: z.enum(DRILL_FACES),
  diameter: lengthSchema,
  /** Through both walls. */
  through: z.boolean(),
});
export type Drill = z.infer<typeof drillSchema>;
