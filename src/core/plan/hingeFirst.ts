import type { MitreFace, ResolvedFrame, ResolvedJoint, TeeFace } from "../frame";
import { faceWords } from "./faces";
import type { Step } from "./step";

/** Corners so that each tack is followed by the one across the diagonal. */
export const ACROSS = ["A", "C", "B", "D"] as const;

/** Tees from the middle outwards, ends in turn, so that no side collects its pull at one end. */
export function teesJumping(frame: ResolvedFrame): ResolvedJoint[] {
  const tees = frame.joints.filter((j) => j.kind === "tee");
  const names = [...new Set(tees.map((t) => t.members[0]))];
  const place = (name: string): number => {
    const m = frame.members.find((x) => x.name === name);
    return m ? m.axis[0].x + m.axis[0].y : 0;
  };
  names.sort((a, b) => place(a) - place(b));
  const order: string[] = [];
  for (let low = 0, high = names.length - 1; low <= high; low++, high--) {
    order.push(names[low] as string);
    if (high > low) order.push(names[high] as string);
  }
  const ofMember = (name: string) => tees.filter((t) => t.members[0] === name);
  return order.flatMap((name, i) => (i % 2 === 0 ? ofMember(name) : ofMember(name).reverse()));
}

/**
 * Tacking, school "hinge first": one tack at each inside corner, measure across, close the error while the corners still
 * hinge, lock on the outside, then top; cross members go in once the corners are locked; bottom after the flip.
 * @param frame the resolved frame.
 */
export function hingeFirst(frame: ResolvedFrame): Step[] {
  const steps: Step[] = [];
  const joint = (name: string) => frame.joints.find((j) => j.name === name);
  const put = (step: Partial<Step> & Pick<Step, "key" | "kind" | "say" | "why">) =>
    steps.push({ part: "tack", joint: null, face: null, up: "top", gate: null, caution: null, ...step });
  const tack = (name: string, face: MitreFace | TeeFace, why: string, up: "top" | "bottom" = "top") => {
    const j = joint(name);
    if (j)
      put({
        key: `tack/${name}/${face}`,
        kind: "tack",
        joint: name,
        face,
        up,
        say: `Tack ${faceWords(frame, j, face)}`,
        why,
      });
  };

  put({
    key: "hold/clamp",
    kind: "hold",
    say: "Clamp all four sides to the bed, corners free to be reached",
    why: "The bed gives the flat; a clamp opposite each stop keeps the corner where it was measured.",
    caution: "Vent any closed tube before welding: trapped gas blows out through the last bead.",
  });
  put({
    key: "measure/dry fit",
    kind: "measure",
    gate: "dry fit",
    say: "Measure four sides and both diagonals, dry",
    why: "An error found now costs a nudge. After the beads it costs a cut.",
  });
  ACROSS.forEach((c, i) => {
    tack(
      c,
      "inside",
      i === 0
        ? "One tack inside lets the corner hinge, so the frame can still be squared."
        : `Opposite or next across, so that its pull works against the tack at ${ACROSS[i - 1]}.`,
    );
  });
  put({
    key: "measure/tacked",
    kind: "measure",
    gate: "tacked",
    closes: true,
    say: "Measure across and close the error while the corners still hinge",
    why: "Each tack pulled toward its side. The corners still turn on one tack; after the next they do not.",
  });
  ACROSS.forEach((c) => {
    tack(c, "outside", "Locks the corner against the inside tack: the two pulls oppose.");
  });
  ACROSS.forEach((c) => {
    tack(c, "top", "Holds the corner against lifting when the first face is welded.");
  });
  for (const tee of teesJumping(frame)) {
    tack(tee.name, "near", "The corners are locked, so the cross member sets no shape of its own.");
    tack(tee.name, "far", "Opposes the tack on the other side of the same member.");
  }
  put({
    key: "flip/tack-bottom",
    kind: "flip",
    up: "bottom",
    say: `Release, turn the frame over (${frame.massKg.toFixed(0)} kg), clamp again`,
    why: "The bottom faces want a tack before any bead, or the first top bead lifts the corners.",
    caution:
      frame.massKg > 25
        ? `${frame.massKg.toFixed(0)} kg: plan the lift, two people or a hoist.`
        : "Springs back when the clamps come off: stand clear, release slowly.",
  });
  ACROSS.forEach((c) => {
    tack(c, "bottom", "Opposes the top tack; all four faces now hold.", "bottom");
  });
  put({
    key: "measure/tacked-2",
    kind: "measure",
    up: "bottom",
    gate: "tacked",
    say: "Measure again, all tacked",
    why: "Last moment to cut a tack and put it right cheaply: accept, nudge, or cut and re-fit.",
  });
  return steps;
}
