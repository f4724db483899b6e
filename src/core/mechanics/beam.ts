import type { Axes } from "../frame";
import { dot3, type Vec3 } from "../numeric";
import type { BeamSection } from "./mechanicalFrame";

/** Size of a section along a direction square to the member: the width or the height, whichever lies nearer. */
export const extentAlong = (section: BeamSection, axes: Axes, direction: Vec3): number =>
  Math.abs(dot3(axes[1], direction)) >= Math.abs(dot3(axes[2], direction)) ? section.widthMm : section.heightMm;

/** Second moment for bending of a member about a given axis square to it, mm4. */
export function secondMomentAbout(section: BeamSection, axes: Axes, axis: Vec3): number {
  const y = dot3(axes[1], axis);
  const z = dot3(axes[2], axis);
  const all = y * y + z * z;
  return all < 1e-12 ? section.iyMm4 : (section.iyMm4 * y * y + section.izMm4 * z * z) / all;
}

/**
 * Stiffness of a straight beam after Euler and Bernoulli in its own axes, 12 x 12, row-major; freedoms
 * (u, v, w, rx, ry, rz) at each end. Source: Przemieniecki, Theory of Matrix Structural Analysis, ch. 5 (from memory).
 * @param lengthMm length. @param eMPa Young's modulus. @param gMPa shear modulus.
 */
export function beamStiffness(section: BeamSection, lengthMm: number, eMPa: number, gMPa: number): Float64Array {
  const k = new Float64Array(144);
  const L = lengthMm;
  const set = (i: number, j: number, v: number) => {
    k[i * 12 + j] = v;
    k[j * 12 + i] = v;
  };
  const pair = (i: number, v: number) => {
    set(i, i, v);
    set(i + 6, i + 6, v);
    set(i, i + 6, -v);
  };
  pair(0, (eMPa * section.areaMm2) / L);
  pair(3, (gMPa * section.jMm4) / L);
  // Bending: deflection freedom d, slope freedom r with slope = sign * dd/dx.
  const bend = (d: number, r: number, sign: number, i: number) => {
    const e = (eMPa * i) / L ** 3;
    pair(d, 12 * e);
    set(r, r, 4 * L * L * e);
    set(r + 6, r + 6, 4 * L * L * e);
    set(r, r + 6, 2 * L * L * e);
    for (const q of [r, r + 6]) {
      set(d, q, sign * 6 * L * e);
      set(d + 6, q, -sign * 6 * L * e);
    }
  };
  bend(1, 5, 1, section.izMm4);
  bend(2, 4, -1, section.iyMm4);
  return k;
}

/** Turns a 12 x 12 matrix from a member's axes into the frame's. */
export function toGlobal(k: Float64Array, axes: Axes): Float64Array {
  const out = new Float64Array(144);
  const r = (i: number, j: number): number => axes[i][j];
  const block = new Float64Array(9);
  for (let a = 0; a < 4; a++)
    for (let b = 0; b < 4; b++) {
      for (let i = 0; i < 3; i++)
        for (let j = 0; j < 3; j++) {
          let sum = 0;
          for (let q = 0; q < 3; q++) sum += k[(3 * a + i) * 12 + 3 * b + q] * r(q, j);
          block[3 * i + j] = sum;
        }
      for (let i = 0; i < 3; i++)
        for (let j = 0; j < 3; j++) {
          let sum = 0;
          for (let q = 0; q < 3; q++) sum += r(q, i) * block[3 * q + j];
          out[(3 * a + i) * 12 + 3 * b + j] = sum;
        }
    }
  return out;
}
