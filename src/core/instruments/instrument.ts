import * as z from "zod";
import { visibleName } from "../units";
import { INSTRUMENT_KINDS, READ_TO, SELF_TESTS } from "./uncertainty";

/** A moment as instruments note it. */
const momentSchema = z.iso.datetime({ precision: 3, message: "A time in ISO 8601, UTC, with milliseconds." });
/** An error of at most 50 mm either way: more is no instrument. */
const errorMm = z
  .number("Give a number in mm.")
  .min(-50, "More than 50 mm is no instrument.")
  .max(50, "More than 50 mm is no instrument.");

/**
 * One instrument of the shop, with what is known of its faults. All limits are +-. An instrument that reads slopes is known by
 * what it shows over one metre: its lengths are heights at the end of that metre.
 */
export const instrumentSchema = z.strictObject({
  id: z.string().min(1).max(36),
  name: visibleName("Give the instrument a name.", 80),
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
  /** Error of the scale (of an optical level: per metre of sight), +-mm in each metre, the same in every reading. */
  scaleMmPerM: z
    .number("Give a number in mm per metre.")
    .min(0, "Cannot be negative.")
    .max(50, "More than 50 mm/m is no instrument."),
  /** Found by a test and taken off every reading since: zero, mm (of a slope: mm over one metre). */
  foundZeroMm: errorMm.optional(),
  /** Found by a test and taken off: scale, or collimation of an optical level, mm per metre. */
  foundScaleMmPerM: errorMm.optional(),
  /** Read from this mark instead of from the end, mm: taken off every reading. */
  fromMarkMm: z.number("Give the mark in mm.").positive("A mark lies after the end.").max(1000).optional(),
  /** What one division of its bubble is, mm/m. */
  divisionMmPerM: z.number("Give mm/m.").positive("A division is more than nothing.").max(50).optional(),
  /** How far it reaches, mm; what is usual of its kind when left out. */
  reachMm: z.number("Give the reach in mm.").positive("It reaches further than nothing.").max(500_000).optional(),
  /** What lines it is read to. */
  readTo: z.enum(READ_TO).optional(),
  /** Leaves of a set: what is marked on them and what they are. */
  leaves: z
    .array(
      z.strictObject({
        markedMm: z.number().positive("A leaf is thicker than nothing.").max(50),
        trueMm: z.number().positive("A leaf is thicker than nothing.").max(50),
      }),
    )
    .max(60, "At most 60 leaves.")
    .optional(),
  /** A straightedge's own shape: how far it bulges down at each place along it. */
  edge: z
    .array(z.strictObject({ xMm: z.number().min(0).max(20_000), bulgeMm: errorMm }))
    .max(60, "At most 60 places.")
    .optional(),
  /** Where its limits come from: a class, a certificate. */
  limitsFrom: z.string().max(120, "At most 120 characters.").optional(),
  /** What is known to be wrong with it. */
  faults: z.string().max(300, "At most 300 characters.").optional(),
  /** Last test of its own. */
  checked: z.strictObject({ at: momentSchema, test: z.enum(SELF_TESTS), found: z.string().max(300) }).optional(),
  /** The instrument as it was known before: that one leaves the shelf, its readings keep what was known then. */
  replaces: z.string().min(1).max(36).optional(),
  /** Put away: not offered any more, kept for the readings that were made with it. */
  away: z.literal(true).optional(),
});
export type Instrument = z.infer<typeof instrumentSchema>;
