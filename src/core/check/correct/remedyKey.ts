import type { RemedyId } from "./remedyId";

/** One word for a remedy, to look it up by; nothing reads it back. */
export function remedyKey(id: RemedyId): string {
  switch (id.do) {
    case "rack":
      return `rack ${id.long}`;
    case "spread":
      return `spread ${id.from}-${id.to} ${id.way}`;
    case "legs":
      return `legs ${id.from}-${id.to} ${id.way}`;
    case "swing":
      return `swing ${id.place} ${id.way} ${id.by}`;
    case "untwist":
      return `untwist ${id.high}`;
    case "shim":
      return "shim";
    case "grind":
      return `grind ${id.joint}`;
    case "press":
    case "wedges":
    case "spots":
    case "lines":
      return `${id.do} ${id.member}`;
    case "trim":
      return `trim ${id.place}`;
    case "draw":
      return `draw ${id.member} ${id.place}`;
    case "bead":
    case "peen":
      return `${id.do} ${id.joint}/${id.line}`;
    case "recut":
      return `recut ${id.joint} ${id.long}`;
  }
}
