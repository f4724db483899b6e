import { faceMm, type MaterialName, shapeOf, shapeProperties } from "../frame";
import {
  bareUnit,
  fixed,
  type Length,
  length,
  physical,
  statedLength,
  tapeStepMm,
  type UnitPreference,
  wallWords,
} from "../units";
import {
  heatJPerMm,
  PROCESSES,
  type ProcessName,
  processesOf,
  SEAM_SHARES,
  settingsBy,
  startingSettings,
  startingTackMm,
  type Weld,
} from "../weld";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";

/** The thinnest wall of what a plan builds, mm: the one that burns through first. */
export function thinnestWallMm(plan: Plan): number {
  const { members } = builtOf(plan);
  return members
    ? Math.min(...members.sections.map((x) => shapeProperties(shapeOf(x)).wallMm))
    : plan.frame.sizes.section.wall.mm;
}

/** The narrowest face of what a plan builds, mm. */
export function narrowestFaceMm(plan: Plan): number {
  const { members } = builtOf(plan);
  const { face, depth } = plan.frame.sizes.section;
  return members ? Math.min(...members.sections.map((x) => faceMm(shapeOf(x)))) : Math.min(face.mm, depth.mm);
}

/** A length that a rule of thumb gives, as one reads it off a tape, rounded down. */
function onTape(mm: number, units: UnitPreference): Length {
  const step = tapeStepMm(units);
  return length(statedLength(step * Math.max(1, Math.floor(mm / step + 1e-6)), units, true), bareUnit(units));
}

/** What most of it is made of: its first section's material. */
export const materialOf = (plan: Plan): MaterialName => {
  const { members } = builtOf(plan);
  return members?.sections[0]?.material ?? plan.frame.sizes.material;
};

/** Settings that the plan is welded with: as they were read on a machine, else those to begin with on its thinnest wall. */
export function weldOf(plan: Plan): Weld {
  const { weld } = plan;
  const begins = (process: ProcessName) => startingSettings(process, thinnestWallMm(plan), materialOf(plan));
  const others = processesOf(weld)
    .filter((p) => p !== weld.process)
    .map((id) => {
      const read = weld.others?.find((o) => o.id === id && o.from !== "starting");
      return read ?? { id, ...begins(id), from: "starting" as const };
    });
  const { others: _, ...rest } = weld;
  return {
    ...rest,
    tackLength: weld.tackLength ?? onTape(startingTackMm(thinnestWallMm(plan), narrowestFaceMm(plan)), plan.units),
    ...(weld.from === "starting" ? begins(weld.process) : {}),
    ...(others.length > 0 ? { others } : {}),
  };
}

/** Settings in words, and whose they are: what every prediction rests on. */
export function settingsWords(plan: Plan): string {
  const weld = weldOf(plan);
  const besides = processesOf(weld)
    .slice(1)
    .map((p) => {
      const arc = settingsBy(weld, p);
      const what = [
        ...(weld.tackProcess === p ? ["tacks"] : []),
        ...(weld.seams?.some((s) => s.process === p) ? ["some beads"] : []),
      ].join(" and ");
      return `; ${what} by ${PROCESSES[p].label}, ${fixed(arc.volts, 1)} V, ${fixed(arc.amps, 0)} A, ${physical("speed", arc.travelMmPerS, plan.units)}${arc.from === "starting" && weld.from !== "starting" ? ", to begin with" : ""}`;
    });
  const heat = `${PROCESSES[weld.process].label}, ${fixed(weld.volts, 1)} V, ${fixed(weld.amps, 0)} A, ${physical("speed", weld.travelMmPerS, plan.units)}, ${physical("heat", heatJPerMm(weld), plan.units)}${besides.join("")}`;
  return weld.from === "starting"
    ? `settings to begin with for a wall of ${wallWords(thinnestWallMm(plan), plan.units)} (${heat}), each bead ${SEAM_SHARES.map((s) => fixed(s, 1)).join(" to ")} of it by its joint and position, not read on your machine: set them under Tack and weld`
    : `your settings (${heat})`;
}
