import * as z from "zod";
import { lengthSchema } from "../units";
import { CARES, CROWNS, DIRECTIONS, FACE_LINES, JOINT_KINDS, PART_KINDS, SEAMS, SHAPES } from "./frameWords";
import { MATERIAL_NAMES } from "./materials";

/** A member's name. */
export const memberNameSchema = z
  .string()
  .regex(/^[A-Z][A-Z0-9]{0,5}$/, "A name has one to six capitals or digits, a letter first.");

const pointSchema = z.strictObject({ x: lengthSchema, y: lengthSchema, z: lengthSchema });

/** A section that members are made of: changed once, it changes for all of them. */
const drawnSectionSchema = z.strictObject({
  id: z.string().regex(/^S[1-9]\d?$/, "Sections are named S1 to S99."),
  shape: z.enum(SHAPES),
  /** Name in the table, or null for a size of one's own. */
  profile: z.string().max(60).nullable(),
  /** Across, as it lies in plan; the diameter of what is round. */
  width: lengthSchema,
  height: lengthSchema,
  wall: lengthSchema,
  material: z.enum(MATERIAL_NAMES),
});

const drawnMemberSchema = z.strictObject({
  id: memberNameSchema,
  /** Ends on the centre line, as if every member ran to the middle of the one that it meets. */
  from: pointSchema,
  to: pointSchema,
  section: z.string(),
  /** Turn about its own axis, degrees. */
  turnDeg: z.number().min(-360).max(360),
  seam: z.enum(SEAMS),
  crown: z.enum(CROWNS),
  /** Moved so that its face on that side lies in one plane with the neighbour's. */
  flush: z.strictObject({ to: memberNameSchema, side: z.enum(DIRECTIONS) }).nullable(),
  /** Moved off its line, mm: along its own width and its own height. */
  offset: z.strictObject({ across: lengthSchema, up: lengthSchema }).nullable(),
  /** Length and place may not be changed by dragging. */
  locked: z.boolean(),
  /** Kept as the mirror image of another one. */
  mirror: z.strictObject({ of: memberNameSchema, axis: z.enum(["x", "y"]), at: lengthSchema }).nullable(),
});

/** What a person says of a joint that the tool found; what is not said stays as found. */
const drawnJointSchema = z.strictObject({
  between: z.tuple([memberNameSchema, memberNameSchema]),
  kind: z.enum([...JOINT_KINDS, "none"]).nullable(),
  /** Which of the two runs through, for a butt or tee. */
  through: memberNameSchema.nullable(),
  /** Of two that lie along each other: how many pieces of seam hold them on either side, and how long each is; as is usual when left out. */
  stitches: z
    .strictObject({
      count: z.number().min(1, "Pieces of seam: 1 to 60.").max(60, "Pieces of seam: 1 to 60."),
      length: lengthSchema,
    })
    .optional(),
  faces: z.array(
    z.strictObject({
      line: z.enum(FACE_LINES),
      bead: z.boolean(),
      /** Size of the bead; null: as the wall. */
      leg: lengthSchema.nullable(),
      care: z.enum(CARES),
    }),
  ),
});

/** A sub-assembly's name in the plan. */
export const groupIdSchema = z.string().regex(/^U[1-9]\d?$/, "Sub-assemblies are named U1 to U99.");

const holeSchema = z.strictObject({ x: lengthSchema, y: lengthSchema, diameter: lengthSchema });

/** A part that is no member: a box whose least size is its thickness. */
const partSchema = z.strictObject({
  id: z.string().regex(/^P[1-9]\d?$/, "Parts are named P1 to P99."),
  kind: z.enum(PART_KINDS),
  /** Middle of the part. */
  at: pointSchema,
  size: pointSchema,
  /** Half of the box is cut off along its diagonal. */
  triangular: z.boolean(),
  /** Which corner of a triangle is kept, by the signs of its own axes; the low one when left out. */
  keeps: z.tuple([z.literal([1, -1]), z.literal([1, -1]), z.literal([1, -1])]).optional(),
  /** Member that it lies along: its three sizes are along that one, across it, and up; as the frame lies when left out. */
  like: memberNameSchema.optional(),
  /** Member that it sits on, if any. */
  on: memberNameSchema.nullable(),
  material: z.enum(MATERIAL_NAMES),
  /** From the middle, along the part's two larger sizes. */
  holes: z.array(holeSchema).max(40, "At most 40 holes in a part."),
});

/** Something that the frame must clear or hold: an engine, a drum, a shelf. */
const obstacleSchema = z.strictObject({
  id: z.string().regex(/^G[1-9]\d?$/, "Objects are named G1 to G99."),
  name: z.string().max(60, "At most 60 characters."),
  /** Its lower left front corner. */
  at: pointSchema,
  size: pointSchema,
  /** Least gap wanted all round. */
  least: lengthSchema,
});

/** Members drawn in space, with everything that is said of them. */
export const drawnFrameSchema = z.strictObject({
  sections: z.array(drawnSectionSchema).min(1, "A frame needs a section.").max(20, "At most 20 sections."),
  members: z.array(drawnMemberSchema).max(400, "At most 400 members."),
  joints: z.array(drawnJointSchema).max(2000),
  /** Root gap left at every joint. */
  gap: lengthSchema,
  parts: z.array(partSchema).max(99, "At most 99 parts."),
  obstacles: z.array(obstacleSchema).max(20, "At most 20 objects."),
  /** Least gap between the lowest point and the floor, or null. */
  floor: z.strictObject({ at: lengthSchema, least: lengthSchema }).nullable(),
  /** Left and right: each a set of members that must be the mirror image of the other. */
  pairs: z
    .array(z.strictObject({ left: z.array(memberNameSchema).min(1), right: z.array(memberNameSchema).min(1) }))
    .max(40, "At most 40 pairs."),
  /** Sub-assemblies in the order in which they are joined. */
  groups: z
    .array(
      z.strictObject({
        id: groupIdSchema,
        name: z.string().max(60, "At most 60 characters."),
        members: z.array(memberNameSchema),
      }),
    )
    .max(20, "At most 20 sub-assemblies."),
  /** Largest size that a tank, a lorry or a doorway takes. */
  largest: z.strictObject({ what: z.string().max(60), size: pointSchema }).nullable(),
  /** Sizes taken from an existing object, as written down: points or distances, a line each. */
  survey: z.string().max(8000, "At most 8000 characters."),
});

export type DrawnFrame = z.infer<typeof drawnFrameSchema>;
export type DrawnMember = z.infer<typeof drawnMemberSchema>;
export type DrawnSection = z.infer<typeof drawnSectionSchema>;
export type DrawnJoint = z.infer<typeof drawnJointSchema>;
export type DrawnPart = z.infer<typeof partSchema>;
export type Obstacle = z.infer<typeof obstacleSchema>;
export type Point = z.infer<typeof pointSchema>;
