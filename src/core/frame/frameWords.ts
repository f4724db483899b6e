/** Words that a frame is said in. Apart from the schema, so that a page needs no schema to name them. */
export const SHAPES = ["tube", "round tube", "angle", "channel", "flat", "bar"] as const;
export const JOINT_KINDS = ["mitre", "butt", "tee", "lap"] as const;
export const SEAMS = ["inside", "outside", "up", "down"] as const;
export const CROWNS = ["outward", "inward", "up", "down"] as const;
/** Directions as one says them standing before the frame: x left to right, y front to back, z down to up. */
export const DIRECTIONS = ["left", "right", "front", "back", "down", "up"] as const;
export const CARES = ["none", "grind flush", "keep clear"] as const;
export const PART_KINDS = ["plate", "tab", "gusset", "foot", "cap", "bracket"] as const;
export const FACE_LINES = ["inside", "outside", "top", "bottom", "plus", "minus"] as const;

export type Direction = (typeof DIRECTIONS)[number];
export type StructureJointKind = (typeof JOINT_KINDS)[number];
export type FaceLine = (typeof FACE_LINES)[number];
export type Care = (typeof CARES)[number];
export type Seam = (typeof SEAMS)[number];
export type Crown = (typeof CROWNS)[number];
export type PartKind = (typeof PART_KINDS)[number];

/** How the corners of a rectangle are made; mitred when nobody says. */
export const CORNER_WAYS = ["mitred", "AB and CD run through", "BC and DA run through"] as const;
