import { isHollow, MATERIALS, type Structure } from "../frame";
import { plainLength, rangeWords, type UnitPreference } from "../units";
import type { Finish } from "./holes";

/** What a piece's ends need before they are fitted. */
interface Preparation {
  /** Sections that it holds for. */
  sections: string[];
  steps: string[];
}

/** Walls above which a plain edge no longer lets a bead through, mm (common practice, no source). */
const BEVEL_FROM_MM = 4;
const FULL_BEVEL_FROM_MM = 6;
/** How far back from the joint coating comes off, mm (common practice, no source). */
const STRIP_MM = 25;

/** Edge preparation by wall. (Common practice, no source; a procedure that is laid down goes before it.) */
export function bevelFor(wallMm: number, units: UnitPreference = "mm"): string {
  if (wallMm < BEVEL_FROM_MM) return "Leave the edges square, fit close.";
  if (wallMm < FULL_BEVEL_FROM_MM) return "Bevel the edges that get a bead about 30°, or leave half a wall of gap.";
  return `Bevel the edges that get a bead 30 to 37°, leave a nose of ${rangeWords(1, 2, units)} and a gap of ${rangeWords(2, 3, units)}.`;
}

/** Preparation of every section's ends, told once of those that need the same. @param finish what happens after welding. */
export function preparations(structure: Structure, finish: Finish, units: UnitPreference = "mm"): Preparation[] {
  const known = new Set<string>();
  const told = new Map<string, Preparation>();
  const strip = plainLength(units === "mm" ? STRIP_MM : 25.4, units);
  for (const m of structure.members) {
    if (known.has(m.section)) continue;
    known.add(m.section);
    const steps = [
      isHollow(m.shape) ? "Deburr inside and out." : "Deburr every edge.",
      MATERIALS[m.material].rusts
        ? `Strip zinc, primer and scale ${strip} back from each joint: their fume is poison and their beads are porous.`
        : `Take paint, glue and oxide off, ${strip} back from each joint, just before it is welded: they make beads porous.`,
      bevelFor(m.properties.wallMm, units),
      MATERIALS[m.material].rusts
        ? "Wipe off oil with a solvent and let it dry before the arc; never a chlorinated one."
        : "Degrease, then brush with a stainless brush kept for this metal only; let solvent dry, never a chlorinated one.",
      ...(finish === "zinc dip" ? ["No paint marks under zinc: mark with chalk or tags."] : []),
    ];
    const key = steps.join(" ");
    told.set(key, { sections: [...(told.get(key)?.sections ?? []), m.section], steps });
  }
  return [...told.values()];
}
