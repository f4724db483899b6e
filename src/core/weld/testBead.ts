import * as z from "zod";
import { MATERIALS, type MaterialName } from "../frame";
import { visibleName } from "../units";
import type { ProcessName } from "./heat";
import { SEAM_KINDS, SEAM_POSITIONS } from "./starting";
import { weldSchema } from "./weldSchema";

/** What a test bead came to. */
export const BEAD_RESULTS = ["keep", "too cold", "too hot", "burnt through", "unsound"] as const;

/** A bead on scrap with the settings that it was laid with: kept for good, as it was. */
export const testBeadSchema = z.strictObject({
  id: z.uuid("A test bead needs an id of its own."),
  at: z.iso.datetime({ precision: 3, message: "A time in ISO 8601, UTC, with milliseconds." }),
  origin: visibleName("Say who laid it.", 60),
  ...weldSchema.pick({ process: true, volts: true, amps: true, travelMmPerS: true }).shape,
  wallMm: z
    .number("Give the wall.")
    .min(0.4, "Thinner than 0.4 mm is no tube.")
    .max(60, "Thicker than 60 mm is no tube."),
  material: z.enum(Object.keys(MATERIALS) as [MaterialName, ...MaterialName[]]),
  seam: z.enum(SEAM_KINDS),
  position: z.enum(SEAM_POSITIONS),
  result: z.enum(BEAD_RESULTS),
  note: z.string().trim().max(300, "At most 300 characters."),
});
export type TestBead = z.infer<typeof testBeadSchema>;

/** Walls as far apart as this share are welded alike (own judgement). */
const ALIKE = 0.15;

const settingsOf = ({ process, volts, amps, travelMmPerS, material }: TestBead): string =>
  [process, volts, amps, travelMmPerS, material].join();

/** What is welded: a process on a wall of a material. */
export interface BeadOn {
  process: ProcessName;
  wallMm: number;
  material: MaterialName;
}

/** Test beads on about such a wall, the newest first. */
export const beadsOn = (beads: readonly TestBead[], { process, wallMm, material }: BeadOn): TestBead[] =>
  beads
    .filter(
      (b) =>
        b.process === process &&
        b.material === material &&
        Math.abs(Math.log(b.wallMm / wallMm)) <= Math.log(1 + ALIKE),
    )
    .sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0));

/** The settings that the shop has proven on such a wall: of the newest bead that was kept and not given up since; null without one. */
export function provenOn(beads: readonly TestBead[], on: BeadOn): TestBead | null {
  const own = beadsOn(beads, on);
  return (
    own.find(
      (b, i) =>
        b.result === "keep" && !own.slice(0, i).some((o) => o.result !== "keep" && settingsOf(o) === settingsOf(b)),
    ) ?? null
  );
}
