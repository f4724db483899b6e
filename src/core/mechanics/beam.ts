import type { Axes } from "../frame";
import { dot3, type Vec3 } from "../numeric";
import type { BeamSection } from "./mechanicalFrame";

/** Size of a section along a direction square to the member: the width or the height, whichever lies nearer. */
export const extentAlong = (section: BeamSection, axes: Axes, direction: Vec3): number =>
  Math.abs(dot3(axes[1], direction)) >= Math.abs(dot3(axes[2], direction)) ? section.widthMm : section.heightMm;

/** What of a section carries shear along its local y and z, mm2, and turns, mm4. */
interface ShearAndTorsion {
  alongYMm2: number;
  alongZMm2: number;
  jMm4: number;
}

/**
 * Shear area of a rectangular tube for a force along its webs, mm2: of the thin wall, from the energy of its shear flow, and a
 * little more for the corners (own judgement, from finite elements of sharp corners).
 * @param h between the middles of the flanges. @param f between the middles of the webs. @param t wall. @param b smallest width.
 */
function shearArea(h: number, f: number, t: number, b: number): number {
  const i = (t * h ** 3) / 6 + (f * t * h ** 2) / 2;
  const q0 = (t * f * h) / 4;
  const q1 = (t * h ** 2) / 8;
  const energy = ((4 * q0 ** 2) / 3) * (f / 2) + 4 * (q0 ** 2 + (4 * q0 * q1) / 3 + (8 * q1 ** 2) / 15) * (h / 2);
  return ((1 + t / b) * i ** 2 * t) / energy;
}

/**
 * Shear and torsion of a section. Tubes by their walls; the others by handbook shares of their area (Cowper 1966, from memory):
 * 0.5 of a thin round tube, 5/6 of a rectangle, 0.9 of a round bar, the legs or web that lie along it of an open section.
 */
function shearAndTorsion(s: BeamSection): ShearAndTorsion {
  const { widthMm: w, heightMm: h, wallMm: t, areaMm2 } = s;
  const share = (x: number): ShearAndTorsion => ({ alongYMm2: x * areaMm2, alongZMm2: x * areaMm2, jMm4: s.jMm4 });
  switch (s.shape) {
    case "tube": {
      const b = Math.min(w, h);
      const [x, y] = [w - t, h - t];
      return {
        alongYMm2: shearArea(x, y, t, b),
        alongZMm2: shearArea(y, x, t, b),
        jMm4: ((2 * t * (x * y) ** 2) / (x + y)) * (1 + (0.6 * t) / b),
      };
    }
    case "round tube":
      return share(0.5);
    case "flat":
      return share(5 / 6);
    case "bar":
      return share(0.9);
    case "angle":
      return { alongYMm2: (5 / 6) * w * t, alongZMm2: (5 / 6) * h * t, jMm4: s.jMm4 };
    case "channel":
      return { alongYMm2: (5 / 3) * w * t, alongZMm2: (5 / 6) * h * t, jMm4: s.jMm4 };
  }
}

/**
 * Stiffness of a straight beam that gives way in shear (Timoshenko) in its own axes, 12 x 12, row-major; freedoms
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
  const { alongYMm2, alongZMm2, jMm4 } = shearAndTorsion(section);
  pair(3, (gMPa * jMm4) / L);
  // Bending: deflection freedom d, slope freedom r with slope = sign * dd/dx.
  const bend = (d: number, r: number, sign: number, i: number, shearMm2: number) => {
    const p = (12 * eMPa * i) / (gMPa * shearMm2 * L ** 2);
    const e = (eMPa * i) / L ** 3 / (1 + p);
    pair(d, 12 * e);
    set(r, r, (4 + p) * L * L * e);
    set(r + 6, r + 6, (4 + p) * L * L * e);
    set(r, r + 6, (2 - p) * L * L * e);
    for (const q of [r, r + 6]) {
      set(d, q, sign * 6 * L * e);
      set(d + 6, q, -sign * 6 * L * e);
    }
  };
  bend(1, 5, 1, section.izMm4, alongYMm2);
  bend(2, 4, -1, section.iyMm4, alongZMm2);
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
