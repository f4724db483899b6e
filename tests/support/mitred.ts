import { cutList } from "@/core/cut";
import { type DrawnFrame, type DrawnMember, resolveStructure } from "@/core/frame";
import type { Vec3 } from "@/core/numeric";
import { drawn, squareTube } from "./drawnFrames";

const LONG_MM = 900;
const exactly = ([x, y, z]: Vec3): DrawnMember["from"] => {
  const at = (mm: number) => ({ mm, text: String(mm), unit: "mm" as const });
  return { x: at(x), y: at(y), z: at(z) };
};

/** A chain of members, each with its own width, mitred where they meet: places are exact, not rounded as typed ones are. */
export function mitredChain(at: readonly Vec3[], widthsMm: readonly number[]): DrawnFrame {
  const sections = widthsMm.map((w, i) => ({ ...squareTube(w, 2, `S${i + 1}`), height: squareTube(40).height }));
  const frame = drawn(
    Object.fromEntries(widthsMm.map((_, i) => [`P${i + 1}`, [at[i] as Vec3, at[i + 1] as Vec3, `S${i + 1}`]])),
    sections,
  );
  return {
    ...frame,
    members: frame.members.map((m, i) => ({ ...m, from: exactly(at[i] as Vec3), to: exactly(at[i + 1] as Vec3) })),
    joints: widthsMm.slice(1).map((_, i) => ({
      between: [`P${i + 1}`, `P${i + 2}`] as [string, string],
      kind: "mitre" as const,
      through: null,
      faces: [],
    })),
  };
}

/** Two tubes mitred at an included angle, as the cut list and the structure have them. */
export function mitred(includedDeg: number, width1Mm: number, width2Mm: number) {
  const t = (includedDeg * Math.PI) / 180;
  const far: Vec3 = [LONG_MM * Math.cos(t), LONG_MM * Math.sin(t), 20];
  const { structure } = resolveStructure(mitredChain([[LONG_MM, 0, 20], [0, 0, 20], far], [width1Mm, width2Mm]));
  const cut = (member: string, end: 0 | 1): number => {
    const piece = cutList(structure).find((p) => p.members.includes(member));
    if (!piece) throw new Error(`no piece ${member}`);
    return piece.sawDeg[end];
  };
  const saw: [number, number] = [cut("P1", 1), cut("P2", 0)];
  return {
    sawFromSquareDeg: saw,
    cutToAxisDeg: [90 - saw[0], 90 - saw[1]] as [number, number],
    faceMm: structure.joints[0]?.faces.find((f) => f.line === "top")?.lengthMm ?? Number.NaN,
  };
}
