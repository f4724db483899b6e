import type { MaterialName } from "../frame";
import type { ProcessName } from "./heat";
import type { TestBead } from "./testBeadSchema";

/** What a test bead came to. */
export const BEAD_RESULTS = ["keep", "too cold", "too hot", "burnt through", "unsound"] as const;

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
