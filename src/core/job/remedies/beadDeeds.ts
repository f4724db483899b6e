import type { FaceLine, Structure } from "../../frame";
import { lineOfFace } from "../../mechanics";
import type { SimulationStep, UnitDeed } from "../../shrink";

/** A bead over a seam as a deed, with the face that it lies on as the frame names it. */
export type BeadDeed = Extract<UnitDeed, { do: "bead" }> & { face: FaceLine };

/** One more bead over every seam that an order welds, with the heat that it is welded with. */
export function beadDeeds(structure: Structure, steps: readonly SimulationStep[]): BeadDeed[] {
  const heat = new Map(
    steps.flatMap((s) => (s.do === "bead" ? [[`${s.joint}/${s.line}`, s.heatJPerMm] as const] : [])),
  );
  return structure.joints.flatMap((j) =>
    j.faces.flatMap(({ line: face, share }): BeadDeed[] => {
      const line = lineOfFace(j, face);
      const heatJPerMm = heat.get(`${j.id}/${line}`);
      return heatJPerMm === undefined
        ? []
        : [{ id: `${j.id}/${face}`, do: "bead", joint: j.id, line, face, share, heatJPerMm }];
    }),
  );
}
