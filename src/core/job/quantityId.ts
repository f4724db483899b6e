import { SPANS, type Span } from "../geometry";
import type { QuantityId } from "./quantitySchema";

const LETTERS = { height: "z", flush: "f", gap: "g", straightness: "s", edge: "e", level: "l" } as const;

/** One word for a quantity, to look it up by, for addresses and tables; nothing reads it back. */
export function quantityKey(q: QuantityId): string {
  switch (q.kind) {
    case "piece":
      return q.member;
    case "rest":
      return q.rest;
    case "distance": {
      const span = `${q.from}${q.to}`;
      return SPANS.some((s) => s === span) ? span : `${q.from}-${q.to}`;
    }
    case "angle":
      return `${q.from}^${q.at}^${q.to}`;
    case "offset":
      return `${q.of}|${q.from}-${q.to}`;
    case "rock":
      return `r${q.held ?? ""}`;
    default:
      return `${LETTERS[q.kind]}${q.at}`;
  }
}

/** A side or diagonal as a quantity. */
export const spanId = (span: Span): Extract<QuantityId, { kind: "distance" }> => ({
  kind: "distance",
  from: span[0] as string,
  to: span[1] as string,
});

/** A distance between two places; sides and diagonals in the order of their names. */
export function distanceId(from: string, to: string): Extract<QuantityId, { kind: "distance" }> {
  const turned = SPANS.some((s) => s === `${to}${from}`);
  return turned ? { kind: "distance", from: to, to: from } : { kind: "distance", from, to };
}

/** The side or diagonal that a quantity is, if it is one. */
export function spanOf(q: QuantityId): Span | null {
  if (q.kind !== "distance") return null;
  return SPANS.find((s) => s === `${q.from}${q.to}`) ?? null;
}

/** Whether a quantity is read as a slope or an angle, not as a length. */
export const isSlant = (q: QuantityId): boolean => q.kind === "angle" || q.kind === "level";

/** Whether a quantity is laid along the work, so that it is longer on hot work. */
export const isAlong = (q: QuantityId): boolean => q.kind === "distance" || q.kind === "piece" || q.kind === "offset";

/** What is measured, as one says it: `height A`, `A to M1AB`. */
export function quantityWords(q: QuantityId): string {
  switch (q.kind) {
    case "piece":
      return q.member;
    case "rest":
      return q.rest;
    case "distance":
      return spanOf(q) ?? `${q.from} to ${q.to}`;
    case "angle":
      return `angle ${q.from}${q.at}${q.to}`;
    case "offset":
      return `${q.of} off ${q.from}–${q.to}`;
    case "rock":
      return q.held ? `rock, ${q.held} held` : "rock";
    default:
      return `${q.kind} ${q.at}`;
  }
}
