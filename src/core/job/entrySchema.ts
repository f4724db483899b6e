import * as z from "zod";
import { GATES } from "../plan";
import { lengthSchema } from "../units";

/** A moment, UTC, with milliseconds, in years that a database can hold. */
export const timeSchema = z.iso
  .datetime({ precision: 3, message: "A time in ISO 8601, UTC, with milliseconds." })
  .refine((t) => t >= "1970" && t < "2200", "A time between 1970 and 2199.");

/** Number of a saved plan. */
export const versionSchema = z.int().positive().max(1_000_000, "No job is saved a million times.");

/** Every entry is kept for good: nothing here is ever changed or taken away. */
const base = {
  id: z.uuid("An entry needs an id of its own."),
  /** When it was made, on the maker's clock, UTC. */
  at: timeSchema,
  /** Who or which device. */
  origin: z.string().trim().min(1, "Say who made it.").max(60, "At most 60 characters."),
};

export const METHODS = ["heights", "rod"] as const;

/** A round of measuring at one gate. */
export const roundSchema = z.strictObject({
  kind: z.literal("round"),
  ...base,
  gate: z.enum(GATES),
  /** For the bed: heights up from a datum, or rod readings under a level line (larger is lower). */
  method: z.enum(METHODS),
});

/** One reading of a round. A later one of the same quantity takes its place; both stay in the record. */
export const readingSchema = z.strictObject({
  kind: z.literal("reading"),
  ...base,
  roundId: z.uuid(),
  instrumentId: z.string().min(1).max(36),
  /** `AB`, `AC`, a rest `R1`, the height of a corner `zA`, or a cross member `M1`. */
  what: z.string().regex(/^(z[A-D]|[A-Z][A-Z0-9]{0,5})$/, "Not something that is measured here."),
  /** Null takes the reading back. */
  value: lengthSchema.nullable(),
});

export const tickSchema = z.strictObject({
  kind: z.literal("tick"),
  ...base,
  step: z.string().min(1).max(80),
  done: z.boolean(),
});

export const noteSchema = z.strictObject({
  kind: z.literal("note"),
  ...base,
  text: z.string().trim().min(1, "Write something first.").max(2000, "At most 2000 characters."),
});

/** What one save of the plan changed. Made by the server. */
export const changeSchema = z.strictObject({
  kind: z.literal("change"),
  ...base,
  version: versionSchema,
  changes: z.array(z.strictObject({ path: z.string(), label: z.string(), from: z.string(), to: z.string() })).max(400),
});

/** What a person can add. */
export const newEntrySchema = z.discriminatedUnion("kind", [roundSchema, readingSchema, tickSchema, noteSchema]);
export type NewEntry = z.infer<typeof newEntrySchema>;
export const entrySchema = z.discriminatedUnion("kind", [
  roundSchema,
  readingSchema,
  tickSchema,
  noteSchema,
  changeSchema,
]);
export type Entry = z.infer<typeof entrySchema>;
export type RoundEntry = z.infer<typeof roundSchema>;
export type ReadingEntry = z.infer<typeof readingSchema>;
export type Change = z.infer<typeof changeSchema>["changes"][number];
