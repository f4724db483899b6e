import type { JointInput } from "../../mechanics";
import { add3, dot3, scale3, sub3, type Vec3 } from "../../numeric";
import type { JointPlace } from "../jointKind";

/** Second moment of a section about its middle, along a direction across it, mm4. */
function secondMoment({ section, axes }: JointInput["a"], d: Vec3): number {
  const [y, z] = [dot3(axes[1], d), dot3(axes[2], d)];
  return y * y * section.izMm4 + z * z * section.iyMm4;
}

/**
 * What a piece of seam along two members does to both of them, per mm by which it shortens them together. Held to each other over its whole
 * length they bend there as one section: of a contracted volume V at r from the middle of both, they shorten by V / A and turn by V r / I
 * about either way across (beam theory; Okerblom's rule for the volume). They turn alike, so that nothing moves between them.
 * @returns the area of both, mm2, and the kinks: 12 x 4, six ways of each member by line; the lines across have none.
 */
export function alongSeam(
  { a, b, nodeA, nodeB, nodes }: JointInput,
  { at, e1, e2, normal, half2Mm }: Pick<JointPlace, "at" | "e1" | "e2" | "normal" | "half2Mm">,
): NonNullable<JointPlace["along"]> {
  const [pA, pB] = [nodes[nodeA].at, nodes[nodeB].at];
  const [areaA, areaB] = [a.section.areaMm2, b.section.areaMm2];
  const areaMm2 = areaA + areaB;
  const middle = add3(scale3(pA, areaA / areaMm2), scale3(pB, areaB / areaMm2));
  const about = (d: Vec3): number =>
    [a, b].reduce((sum, m, i) => {
      const off = dot3(sub3(i === 0 ? pA : pB, middle), d);
      return sum + secondMoment(m, d) + m.section.areaMm2 * off * off;
    }, 0);
  const [iNormal, iAcross] = [about(normal), about(e2)];
  const kinks = new Float64Array(48);
  for (const [line, sign] of [
    [2, 1],
    [3, -1],
  ] as const) {
    const r = sub3(add3(at, scale3(e2, sign * half2Mm)), middle);
    const [n, across] = [dot3(r, normal), dot3(r, e2)];
    const turn = add3(scale3(normal, (-areaMm2 * across) / iAcross), scale3(e2, (areaMm2 * n) / iNormal));
    [pA, pB].forEach((p, k) => {
      const off = sub3(p, middle);
      // What lies beyond comes nearer, by more where the turn brings it.
      const nearer = 1 + areaMm2 * ((n * dot3(off, normal)) / iNormal + (across * dot3(off, e2)) / iAcross);
      const beyond = dot3((k === 0 ? a : b).axes[0], e1) < 0 ? -1 : 1;
      for (let i = 0; i < 3; i++) {
        kinks[24 * k + 4 * i + line] = -beyond * nearer * (e1[i] ?? 0);
        kinks[24 * k + 4 * (i + 3) + line] = beyond * (turn[i] ?? 0);
      }
    });
  }
  return { areaMm2, kinks };
}
