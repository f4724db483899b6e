import type { Structure, StructureMember } from "../frame";

/** Square and rectangular tubes of plain steel: the standards of their tolerances speak of no other. */
export const steelTubes = ({ members }: Structure): StructureMember[] =>
  members.filter((m) => m.shape.shape === "tube" && m.material === "mild steel");
