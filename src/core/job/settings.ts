import { type MaterialName, shapeOf, shapeProperties } from "../frame";
import { fixed, physical, wallWords } from "../units";
import { heatJPerMm, PROCESSES, SEAM_SHARES, startingSettings, type Weld } from "../weld";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";

/** The thinnest wall of what a plan builds, mm: the one that burns through first. */
export function thinnestWallMm(plan: Plan): number {
  const { members } = builtOf(plan);
  return members
    ? Math.min(...members.sections.map((x) => shapeProperties(shapeOf(x)).wallMm))
    : plan.frame.sizes.section.wall.mm;
}

/** What most of it is made of: its first section's material. */
export const materialOf = (plan: Plan): MaterialName => {
  const { members } = builtOf(plan);
  return members?.sections[0]?.material ?? plan.frame.sizes.material;
};

/** Settings that the plan is welded with: as they were read on a machine, else those to begin with on its thinnest wall. */
export const weldOf = (plan: Plan): Weld =>
  plan.weld.from === "starting"
    ? { ...plan.weld, ...startingSettings(plan.weld.process, thinnestWallMm(plan), materialOf(plan)) }
    : plan.weld;

/** Settings in words, and whose they are: what every prediction rests on. */
export function settingsWords(plan: Plan): string {
  const weld = weldOf(plan);
  const heat = `${PROCESSES[weld.process].label}, ${fixed(weld.volts, 1)} V, ${fixed(weld.amps, 0)} A, ${physical("speed", weld.travelMmPerS, plan.units)}, ${physical("heat", heatJPerMm(weld), plan.units)}`;
  return weld.from === "starting"
    ? `settings to begin with for a wall of ${wallWords(thinnestWallMm(plan), plan.units)} (${heat}), each bead ${SEAM_SHARES.map((s) => fixed(s, 1)).join(" to ")} of it by its joint and position, not read on your machine: set them under Tack and weld`
    : `your settings (${heat})`;
}
