import { type DrawnFrame, member } from "@/core/frame";
import { squareTube, started } from "./drawnFrames";

/** A flat frame of so many members: four sides and rungs, in two bays. */
export function largeFrame(members: number): DrawnFrame {
  const rungs = members - 5;
  const lengthMm = 100 * (rungs + 2);
  const base = started("rectangle", { length: Math.min(20_000, lengthMm), width: 1600 }, squareTube(30, 2));
  const L = Math.min(20_000, lengthMm);
  const spine = member("K1", [15, 800, 15], [L - 15, 800, 15], "S1", "mm");
  const step = (L - 60) / (Math.ceil(rungs / 2) + 1);
  const across = Array.from({ length: rungs }, (_, i) => {
    const x = 30 + step * (Math.floor(i / 2) + 1);
    const [from, to] = i % 2 === 0 ? [15, 800] : [800, 1585];
    return member(`M${i + 1}`, [x, from as number, 15], [x, to as number, 15], "S1", "mm");
  });
  return { ...base, members: [...base.members, spine, ...across] };
}
