import type { UnitPreference } from "../../units";
import type { QuantityId } from "../quantitySchema";
import type { TickId } from "../tickId";
import { usualStock } from "../usualStock";

/**
 * From the first format to the second. The frame says how it was entered; what could be left out is said; steps and quantities are
 * values and not words to be taken apart. This is the one place that takes the old words apart.
 */

type Old = Record<string, unknown>;
const isOld = (v: unknown): v is Old => typeof v === "object" && v !== null && !Array.isArray(v);

/** Wrong input is left as it is: the schema then says what is wrong with it, at its field. */
export function planFromFirst(raw: unknown): unknown {
  if (!isOld(raw)) return raw;
  const { frame, free, bed, limits, ...rest } = raw;
  const units = (typeof raw.units === "string" ? raw.units : "mm") as UnitPreference;
  return {
    aim: "set-up",
    finish: "bare",
    drill: [],
    saw: null,
    stock: usualStock(units),
    ...rest,
    format: 2,
    limits: isOld(limits)
      ? limits.kind === "class"
        ? { confirmed: {}, ...limits }
        : { gap: null, flush: null, ...limits }
      : limits,
    frame: free === undefined ? { by: "sizes", sizes: frame } : { by: "members", sizes: frame, drawn: free },
    bed: isOld(bed) ? { school: "surface", leaves: [], ...bed } : bed,
  };
}

/** Faces of a cross member were told by which side of the rectangle they looked to; which line that is depends on the chord's way. */
function lineFromFirst(joint: string, face: string): string {
  if (face !== "near" && face !== "far") return face;
  // Sides run round the frame: along AB and BC the far side lies ahead.
  const forward = joint.endsWith("/AB") || joint.endsWith("/BC");
  return (face === "far") === forward ? "plus" : "minus";
}

/** @returns what the old name of a tick stands for; null for a name that no version gave. */
export function tickFromFirst(step: string): TickId | null {
  if (step === "job/closed") return { do: "close" };
  const parts = step.split("/");
  const [what, ...more] = parts;
  const rest = more.join("/");
  switch (what) {
    case "cut":
      return { do: "cut", member: rest };
    case "hold":
    case "release":
      return { do: what };
    case "tack":
    case "bead": {
      const joint = more.slice(0, -1).join("/");
      const line = lineFromFirst(joint, more.at(-1) ?? "");
      return joint === "" ? null : ({ do: what, joint, line } as TickId);
    }
    case "measure": {
      const [, gate, nth] = /^(.+?)(?:-(\d+))?$/.exec(rest) ?? [];
      return { do: "measure", gate, nth: Number(nth ?? 1) } as TickId;
    }
    case "flip":
      return {
        "tack-bottom": { do: "flip", part: "tack", nth: 1 } as const,
        "tack-top": { do: "flip", part: "tack", nth: 2 } as const,
        "weld-1": { do: "flip", part: "weld", nth: 1 } as const,
        "weld-2": { do: "flip", part: "weld", nth: 2 } as const,
      }[rest] as TickId | null;
    case "wait":
      return { do: "wait", until: rest === "outside" ? "touch" : "cold" };
    default:
      return null;
  }
}

const LETTERS = { z: "height", f: "flush", g: "gap", s: "straightness", e: "edge", l: "level" } as const;

/** @param gate that it was read at: a rest and a piece may share a name. @returns null for a name that no version gave. */
function quantityFromFirst(what: string, gate: string | undefined): QuantityId | null {
  const letter = LETTERS[what[0] as keyof typeof LETTERS];
  if (letter) return { kind: letter, at: what.slice(1) };
  if (what[0] === "r") return { kind: "rock", held: (what[1] as "A" | undefined) ?? null };
  const [from, at, to] = what.split("^");
  if (to !== undefined) return { kind: "angle", from: from as string, at: at as string, to };
  const [of, line] = what.split("|");
  if (line !== undefined) {
    const [p, q] = line.split("-");
    return { kind: "offset", of: of as string, from: p as string, to: q as string };
  }
  const [p, q] = what.split("-");
  if (q !== undefined) return { kind: "distance", from: p as string, to: q };
  if (gate === "cut") return { kind: "piece", member: what };
  if (/^R[1-9]\d?$/.test(what)) return { kind: "rest", rest: what };
  return /^[A-D]{2}$/.test(what) ? { kind: "distance", from: what[0] as string, to: what[1] as string } : null;
}

/** @param gateOf gate of a round by its id. */
export function entryFromFirst(raw: unknown, gateOf: (roundId: string) => string | undefined): unknown {
  if (!isOld(raw)) return raw;
  if (raw.kind === "tick" && typeof raw.step === "string") return { ...raw, step: tickFromFirst(raw.step) ?? raw.step };
  if (raw.kind === "reading" && typeof raw.what === "string")
    return { ...raw, what: quantityFromFirst(raw.what, gateOf(String(raw.roundId))) ?? raw.what };
  return raw;
}
