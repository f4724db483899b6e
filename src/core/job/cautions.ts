import type { Carries } from "./carries";

/** Short cautions that belong to one stage. All defer to local rules and licensed practice. */
export const STAGE_CAUTIONS = {
  finish:
    "Grinder guard on, disc rated for its speed, eyes and ears covered. Zinc and primer are poison in an arc: nothing is welded to a coat.",
  cut: "Guards on, disc rated for the saw, eyes and ears covered. Deburr: the tape reads the burr.",
  bed: "Rests and feet carry the frame while you work under it: no fingers beneath a raised corner.",
  weld: "Helmet, gloves, ventilation, fire watch. Strip zinc and primer back from the joint. Never use chlorinated cleaner near an arc: it makes poison gas. Let solvent dry first.",
} as const;

const LOUD =
  "Load-bearing work needs a qualified welder, an approved procedure and inspection under local rules. The figures here are estimates and no approval.";

/** What to say about what the frame carries; null where nothing beyond common care is called for. */
export const CARRIES_CAUTION: Record<Carries, string | null> = {
  furniture: null,
  machine: "Where a guard or a drive is carried, the machine's own rules come first.",
  vehicle: LOUD,
  lifting: LOUD,
  people: LOUD,
};
