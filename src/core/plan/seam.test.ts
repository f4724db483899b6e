import { describe, expect, it } from "vitest";
import { FREE_FRAMES, LEANING_FRAMES, squareTube, started } from "../../../tests/support/drawnFrames";
import { job } from "../../../tests/support/jobs";
import { ladder } from "../../../tests/support/ladder";
import { resolveStructure, STARTERS } from "../frame";
import { weldOf } from "../job";
import { fromStructure, lineOfFace } from "../mechanics";
import { heatJPerMm, lineLengthMm, SEAM_SHARES, seamShare, weldedModel } from "../weld";
import { loadSteps } from "./loadSteps";
import { orderOfWork } from "./schools";
import { seamKind, seamPosition } from "./seam";

describe("how a seam lies", () => {
  it("of a frame that lies flat: tops flat, undersides overhead until it is turned, insides and outsides upright", () => {
    const structure = ladder(1);
    const at = (joint: string, line: string, up: "top" | "bottom") => {
      const j = structure.joints.find((x) => x.id === joint);
      const face = j?.faces.find((f) => f.line === line);
      if (!j || !face) throw new Error(`${joint} ${line}`);
      return [seamKind(j, face), seamPosition(structure, j, face, up)];
    };
    expect(at("A", "top", "top")).toEqual(["groove", "flat"]);
    expect(at("A", "bottom", "top")).toEqual(["groove", "overhead"]);
    expect(at("A", "bottom", "bottom")).toEqual(["groove", "flat"]);
    expect(at("A", "inside", "top")).toEqual(["fillet", "vertical"]);
    expect(at("A", "outside", "top")).toEqual(["outside corner", "vertical"]);
    expect(at("M1/AB", "plus", "top")).toEqual(["fillet", "vertical"]);
  });
  it("sets its heat to begin with, between the shares that are told; heat that was read holds for all", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const { steps } = orderOfWork(structure);
      const weld = weldOf(job([]).plan);
      const heats = (from: "starting" | "machine") =>
        loadSteps(structure, { ...weld, from }, steps).flatMap((s) => (s.do === "bead" ? [s.heatJPerMm] : []));
      const heat = heatJPerMm(weld);
      const read = new Set(heats("machine"));
      expect(read.size === 0 || (read.size === 1 && read.has(heat)), name).toBe(true);
      for (const h of heats("starting")) {
        expect((h ?? 0) / heat, name).toBeGreaterThanOrEqual(SEAM_SHARES[0] - 1e-9);
        expect((h ?? 0) / heat, name).toBeLessThanOrEqual(SEAM_SHARES[1] + 1e-9);
      }
    }
    expect(seamShare("groove", "flat")).toBe(1);
  });
  it("of square tube is as long in the mechanics as it is on the frame, but for the wall", () => {
    const frames = [
      ...STARTERS.map((x) => started(x.name)),
      ...["below the rail", "above the rail"].map((brace) => started("gate leaf", { brace }, squareTube(50, 2))),
      ...Object.values(FREE_FRAMES),
      ...Object.values(LEANING_FRAMES),
    ].filter((f) => f.sections.every((x) => x.shape === "tube"));
    let shared = 0;
    for (const frame of frames) {
      const { structure } = resolveStructure(frame);
      const model = weldedModel(fromStructure(structure).frame);
      for (const s of loadSteps(structure, weldOf(job([]).plan), orderOfWork(structure).steps)) {
        if (s.do !== "bead") continue;
        const joint = structure.joints.find((j) => j.id === s.joint);
        const faces = model.joints.find((j) => j.id === s.joint)?.faces;
        const face = joint?.faces.find((f) => lineOfFace(joint, f.line) === s.line);
        if (!joint || !faces || !face) throw new Error(s.id);
        if (joint.landedMm) shared += 1;
        const mm = (s.share ?? 1) * lineLengthMm(faces, faces.kind.lines.indexOf(s.line));
        expect(mm / face.lengthMm, s.id).toBeGreaterThan(0.8);
        expect(mm / face.lengthMm, s.id).toBeLessThan(1.001);
      }
    }
    expect(shared).toBeGreaterThan(10);
  });
});
