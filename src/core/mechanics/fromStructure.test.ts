import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { resolveStructure, STARTERS } from "../frame";
import { frameProblems } from "../weld";
import { fromStructure } from "./fromStructure";

describe("the mechanics of any frame", () => {
  it("says which joints and members it stands on: no problem in any starter", () => {
    for (const s of STARTERS) {
      const { frame, joints } = fromStructure(resolveStructure(started(s.name)).structure);
      expect(frameProblems(frame), s.name).toEqual([]);
      expect(joints.size, s.name).toBe(frame.joints.length);
    }
  });
});
