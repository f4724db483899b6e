import { describe, expect, it } from "vitest";
import { drawn, squareTube } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "../frame";
import { rigidModel } from "../weld";
import { fromStructure, type Station } from "./fromStructure";
import { underWeight } from "./underWeight";

const L = 2000;
const W_N_PER_MM = 0.03;
/** Two rails of one length, and what joins them: soft enough to carry nothing across. */
const { structure } = resolveStructure(
  drawn(
    {
      P: [
        [0, 0, 20],
        [L, 0, 20],
      ],
      Q: [
        [0, 800, 20],
        [L, 800, 20],
      ],
      V: [
        [300, 20, 20],
        [300, 780, 20],
      ],
      W: [
        [L - 300, 20, 20],
        [L - 300, 780, 20],
      ],
    },
    [squareTube(40, 3)],
  ),
);
/** Rails that stand on props at these places along both of them. @param softer what is stiff across, as a share. */
function hung(at: readonly number[], softer = 1e-5) {
  const middle = [0.25, 0.5, 0.75].map((s) => s * L);
  const stations: Station[] = ["P", "Q"].flatMap((member) =>
    [...at, ...middle].map((x): Station => ({ member, at: [x, member === "P" ? 0 : 800, 20] })),
  );
  const { frame, stations: names } = fromStructure(structure, stations);
  const members = frame.members.map((m) => {
    if (m.id === "P" || m.id === "Q") return m;
    const { iyMm4, izMm4, jMm4 } = m.section;
    return { ...m, section: { ...m.section, iyMm4: iyMm4 * softer, izMm4: izMm4 * softer, jMm4: jMm4 * softer } };
  });
  const model = rigidModel({ ...frame, members });
  const node = (i: number): number => model.nodeOf(stations[i]?.member ?? "", names[i] as string);
  const props = stations.flatMap((s, i) => (at.includes(s.at[0]) && i % (at.length + 3) < at.length ? [node(i)] : []));
  const found = underWeight(
    model,
    new Map([
      ["P", W_N_PER_MM],
      ["Q", W_N_PER_MM],
    ]),
    props,
  );
  const e = frame.material.eMPa;
  const i = frame.members.find((m) => m.id === "P")?.section.iyMm4 ?? 0;
  const up = (x: number): number => {
    const n = stations.findIndex((s) => s.member === "P" && s.at[0] === x);
    return found?.movement[6 * node(n) + 2] ?? Number.NaN;
  };
  // Of a thin square tube 20 / 48 of the area takes shear (Cowper 1966 at nu = 0, from memory).
  const ga = (e / 2.6) * (20 / 48) * 4 * 3 * 37;
  return { found, ei: e * i, ga, up };
}

describe("a frame under its own weight", () => {
  it("on its ends sags 5 w L^4 / 384 EI + w L^2 / 8 GkA (closed form, Timoshenko)", () => {
    const { ei, ga, up } = hung([0, L]);
    const sag = (5 * W_N_PER_MM * L ** 4) / (384 * ei) + (W_N_PER_MM * L ** 2) / (8 * ga);
    expect(-up(L / 2) / sag).toBeCloseTo(1, 3);
  });
  it("on ends and middle rests 3/16, 5/8, 3/16 of a rail on them (closed form of two equal spans)", () => {
    const { found } = hung([0, L / 2, L]);
    const rail = W_N_PER_MM * L;
    const [a, b, c] = found?.loadsN ?? [];
    expect((a ?? 0) / rail).toBeCloseTo(3 / 16, 3);
    expect((b ?? 0) / rail).toBeCloseTo(5 / 8, 3);
    expect((c ?? 0) / rail).toBeCloseTo(3 / 16, 3);
  });
  it("lets go of a prop that would have to hold it down, and carries its weight on the others", () => {
    // Ends hang free beyond the middle two: the prop at the far end would pull.
    const { found } = hung([0, 100, 900]);
    expect(found).toBeNull();
    const { found: three } = hung([0, 1000, 1900, L]);
    expect(three?.loadsN.reduce((s, v) => s + v, 0)).toBeCloseTo(2 * W_N_PER_MM * L, 6);
    expect(Math.min(...(three?.loadsN ?? [-1]))).toBeGreaterThanOrEqual(0);
  });
  it("cannot stand on two", () => {
    expect(hung([]).found).toBeNull();
  });
});
