import type { Vec2 } from "@/core/numeric";

/** What a mark stands for: advice, something measured, something predicted, nothing special. */
export type Tone = "plum" | "brass" | "cool" | "plain";

/** A line between two corners with words on it, for a side or a diagonal. */
export interface SpanMark {
  span: string;
  text: string;
  tone: Tone;
  /** The one to read next. */
  active?: boolean;
}

/** A point on the bed with words beside it. */
export interface PointMark {
  id: string;
  at: Vec2;
  text: string;
  tone: Tone;
  active?: boolean;
}

/** A line between two places of the frame with words on it. */
export interface LineMark {
  id: string;
  from: Vec2;
  to: Vec2;
  text: string;
  tone: Tone;
  active?: boolean;
}

/** The colour of each tone. */
export const COLOUR: Record<Tone, string> = {
  plum: "var(--plum)",
  brass: "var(--brass)",
  cool: "var(--cool)",
  plain: "var(--ink-soft)",
};
