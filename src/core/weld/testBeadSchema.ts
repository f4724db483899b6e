import * as z from "zod";
import { MATERIALS, type MaterialName } from "../frame";
import { visibleName } from "../units";
import { SEAM_KINDS, SEAM_POSITIONS } from "./starting";
import { BEAD_RESULTS } from "./testBead";
import { weldSchema } from "./weldSchema";

/** A bead on scrap with the settings that it was laid with: kept for good, as it was. */
export const testBeadSchema = z.strictObject({
  id: z.uuid("A test bead needs an id of its own."),
  at: z.iso.datetime({ precision: 3, message: "A time in ISO 8601, UTC, with milliseconds." }),
  origin: visibleName("Say who laid it.", 60),
  ...weldSchema.pick({ process: true, volts: true, amps: true, travelMmPerS: true }).shape,
  wallMm: z
    .number("Give the wall.")
    .min(0.4, "Thinner than 0.4 mm is no tube.")
    .max(60, "Thicker than 60 mm is no tube."),
  material: z.enum(Object.keys(MATERIALS) as [MaterialName, ...MaterialName[]]),
  seam: z.enum(SEAM_KINDS),
  position: z.enum(SEAM_POSITIONS),
  result: z.enum(BEAD_RESULTS),
  note: z.string().trim().max(300, "At most 300 characters."),
});
export type TestBead = z.infer<typeof testBeadSchema>;
