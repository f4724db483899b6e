import { type Corner, DIAGONALS, type Span } from "../geometry";

/** Something that is predicted of the cold frame. */
export type OutcomeId =
  /** A taped side or diagonal of the quadrilateral. */
  | { kind: "span"; span: Span }
  | { kind: "angle"; corner: Corner }
  /** AC less BD; lean of the mid-lines; AB less CD; BC less DA; of the corners; of the level that most members lie in. */
  | { kind: "square" | "shear" | "taper length" | "taper width" | "twist" | "flat" }
  /** Across an open side, between two free ends, by the names of their places. */
  | { kind: "mouth"; from: string; to: string }
  /** Between the feet of two legs, by their names. */
  | { kind: "feet"; from: string; to: string }
  /** Where a place of a frame without corners lies as the frame is seen, once the whole is laid over its drawing as well as it goes. */
  | { kind: "place"; place: string; way: "right" | "up" }
  /** Between the places where a member's two ends stand. */
  | { kind: "length"; member: string }
  /** Off the straight line between a member's ends: along the bed (or its width), and up (or along its height). */
  | { kind: "bow" | "lift"; member: string };

/** One word for an outcome, to look it up by; nothing reads it back. */
export function outcomeKey(id: OutcomeId): string {
  switch (id.kind) {
    case "span":
      return id.span;
    case "angle":
      return `angle ${id.corner}`;
    case "mouth":
      return `mouth ${id.from}-${id.to}`;
    case "feet":
      return `feet ${id.from}-${id.to}`;
    case "place":
      return `place ${id.place} ${id.way}`;
    case "length":
    case "bow":
    case "lift":
      return `${id.kind} ${id.member}`;
    default:
      return id.kind;
  }
}

/** An outcome as one says it. */
export function outcomeWords(id: OutcomeId): string {
  switch (id.kind) {
    case "span":
      return DIAGONALS.some((d) => d === id.span) ? `diagonal ${id.span}` : `side ${id.span}`;
    case "angle":
      return `corner ${id.corner}`;
    case "square":
      return "AC less BD";
    case "shear":
      return "out of square";
    case "taper length":
      return "AB less CD";
    case "taper width":
      return "BC less DA";
    case "flat":
      return "out of flat";
    case "twist":
      return "twist";
    case "mouth":
      return `mouth, ${id.from} to ${id.to}`;
    case "feet":
      return `feet, ${id.from} to ${id.to}`;
    case "place":
      return `${id.place}, to the ${id.way === "right" ? "right" : "top"} of the drawing`;
    case "length":
      return `length at ${id.member}`;
    case "bow":
      return `bow of ${id.member}`;
    case "lift":
      return `lift of ${id.member}`;
  }
}
