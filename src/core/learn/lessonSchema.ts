import * as z from "zod";
import { MATERIAL_NAMES } from "../frame";
import { visibleName } from "../units";
import { PROCESSES, type ProcessName, weldSchema } from "../weld";
import { METALS, WALL_CLASSES } from "./cells";
import { FACTOR_PAIRS, LEARNABLE, type Learnable } from "./learnable";

const finite = z.number().finite();
const MOST_READINGS = 40;
const MOST_SOURCES = 16;
const row = z.array(finite).min(1).max(MOST_READINGS);

const cellSchema = z.strictObject({
  process: z.enum(Object.keys(PROCESSES) as [ProcessName, ...ProcessName[]]),
  wall: z.enum(WALL_CLASSES),
  metal: z.enum(METALS),
});

const base = {
  id: z.uuid("A lesson needs an id of its own."),
  at: z.iso.datetime({ precision: 3, message: "A time in ISO 8601, UTC, with milliseconds." }),
  origin: visibleName("Say who adds it.", 60),
};

/** Two plates with a seam between marks, or a bead along a piece of tube. */
const couponSchema = z.strictObject({
  kind: z.literal("coupon"),
  ...base,
  ...weldSchema.pick({ process: true, volts: true, amps: true, travelMmPerS: true }).shape,
  material: z.enum(MATERIAL_NAMES),
  wallMm: z.number("Give the wall.").min(0.4, "Thinner than 0.4 mm is no plate.").max(60, "Thicker than 60 mm: check."),
  /** Between the marks, or off straight; before the bead and cold after it, mm. */
  beforeMm: z.number("Give what it measured before.").min(-100).max(5000),
  afterMm: z.number("Give what it measured after.").min(-100).max(5000),
  /** Standard uncertainty of the difference, mm. */
  uMm: z.number().positive("No reading is exact.").max(5),
  coupon: z.discriminatedUnion("of", [
    z.strictObject({ of: z.literal("butt") }),
    z.strictObject({
      of: z.literal("along"),
      /** Of the tube: width of the face that the bead lies on, and depth under it. */
      widthMm: z.number("Give the width.").min(5).max(500),
      depthMm: z.number("Give the depth.").min(5).max(500),
      beadMm: z.number("Give the bead's length.").min(20, "A bead of 20 mm at least.").max(5000),
      pieceMm: z.number("Give the piece's length.").min(50, "A piece of 50 mm at least.").max(12_000),
    }),
  ]),
});

/** One reading of a frame from one gate to another. */
const taughtReadingSchema = z.strictObject({
  what: z.string().min(1).max(80),
  from: z.string().min(1).max(20),
  to: z.string().min(1).max(20),
});

/** A frame that was read before and after it was welded, as its job stood. */
const frameSchema = z.strictObject({
  kind: z.literal("frame"),
  ...base,
  jobId: z.uuid(),
  name: visibleName("Name the job.", 120),
  cell: cellSchema,
  readings: z.array(taughtReadingSchema).min(1).max(MOST_READINGS),
  teaching: z.strictObject({
    sources: z
      .array(z.strictObject({ factors: z.array(z.enum(LEARNABLE)).min(1).max(4), effect: row }))
      .max(MOST_SOURCES),
    /** What beads, tacks and joints differ by from one to the next: free of each other, for a scatter of one, mm. */
    beads: z.array(row).max(MOST_READINGS),
    linear: z.strictObject({ gap: row.optional(), joint: row.optional() }),
    change: row,
    cov: z.array(row).min(1).max(MOST_READINGS),
  }),
  /** What was predicted of each by what was known before it was welded, and how sure that was, mm. */
  told: z.strictObject({ mean: row, cov: z.array(row).min(1).max(MOST_READINGS) }),
  /** What it has been asked about: why it may teach something else than the shop's own way. */
  doubts: z.array(z.string().max(400)).max(20),
  /** Who laid most of its beads; not known where none was ticked. */
  by: z.string().min(1).max(60).optional(),
  /** How long handling took by its ticks. */
  times: z
    .array(
      z.strictObject({ kind: z.string().min(1).max(20), seconds: z.number().min(0).max(1e5), from: z.int().min(1) }),
    )
    .max(20)
    .optional(),
});

const leftOutSchema = z.strictObject({
  kind: z.literal("left out"),
  ...base,
  lesson: z.uuid(),
  why: z.string().trim().min(1, "Say why it is left out.").max(300, "At most 300 characters."),
});
const takenBackSchema = z.strictObject({ kind: z.literal("taken back"), ...base, lesson: z.uuid() });
/** From here on nothing before it counts. */
const begunAnewSchema = z.strictObject({
  kind: z.literal("begun anew"),
  ...base,
  why: z.string().trim().min(1, "Say why it begins anew.").max(300, "At most 300 characters."),
});

/** What a shop learned, entry by entry: nothing is ever changed or taken away, only left out by a later one. */
export const lessonSchema = z.discriminatedUnion("kind", [
  couponSchema,
  frameSchema,
  leftOutSchema,
  takenBackSchema,
  begunAnewSchema,
]);
export type Lesson = z.infer<typeof lessonSchema>;
export type CouponLesson = z.infer<typeof couponSchema>;
export type FrameLesson = z.infer<typeof frameSchema>;

/** What a person may add; frames are worked out of their job. */
export const addedLessonSchema = z.discriminatedUnion("kind", [
  couponSchema,
  leftOutSchema,
  takenBackSchema,
  begunAnewSchema,
]);

const belief = z.strictObject({ mean: z.array(finite).max(40), cov: z.array(z.array(finite).max(40)).max(40) });

/** What a shop knew when a plan was made, for any process, wall and metal. */
export const shopLearnedSchema = z.strictObject({
  /** Day of what was known; what is older counts less. */
  asOf: z.iso.datetime({ precision: 3 }),
  frames: z.int().min(0),
  coupons: z.int().min(0),
  /** Cells that something was learned in. */
  cells: z.array(cellSchema).max(40),
  /** Logarithm of each factor over its table, cell by cell. */
  factors: z.strictObject(Object.fromEntries(LEARNABLE.map((f) => [f, belief])) as Record<Learnable, typeof belief>),
  /** What the factors of one cell have in common by what was learned: covariances of their logarithms, pair by pair, cell by cell. */
  together: z.array(z.array(finite).length(FACTOR_PAIRS.length)).max(40).optional(),
  /** Scatter of beads and days as a coefficient of variation; null before enough frames told. */
  scatter: z.strictObject({ beadCv: z.number().positive().max(2), dayCv: z.number().positive().max(2) }).nullable(),
});
export type ShopLearned = z.infer<typeof shopLearnedSchema>;
