import type { Bar } from "./held";

/** Why a step stands where it does: what a school goes by, with the joints that it speaks of. */
export type Reason =
  | { kind: "bed holds flat"; stands: boolean; rolls: boolean }
  | { kind: "error costs a nudge" }
  | { kind: "joint still turns" }
  | { kind: "pulls alike"; joint: string }
  | { kind: "pulls against"; joints: readonly string[] }
  | { kind: "ends before middle" }
  | { kind: "close while it turns" }
  | { kind: "one before the next" }
  | { kind: "stiff already" }
  | { kind: "cut and set" }
  | { kind: "locks" }
  | { kind: "holds against lifting" }
  | { kind: "corners are locked" }
  | { kind: "far end is free" }
  | { kind: "opposes the other side" }
  | { kind: "both sides hold" }
  | { kind: "one tack turns" }
  | { kind: "below wants a tack" }
  | { kind: "back on its bottom" }
  | { kind: "every side holds" }
  | { kind: "last cheap moment" }
  | { kind: "outside first" }
  | { kind: "across from"; joint: string }
  | { kind: "hot reads long" }
  | { kind: "face all round" }
  | { kind: "second takes back" }
  | { kind: "inside last" }
  | { kind: "jumping about" }
  | { kind: "while it is up" }
  | { kind: "cold in its clamps" }
  | { kind: "now it shows" }
  | { kind: "only cold counts" }
  | { kind: "outside holds" }
  | { kind: "top and bottom soon" }
  | { kind: "inside tacked last" }
  | { kind: "half by itself" }
  | { kind: "halves before joining" }
  | { kind: "joins the halves" }
  | { kind: "joined" }
  | { kind: "all faces at once" }
  | { kind: "what it took" }
  | { kind: "carries" }
  | { kind: "outside last" }
  | { kind: "corners cool first" }
  | { kind: "field jumps about" }
  | { kind: "as they come" }
  | { kind: "below in one go" }
  | { kind: "short lengths" }
  | { kind: "sub-assembly cold"; name: string }
  | { kind: "bar on"; bar: Bar }
  | { kind: "bar off"; bar: Bar }
  | { kind: "own" };
