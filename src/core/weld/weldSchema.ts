import * as z from "zod";
import { type Length, lengthSchema } from "../units";
import { PROCESSES, type ProcessName } from "./heat";

const PROCESS_COUNT = Object.keys(PROCESSES).length;

const processSchema = z.enum(Object.keys(PROCESSES) as [ProcessName, ...ProcessName[]]);

/** What an arc burns with. */
const ARC = {
  volts: z
    .number("Give the voltage in volts.")
    .min(5, "Under 5 V no arc burns.")
    .max(50, "Over 50 V: check the reading."),
  amps: z
    .number("Give the current in amps.")
    .min(5, "Under 5 A no arc burns.")
    .max(600, "Over 600 A: check the reading."),
  travelMmPerS: z
    .number("Give the travel speed in mm per second.")
    .min(0.5, "Slower than 0.5 mm/s: check the unit.")
    .max(50, "Faster than 50 mm/s: check the unit."),
  /** Read on a machine, or those to begin with for the process and the wall: then volts, amps and travel follow these. */
  from: z.enum(["machine", "starting"]).optional(),
};

/** How one seam is laid, where it is not as the others are. */
const seamHowSchema = z.strictObject({
  /** Of its joint and face, as one word: see seamId. */
  id: z.string().min(1).max(60),
  /** In so many lengths, the arc moved on after each; whole when left out. */
  lengths: z.int().min(2, "At least 2 lengths.").max(12, "At most 12 lengths.").optional(),
  /** Begun at the end where such a seam is usually ended. */
  turned: z.literal(true).optional(),
  /** By another process than the other beads. */
  process: processSchema.optional(),
});
export type SeamHow = z.infer<typeof seamHowSchema>;

/** Settings as they are read on the machine. */
export const weldSchema = z.strictObject({
  process: processSchema,
  ...ARC,
  /** As long as one begins with where it is left out. */
  tackLength: lengthSchema.optional(),
  /** Tacks by another process than the beads. */
  tackProcess: processSchema.optional(),
  /** Settings of processes besides, each once; to begin with where none are kept. */
  others: z
    .array(z.strictObject({ id: processSchema, ...ARC }))
    .max(PROCESS_COUNT)
    .optional(),
  seams: z.array(seamHowSchema).max(1600, "At most 1600 seams.").optional(),
});
/** Settings that are welded with, what a plan leaves out filled in. */
export type Weld = z.infer<typeof weldSchema> & { tackLength: Length };
