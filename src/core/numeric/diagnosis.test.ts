import { describe, expect, it } from "vitest";
import { diagnose } from "./diagnosis";

const reading = (id: string, w: number, slip: number, controlled = true) => ({ id, w, slip, uSlip: 0.5, controlled });

describe("which reading looks misread", () => {
  it("is none while all are within chance", () => {
    expect(diagnose([reading("AB", 3.2, 5), reading("BC", -1, 1)])).toEqual({ status: "none", candidates: [] });
  });
  it("is one where one stands out, with its slip and the common one that is nearest", () => {
    const found = diagnose([reading("AB", 12, 9.8), reading("BC", 4, 3)]);
    expect(found).toMatchObject({ status: "located", candidates: [{ id: "AB", slip: 9.8, likeSlip: 10 }] });
  });
  it("is nobody's name where several look alike: then those first whose slip people make", () => {
    const found = diagnose([reading("AC", 8, 11.3), reading("BD", -8.05, -25.5)]);
    expect(found.status).toBe("detected_not_located");
    expect(found.candidates.map((c) => c.id)).toEqual(["BD", "AC"]);
  });
  it("is never a reading that nothing controls", () => {
    expect(diagnose([reading("AB", 9, 5), reading("BC", 9, 5, false)]).candidates.map((c) => c.id)).toEqual(["AB"]);
  });
});
