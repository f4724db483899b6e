import * as z from "zod";
import { remedyIdSchema } from "../check";
import { groupIdSchema } from "../frame";
import { GATES, stepIdSchema } from "../plan";
import { lengthSchema, slantSchema, visibleName } from "../units";
import { quantityIdSchema } from "./quantitySchema";
import { FINISH_STEPS } from "./tickId";

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
  origin: visibleName("Say who made it.", 60),
};

const METHODS = ["heights", "rod"] as const;

/** A round of measuring at one gate. */
const roundSchema = z.strictObject({
  kind: z.literal("round"),
  ...base,
  gate: z.enum(GATES),
  /** For the bed: heights up from a datum, or rod readings under a level line (larger is lower). */
  method: z.enum(METHODS),
  /** How much hotter the work is than what measures it, K; nought when nobody said. */
  warmerK: z
    .number("Give a number in °C.")
    .min(-80, "No frame is so much colder than its tape.")
    .max(900, "Hotter than that it glows: let it cool.")
    .optional(),
  /** The sub-assembly that is measured by itself; left out where the frame is. */
  part: groupIdSchema.optional(),
});

const restName = z.string().regex(/^R[1-9]\d?$/, "Rests are named R1 to R99.");

/** How a rest was read, where a survey mixes its methods. Without it: as the round says. */
const howSchema = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("height"), datum: z.int().min(1).max(9) }),
  /** Rod under a level line; the set-up of the level, and how far away the rod stood. */
  z.strictObject({
    by: z.literal("rod"),
    setUp: z.int().min(1).max(9),
    sightM: z.number().min(0).max(200, "No rod is read over 200 m.").nullable(),
  }),
  /** A level from rest to rest. Its arrow points on, or back. */
  z.strictObject({ by: z.literal("slope"), from: restName, arrow: z.enum(["on", "back"]) }),
  /** Height above another rest: a water level, a string with a rule. */
  z.strictObject({ by: z.literal("difference"), from: restName }),
  /** Gap under a straightedge or string that lies on blocks at two other rests. */
  z.strictObject({
    by: z.literal("edge"),
    from: restName,
    to: restName,
    blocks: z.tuple([lengthSchema, lengthSchema]),
  }),
]);
export type How = z.infer<typeof howSchema>;

/** What was done besides reading: what the value alone does not say. */
const takenSchema = z.strictObject({
  /** Added to what was read: a block, or a radius, gone past a weld. Less than nought where it was read too long. */
  plus: lengthSchema.optional(),
  /** Read between crosses that lie this far inside both outer edges of their corners. */
  setIn: lengthSchema.optional(),
  /** The next leaf or stack, which no longer goes: the value is what still goes. */
  notAt: lengthSchema.optional(),
  /** A level's bubble: how many divisions off the middle, toward which end of the step, and what one of them is. */
  bubble: z
    .strictObject({
      divisions: z
        .number("Give the divisions.")
        .min(0, "Say which way by the end, not by a sign.")
        .max(20, "A vial has fewer."),
      toward: z.enum(["from", "to"]),
      perDivisionMmPerM: z.number("Give mm/m.").positive("A division is more than nothing.").max(50),
    })
    .optional(),
  /** Packers under one foot of a level that bring its bubble to the middle. */
  packer: z.strictObject({ thick: lengthSchema, base: lengthSchema, under: z.enum(["from", "to"]) }).optional(),
});
export type Taken = z.infer<typeof takenSchema>;

/**
 * One reading of a round. A later one of the same quantity takes its place, or is averaged with it when it was read `again`;
 * all stay in the record.
 */
const readingSchema = z.strictObject({
  kind: z.literal("reading"),
  ...base,
  roundId: z.uuid(),
  instrumentId: z.string().min(1).max(36),
  /** What it is of. */
  what: quantityIdSchema,
  /** A length, or for slopes and angles a slant. Null takes the last reading back. */
  value: z.union([lengthSchema, slantSchema]).nullable(),
  how: howSchema.optional(),
  taken: takenSchema.optional(),
  /** Averaged with those before it. */
  again: z.literal(true).optional(),
});

const tickIdSchema = z.union([
  stepIdSchema,
  z.strictObject({
    do: z.literal("cut"),
    member: z.string().regex(/^[A-Z][A-Z0-9]{0,5}$/, "Not a member of a frame."),
  }),
  z.strictObject({ do: z.literal("finish"), step: z.enum(FINISH_STEPS) }),
  z.strictObject({ do: z.literal("close") }),
]);

const tickSchema = z.strictObject({
  kind: z.literal("tick"),
  ...base,
  /** What is ticked off, or no longer. */
  step: tickIdSchema,
  done: z.boolean(),
});

/** Something that was done to the cold frame to bring it inside its limits. */
const correctedSchema = z.strictObject({
  kind: z.literal("corrected"),
  ...base,
  remedy: remedyIdSchema,
  /** How far it was pushed beyond where it lay; or how many, for what is counted. */
  amount: z.union([lengthSchema, z.number("Give how many.").positive("At least some.").max(50, "Over fifty: check.")]),
});

const noteSchema = z.strictObject({
  kind: z.literal("note"),
  ...base,
  text: z.string().trim().min(1, "Write something first.").max(2000, "At most 2000 characters."),
});

/** What one save of the plan changed. Made by the server. */
const changeSchema = z.strictObject({
  kind: z.literal("change"),
  ...base,
  version: versionSchema,
  changes: z.array(z.strictObject({ path: z.string(), label: z.string(), from: z.string(), to: z.string() })).max(400),
});

/** What a person can add. */
export const newEntrySchema = z.discriminatedUnion("kind", [
  roundSchema,
  readingSchema,
  tickSchema,
  noteSchema,
  correctedSchema,
]);
export type NewEntry = z.infer<typeof newEntrySchema>;
export const entrySchema = z.discriminatedUnion("kind", [
  roundSchema,
  readingSchema,
  tickSchema,
  noteSchema,
  correctedSchema,
  changeSchema,
]);
export type Entry = z.infer<typeof entrySchema>;
export type CorrectedEntry = z.infer<typeof correctedSchema>;
export type RoundEntry = z.infer<typeof roundSchema>;
export type ReadingEntry = z.infer<typeof readingSchema>;
export type Change = z.infer<typeof changeSchema>["changes"][number];
