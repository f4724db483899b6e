import { acrossAndAround } from "./acrossAndAround";
import type { Step, Up } from "./step";
import type { Workpiece } from "./workpiece";

/**
 * Welding, school "skip": across and around, every seam laid in short lengths with the arc moved on after each, in several rounds: for
 * thin walls and heat. In the forecast the lengths of a seam are one bead: finite elements show no gain in shape.
 * @param up how the frame lies when tacking ends.
 */
export const skip = (work: Workpiece, up: Up): Step[] =>
  acrossAndAround(work, up).map((s) => (s.id.do === "bead" ? { ...s, why: { kind: "short lengths" } } : s));
