import type { FaceLine } from "../frame";
import type { ProcessName } from "./heat";
import type { SeamHow, Weld } from "./weldSchema";

/** What one weld burns with. */
export type ArcSettings = Pick<Weld, "process" | "volts" | "amps" | "travelMmPerS" | "from">;

/** A weld by what is done where. */
export interface WeldPlace {
  do: "tack" | "bead";
  joint: string;
  line: FaceLine;
}

/** One word for a seam, to look it up by; nothing reads it back. */
export const seamId = ({ joint, line }: Pick<WeldPlace, "joint" | "line">): string => `${joint}/${line}`;

/** How a seam is laid where that is said of it; an empty one where it is laid as the others are. */
export const seamHow = (weld: Pick<Weld, "seams">, place: Pick<WeldPlace, "joint" | "line">): Omit<SeamHow, "id"> =>
  weld.seams?.find((s) => s.id === seamId(place)) ?? {};

/** The process that a weld is laid with. */
export const processOf = (weld: Weld, place: WeldPlace): ProcessName =>
  (place.do === "tack" ? weld.tackProcess : seamHow(weld, place).process) ?? weld.process;

/** Every process that settings are wanted of, that of the beads first. */
export const processesOf = (weld: Pick<Weld, "process" | "tackProcess" | "seams">): ProcessName[] => [
  ...new Set([
    weld.process,
    ...(weld.tackProcess ? [weld.tackProcess] : []),
    ...(weld.seams ?? []).flatMap((s) => s.process ?? []),
  ]),
];

/**
 * Settings of one process.
 * @param weld with settings of every process that it wants. @throws RangeError where those of this one are missing.
 */
export function settingsBy(weld: Weld, process: ProcessName): ArcSettings {
  if (process === weld.process) return weld;
  const other = weld.others?.find((o) => o.id === process);
  if (!other) throw new RangeError(`No settings of ${process}.`);
  return { ...other, process };
}

/** Whether any weld burns with settings that nobody read on a machine. */
export const isUnsure = (weld: Weld): boolean => processesOf(weld).some((p) => settingsBy(weld, p).from === "starting");

/** The same with so much of the current in every process. */
export const withHeatShare = (weld: Weld, share: number): Weld => ({
  ...weld,
  amps: share * weld.amps,
  ...(weld.others ? { others: weld.others.map((o) => ({ ...o, amps: share * o.amps })) } : {}),
});

/** The same with how one seam is laid; one that is laid as the others are is forgotten. */
export function withSeamHow(
  seams: Weld["seams"],
  place: Pick<WeldPlace, "joint" | "line">,
  change: Partial<Omit<SeamHow, "id">>,
): Weld["seams"] {
  const id = seamId(place);
  const { lengths, turned, process } = { ...seamHow({ seams }, place), ...change };
  const how: SeamHow = {
    id,
    ...(lengths ? { lengths } : {}),
    ...(turned ? { turned } : {}),
    ...(process ? { process } : {}),
  };
  const rest = (seams ?? []).filter((s) => s.id !== id);
  const all = Object.keys(how).length > 1 ? [...rest, how] : rest;
  return all.length > 0 ? all : undefined;
}
