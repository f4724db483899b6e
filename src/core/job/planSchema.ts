import * as z from "zod";
import { SHIM_MODES } from "../bed";
import { limitsSchema } from "../check";
import { drillSchema, FINISHES, SAW_SCALES, sawTestSchema, stockSchema } from "../cut";
import { FIXTURE_SIDES, OWN_ROLES, SHELF, type ShelfThing } from "../fixture";
import { drawnFrameSchema, FACE_LINES, MATERIAL_NAMES, memberNameSchema, rectangleSchema } from "../frame";
import { shopLearnedSchema } from "../learn";
import { BAR_KINDS, holdSchema, orderChoiceSchema, PUT_ON, TAKEN_OFF } from "../plan";
import { lengthSchema, UNIT_PREFERENCES, type UnitPreference, visibleName } from "../units";
import { weldSchema } from "../weld";
import { CARRIES } from "./carries";
import { FORMAT } from "./format";

const restSchema = z.strictObject({
  id: z.string().regex(/^R[1-9]\d?$/, "Rests are named R1 to R99."),
  x: lengthSchema,
  y: lengthSchema,
});

const bedSchema = z.strictObject({
  rests: z.array(restSchema).max(40, "At most 40 rests."),
  /** Laid under the frame, so many of them: they follow it. Left out when somebody placed them. */
  laid: z.union([z.literal(3), z.literal(4), z.literal(6)]).optional(),
  adjust: z.enum(["shims", "feet"]),
  mode: z.enum(SHIM_MODES),
  /** Thread pitch of the feet. */
  pitch: lengthSchema,
  thread: z.enum(["right", "left"]),
  /** Rests that stand on screw feet; all of them when left out. */
  feet: z
    .array(z.string().regex(/^R[1-9]\d?$/, "Rests are named R1 to R99."))
    .max(40)
    .optional(),
  /** A surface under the whole frame, or three points. */
  school: z.enum(["surface", "three"]),
  /** Shims at hand; a common set when there are none. */
  leaves: z.array(lengthSchema).max(40, "At most 40 leaves."),
});

/** Where a bar meets a member, along it. */
const barEndSchema = z.strictObject({ member: memberNameSchema, along: lengthSchema });

/** A place on the bed, from corner A, or the lower left of a frame without. */
const bedPlaceSchema = z.strictObject({ x: lengthSchema, y: lengthSchema });

const countSchema = z.int().min(0).max(999).optional();

/** Everything about a job that is edited and saved as a whole, with a version. */
export const planSchema = z.strictObject({
  /** Of this document: earlier ones are brought up to it when they are read (see upgrade). */
  format: z.literal(FORMAT),
  name: visibleName("Give the job a name.", 120),
  purpose: z.string().max(2000, "At most 2000 characters."),
  carries: z.enum(CARRIES),
  units: z.enum(UNIT_PREFERENCES as [UnitPreference, ...UnitPreference[]]),
  limits: limitsSchema,
  /** How the frame was entered: a rectangle by its sizes, or members drawn; the sizes are then kept for going back to them. */
  frame: z.discriminatedUnion("by", [
    z.strictObject({ by: z.literal("sizes"), sizes: rectangleSchema }),
    z.strictObject({ by: z.literal("members"), sizes: rectangleSchema, drawn: drawnFrameSchema }),
  ]),
  bed: bedSchema,
  /** What it is squared to before it is welded: off nominal for what the weld will do, or as drawn. */
  aim: z.enum(["set-up", "drawing"]),
  weld: weldSchema,
  /** What it is held by on the bed; proposed where nobody said otherwise. */
  fixture: z
    .strictObject({
      /** Where the stops of a ring stand. */
      side: z.enum(FIXTURE_SIDES).optional(),
      /** Elements that somebody placed, along their member. */
      moved: z
        .array(z.strictObject({ id: z.string().min(1).max(60), along: lengthSchema }))
        .max(400)
        .optional(),
      /** Elements that are left out. */
      without: z.array(z.string().min(1).max(60)).max(400).optional(),
      /** Holes of the bed: how far apart, and where the first lies from corner A. */
      holes: z.strictObject({ pitch: lengthSchema, x: lengthSchema, y: lengthSchema }).optional(),
      /** Slots of the bed, side by side: which way they run, how far apart, and how far the first lies from corner A. */
      slots: z.strictObject({ run: z.enum(["along", "across"]), pitch: lengthSchema, first: lengthSchema }).optional(),
      /** Trestles, bars, or a triangle of tube: what it lies on where there is no plate. */
      bearers: z
        .array(
          z.strictObject({
            id: z.string().regex(/^T[1-9]\d?$/, "What it lies on is named T1 to T99."),
            from: bedPlaceSchema,
            to: bedPlaceSchema,
          }),
        )
        .min(1)
        .max(40, "At most 40 trestles or bars.")
        .optional(),
      /** It lies on a bare floor: nothing is pinned, bolted or clamped to that. */
      floor: z.literal(true).optional(),
      /** Where corner A lies from two edges of the bed. */
      at: bedPlaceSchema.optional(),
      bed: z.strictObject({ length: lengthSchema, width: lengthSchema }).optional(),
      /** Two plates with a seam along them, that are bent over a shim; both together so wide. */
      plates: z
        .strictObject({
          material: z.enum(MATERIAL_NAMES),
          thickness: lengthSchema,
          width: lengthSchema,
          length: lengthSchema,
        })
        .optional(),
      /** Members bent over a shim before they were welded: what was left when they were cold, the way they were bent above nought. */
      trials: z
        .array(
          z.strictObject({
            id: z.string().min(1).max(60),
            member: z.union([memberNameSchema, z.literal("plates")]),
            shim: lengthSchema,
            left: lengthSchema,
          }),
        )
        .max(60, "At most 60 trials.")
        .optional(),
      /** What somebody has of his own to hold with: E1, E2 …, and whose work it does. */
      own: z
        .array(
          z.strictObject({
            id: z.string().regex(/^E[1-9]\d?$/, "Things of your own are named E1 to E99."),
            name: z.string().max(40, "At most 40 characters."),
            does: z.enum(OWN_ROLES),
            count: z.int().min(0).max(999),
          }),
        )
        .max(20, "At most 20 things of your own.")
        .refine(
          (own) => new Set(own.map((o) => o.id)).size === own.length,
          "Two things of your own have one name: E1, E2 …",
        )
        .optional(),
      /** What is on the shelf. */
      have: z
        .strictObject(Object.fromEntries(SHELF.map((t) => [t, countSchema])) as Record<ShelfThing, typeof countSchema>)
        .optional(),
    })
    .optional(),
  /** Gaps that were found at joints and are filled as they are. */
  found: z
    .array(
      z.strictObject({
        /** Of the joint. */
        id: z.string().min(1).max(40),
        gap: lengthSchema,
        /** On one face; all round when left out. */
        line: z.enum(FACE_LINES).optional(),
        /** Face by face where it differs; a face that is not named is shut. The gap itself is then the widest of them. */
        faces: z
          .array(z.strictObject({ line: z.enum(FACE_LINES), gap: lengthSchema }))
          .max(FACE_LINES.length)
          .optional(),
      }),
    )
    .max(200, "At most 200 gaps.")
    .optional(),
  /** What holds it while it is welded; clamped flat where it lies on a surface when nobody said otherwise. */
  held: z
    .strictObject({
      /** By its own weight, or by nothing. */
      lies: z.enum(["weight", "loose"]).optional(),
      /** The stops and clamps of the lay-out hold it in its plane until it is turned over, or cold. */
      stops: z.literal(true).optional(),
      /** Strongbacks, temporary sides and blocks. */
      bars: z
        .array(
          z.strictObject({
            id: z.string().regex(/^[A-Z0-9][A-Za-z0-9]{0,11}$/, "A bar is named by up to twelve letters or digits."),
            kind: z.enum(BAR_KINDS),
            from: barEndSchema,
            to: barEndSchema,
            putOn: z.enum(PUT_ON),
            takenOff: z.enum(TAKEN_OFF),
            /** Of tube like the member that it goes from when left out. */
            size: z.strictObject({ width: lengthSchema, height: lengthSchema, wall: lengthSchema }).optional(),
          }),
        )
        .max(20, "At most 20 bars and blocks.")
        .optional(),
    })
    .optional(),
  /** What the shop had learned of its own shrinkage; the tables alone when left out. */
  learned: shopLearnedSchema.optional(),
  /** In which order it is tacked and welded; the usual schools when nobody chose. */
  order: orderChoiceSchema.optional(),
  /** Who welds it, where that is not one person who welds flat, across and upright. */
  hands: z
    .strictObject({
      /** Two weld at once, at different joints. */
      two: z.literal(true).optional(),
      /** Overhead, too: then the frame need not be turned for a face that looks down. */
      overhead: z.literal(true).optional(),
      /** Not upright. */
      noUpright: z.literal(true).optional(),
    })
    .optional(),
  /** Welds that must wait for others. */
  holds: z.array(holdSchema).max(60, "At most 60 holds.").optional(),
  /** Members whose length must not move: nothing is added to them, whatever the weld or the limits would want. */
  fixed: z.array(memberNameSchema).max(200, "At most 200 members.").optional(),
  /** Members that are cut to the gap between the two that they go between, as it was measured. */
  closing: z
    .array(z.strictObject({ id: memberNameSchema, gap: lengthSchema }))
    .max(200, "At most 200 members.")
    .optional(),
  /** Points beside the frame that distances are taped to: a stop, a nail in the floor; from corner A, or where the drawing begins. */
  points: z
    .array(
      z.strictObject({
        id: z
          .string()
          .regex(/^[A-Z][A-Z0-9]{1,9}$/, "A point is named by a capital letter and one to nine more or digits."),
        x: lengthSchema,
        y: lengthSchema,
      }),
    )
    .max(20, "At most 20 points.")
    .optional(),
  /** What pieces are cut from. */
  stock: stockSchema,
  /** What the saw's scale counts angles from; a square cut when nobody says. */
  sawScale: z.enum(SAW_SCALES).optional(),
  /** Last test of the saw, when there was one. */
  saw: sawTestSchema.nullable(),
  /** What happens after welding. */
  finish: z.enum(FINISHES),
  /** Holes that are wanted besides the vents. */
  drill: z.array(drillSchema).max(99, "At most 99 holes."),
});
export type Plan = z.infer<typeof planSchema>;
export type Rest = z.infer<typeof restSchema>;
