import type { DrawnFrame } from "./drawnSchema";
import { setJoint } from "./editing";
import { resolveStructure } from "./resolveStructure";

/** A face looks up or down when its way is this far from level. */
const UPRIGHT = 0.7;

/** @returns the frame with the beads of all faces that look up, or down, to be ground flush. */
export function groundFaces(frame: DrawnFrame, looking: readonly ("top" | "bottom")[]): DrawnFrame {
  let out = frame;
  for (const joint of resolveStructure(frame).structure.joints) {
    const lines = joint.faces
      .filter(
        ({ bead, toward: [, , z] }) => bead && looking.includes(z > 0 ? "top" : "bottom") && Math.abs(z) > UPRIGHT,
      )
      .map((f) => f.line);
    const said = frame.joints.find((j) => j.between.includes(joint.a) && j.between.includes(joint.b))?.faces ?? [];
    const ground = lines.map((line) => ({
      ...(said.find((f) => f.line === line) ?? { line, bead: true, leg: null }),
      care: "grind flush" as const,
    }));
    if (ground.length > 0)
      out = setJoint(out, joint.a, joint.b, { faces: [...said.filter((f) => !lines.includes(f.line)), ...ground] });
  }
  return out;
}
