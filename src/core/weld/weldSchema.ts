import * as z from "zod";
import { lengthSchema } from "../units";
import { PROCESSES, type ProcessName } from "./heat";

/** Settings as they are read on the machine. */
export const weldSchema = z.strictObject({
  process: z.enum(Object.keys(PROCESSES) as [ProcessName, ...ProcessName[]]),
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
  tackLength: lengthSchema,
  /** Read on a machine, or those to begin with for the process and the wall: then volts, amps and travel follow these. */
  from: z.enum(["machine", "starting"]).optional(),
});
export type Weld = z.infer<typeof weldSchema>;
