import * as z from "zod";
import { FACE_LINES } from "../frame";
import { GATES } from "./gates";

/** Name of a joint: of its corner or of its two members. */
const jointName = z.string().min(1).max(40);
const nth = z.int().min(1).max(99);

/** What a step is, for good: it stays the same when the order changes, so that ticks stay with it. */
export const stepIdSchema = z.discriminatedUnion("do", [
  // The first tack of a face has no number: so it was kept from the beginning. Others make it longer.
  z.strictObject({ do: z.literal("tack"), joint: jointName, line: z.enum(FACE_LINES), nth: nth.optional() }),
  // So has the first bead; another is laid over it: a hole that was filled, a second pass.
  z.strictObject({ do: z.literal("bead"), joint: jointName, line: z.enum(FACE_LINES), nth: nth.optional() }),
  z.strictObject({
    do: z.literal("measure"),
    gate: z.enum(GATES),
    nth,
    /** What holds the frame off is cut, it is set square and flat, and tacked again. */
    cut: z.literal(true).optional(),
  }),
  z.strictObject({ do: z.literal("flip"), part: z.enum(["tack", "weld"]), nth }),
  // The first wait of a kind has no number: so it was kept from the beginning.
  z.strictObject({ do: z.literal("wait"), until: z.enum(["touch", "cold"]), nth: nth.optional() }),
  z.strictObject({ do: z.enum(["hold", "release"]) }),
  /** A strongback, temporary side or block goes on, or comes off. */
  z.strictObject({ do: z.enum(["brace", "unbrace"]), bar: z.string().min(1).max(40) }),
]);
export type StepId = z.infer<typeof stepIdSchema>;
