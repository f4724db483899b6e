import * as z from "zod";
import { FACE_LINES, memberNameSchema } from "../../frame";

const placeName = z.string().min(1).max(12);
const jointId = z.string().min(1).max(40);

/** What was, or could be, done to a cold frame that is outside its limits: data, made into words in one place. */
export const remedyIdSchema = z.discriminatedUnion("do", [
  /** Past yield: its long diagonal drawn in, or the short one pushed out. */
  z.strictObject({ do: z.literal("rack"), long: z.enum(["AC", "BD"]) }),
  /** Past yield: the corners that stand high pressed down. */
  z.strictObject({ do: z.literal("untwist"), high: z.enum(["AC", "BD"]) }),
  /** Past yield: an open mouth pushed apart, or drawn together. */
  z.strictObject({ do: z.literal("spread"), from: placeName, to: placeName, way: z.enum(["apart", "together"]) }),
  /** Past yield: the feet of two legs pushed apart, or drawn together. */
  z.strictObject({ do: z.literal("legs"), from: placeName, to: placeName, way: z.enum(["apart", "together"]) }),
  /** Past yield: a free end drawn across its member toward a place, or pushed away from one. */
  z.strictObject({ do: z.literal("swing"), place: placeName, by: placeName, way: z.enum(["toward", "away"]) }),
  /** Past yield: a bow pressed out of a member. */
  z.strictObject({ do: z.literal("press"), member: memberNameSchema }),
  /** One more bead over a seam. */
  z.strictObject({ do: z.literal("bead"), joint: jointId, line: z.enum(FACE_LINES) }),
  /** A bead hammered over, cold. */
  z.strictObject({ do: z.literal("peen"), joint: jointId, line: z.enum(FACE_LINES) }),
  /** The seams of a corner cut but for its inside, pulled, and welded again. */
  z.strictObject({ do: z.literal("recut"), joint: jointId, long: z.enum(["AC", "BD"]) }),
  /** Shims under its feet where it is mounted. */
  z.strictObject({ do: z.literal("shim") }),
  /** The proud side of a step ground down. */
  z.strictObject({ do: z.literal("grind"), joint: jointId }),
  /** A free end that stands out too far, sawn off. */
  z.strictObject({ do: z.literal("trim"), place: placeName }),
  /** Wedges of heat on the long side of a bowed member. */
  z.strictObject({ do: z.literal("wedges"), member: memberNameSchema }),
  /** Wedges of heat near the root of a member, on the side to which its free end shall go. */
  z.strictObject({ do: z.literal("draw"), member: memberNameSchema, place: placeName }),
  /** Spots of heat there. */
  z.strictObject({ do: z.literal("spots"), member: memberNameSchema }),
  /** Beads across the long side, ground off after. */
  z.strictObject({ do: z.literal("lines"), member: memberNameSchema }),
]);
export type RemedyId = z.infer<typeof remedyIdSchema>;
