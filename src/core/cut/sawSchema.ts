import * as z from "zod";
import { lengthSchema } from "../units";

/** A test of the saw by two mitred pieces. */
export const sawTestSchema = z.strictObject({
  gap: lengthSchema,
  /** From the corner to where the gap was seen. */
  leg: lengthSchema,
  placing: z.enum(["pieces inside square", "square inside pieces"]),
  gapAt: z.enum(["toe", "heel"]),
});
export type SawTestReading = z.infer<typeof sawTestSchema>;
