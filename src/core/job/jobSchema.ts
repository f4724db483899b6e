import * as z from "zod";
import { instrumentSchema } from "../instruments";
import { entrySchema, timeSchema, versionSchema } from "./entrySchema";
import { planSchema } from "./planSchema";

/** A whole job: the plan as it stands and everything that was entered, in order. */
export const jobSchema = z.strictObject({
  id: z.uuid(),
  createdAt: timeSchema,
  version: versionSchema,
  plan: planSchema,
  instruments: z.array(instrumentSchema).max(500),
  entries: z.array(entrySchema).max(50_000),
});
type Read = z.infer<typeof jobSchema>;
/** Entries are only ever added: who adds one makes another list. */
export type Job = Omit<Read, "entries"> & { entries: readonly Read["entries"][number][] };
