import type { BeamElement, ModelMember } from "../mechanics";
import { add3, dot3, type Sparse, scale3, type Vec3 } from "../numeric";
import { lineAt } from "./joints/shared";
import { lineOffset } from "./ring";
import type { WeldedJoint, WeldedModel } from "./weldedModel";

/**
 * Nodal loads of one mm3 of contracted volume in the chord at a weld line: it shortens the chord and kinks it toward the
 * line. Axial E V / L; bending E I k B(a) with k = V y / I and B the curvature of the cubic shape functions at a.
 * @returns a sparse column over the freedoms. @throws Error for a joint without chord.
 */
export function chordLoad(model: WeldedModel, joint: WeldedJoint, line: number): Sparse {
  const { chord, ring } = joint;
  if (!chord) throw new Error(`${joint.id} has no chord`);
  const member = model.members.get(chord.member) as ModelMember;
  const offset = add3(
    scale3(ring.normal, lineAt(chord.depthMm, chord.wallMm)),
    line < 2 ? [0, 0, 0] : lineOffset(ring, line),
  );
  const y = dot3(offset, member.axes[1]);
  const z = dot3(offset, member.axes[2]);
  const right = model.elements.find((e) => e.member === member.id && e.from === joint.nodeA);
  const left = model.elements.find((e) => e.member === member.id && e.to === joint.nodeA);
  const shares: [BeamElement | undefined, number][] =
    line === 0
      ? [[right ?? left, 1]]
      : line === 1
        ? [[left ?? right, 1]]
        : right && left
          ? [
              [right, 0.5],
              [left, 0.5],
            ]
          : [[right ?? left, 1]];
  const distance = chord.alongMm / (line < 2 ? 2 : 4);
  const out: Sparse = { at: [], value: [] };
  const { eMPa } = model.frame.material;
  for (const [element, share] of shares) {
    if (!element) continue;
    const L = element.lengthMm;
    const near = Math.min(distance, L / 2);
    const a = element === right ? near : L - near;
    const b1 = -6 / L ** 2 + (12 * a) / L ** 3;
    const b2 = -4 / L + (6 * a) / L ** 2;
    const b4 = -2 / L + (6 * a) / L ** 2;
    const v = share * eMPa;
    // (u, v, w, rx, ry, rz) at both ends in the member's own axes.
    const ends: [number, Vec3, Vec3][] = [
      [element.from, [v / L, v * y * b1, v * z * b1], [0, -v * z * b2, v * y * b2]],
      [element.to, [-v / L, -v * y * b1, -v * z * b1], [0, -v * z * b4, v * y * b4]],
    ];
    for (const [node, force, moment] of ends)
      for (let i = 0; i < 3; i++) {
        let f = 0;
        let m = 0;
        for (let q = 0; q < 3; q++) {
          f += force[q] * member.axes[q][i];
          m += moment[q] * member.axes[q][i];
        }
        out.at.push(6 * node + i, 6 * node + 3 + i);
        out.value.push(f, m);
      }
  }
  return out;
}
