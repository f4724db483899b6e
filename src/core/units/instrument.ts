import * as z from "zod";
import { INSTRUMENT_KINDS } from "./uncertainty";

/** One instrument of the shop, with what is known of its faults. All limits are +-. */
export const instrumentSchema = z.strictObject({
  id: z.string().min(1).max(36),
  name: z.string().trim().min(1, "Give the instrument a name.").max(80, "At most 80 characters."),
  kind: z.enum(INSTRUMENT_KINDS),
  /** Smallest step that is read, mm. */
  resolutionMm: z
    .number("Give the smallest step in mm.")
    .min(0.0001, "An instrument without a step has no uncertainty: give the smallest step that is read.")
    .max(50, "More than 50 mm is no instrument."),
  /** How far a careful reading may be off by handling (parallax, sag, line width), +-mm, new at each reading. */
  handlingMm: z
    .number("Give a number in mm.")
    .min(0, "Cannot be negative.")
    .max(50, "More than 50 mm is no instrument."),
  /** Error of the zero or hook, +-mm, the same in every reading of this instrument. */
  zeroMm: z.number("Give a number in mm.").min(0, "Cannot be negative.").max(50, "More than 50 mm is no instrument."),
  /** Error of the scale, +-mm in each metre, the same in every reading of this instrument. */
  scaleMmPerM: z
    .number("Give a number in mm per metre.")
    .min(0, "Cannot be negative.")
    .max(50, "More than 50 mm/m is no instrument."),
});
export type Instrument = z.infer<typeof instrumentSchema>;
