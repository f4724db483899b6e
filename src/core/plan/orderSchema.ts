import * as z from "zod";
import { TACK_SCHOOLS, WELD_SCHOOLS } from "./schoolIds";
import { stepIdSchema } from "./stepSchema";

/** Which order a frame is worked in: by a school for each part, or step by step as somebody laid it. */
export const orderChoiceSchema = z.discriminatedUnion("by", [
  z.strictObject({
    by: z.literal("schools"),
    tack: z.enum(TACK_SCHOOLS),
    weld: z.enum(WELD_SCHOOLS),
    /** Sub-assemblies are worked as one frame; one after the other when left out. */
    together: z.literal(true).optional(),
    /** After the last tack, what holds the frame off is cut, it is set square and flat, and tacked again. */
    cutAndSet: z.literal(true).optional(),
    /** Laid down with its underside up to begin with. */
    bottomUp: z.literal(true).optional(),
  }),
  z.strictObject({
    by: z.enum(["own", "computed"]),
    /** What it was begun from. */
    tack: z.enum(TACK_SCHOOLS),
    weld: z.enum(WELD_SCHOOLS),
    steps: z.array(stepIdSchema).max(3000, "At most 3000 steps."),
    bottomUp: z.literal(true).optional(),
  }),
]);
export type OrderChoice = z.infer<typeof orderChoiceSchema>;
