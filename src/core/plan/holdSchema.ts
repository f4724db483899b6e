import * as z from "zod";
import { FACE_LINES } from "../frame";
import { HOLD_UNTIL } from "./holdUntil";

/** A tack or bead that a hold speaks of. */
const weldRef = z.strictObject({
  do: z.enum(["tack", "bead"]),
  joint: z.string().min(1).max(40),
  line: z.enum(FACE_LINES),
});

/** One weld that must not be laid before another sits, can be touched, is cold, or the frame was measured since. */
export const holdSchema = z.strictObject({
  /** Of both welds, as one word. */
  id: z.string().min(1).max(140),
  weld: weldRef,
  after: weldRef,
  until: z.enum(HOLD_UNTIL),
});
export type Hold = z.infer<typeof holdSchema>;
export type HeldWeld = Hold["weld"];
