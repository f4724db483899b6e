import type { MitreFace, ResolvedFrame, TeeFace } from "../frame";
import { faceWords } from "./faces";
import { ACROSS, teesJumping } from "./hingeFirst";
import type { Step } from "./step";

/**
 * Welding, school "across and around": outside seams first, always to the opposite corner, then top and bottom in turn,
 * insides last, cross members jumping about. One face goes all round before the flip: in the stepwise beam model, starting
 * tops on two opposite corners and bottoms on the other two twists a square frame by far the most.
 * @param frame the resolved frame, tacked bottom up (as hingeFirst leaves it).
 */
export function acrossAndAround(frame: ResolvedFrame): Step[] {
  const steps: Step[] = [];
  const put = (step: Partial<Step> & Pick<Step, "key" | "kind" | "say" | "why" | "up">) =>
    steps.push({ part: "weld", joint: null, face: null, gate: null, caution: null, ...step });
  const bead = (name: string, face: MitreFace | TeeFace, up: "top" | "bottom", why: string) => {
    const j = frame.joints.find((x) => x.name === name);
    if (j)
      put({
        key: `bead/${name}/${face}`,
        kind: "bead",
        joint: name,
        face,
        up,
        say: `Weld ${faceWords(frame, j, face)}`,
        why,
      });
  };
  const flip = (n: number, up: "top" | "bottom") =>
    put({
      key: `flip/weld-${n}`,
      kind: "flip",
      up,
      say: `Turn the frame over, ${up} face up (${frame.massKg.toFixed(0)} kg), clamp again`,
      why: "Welding top and bottom in turn lets the second take back most of what the first one lifted.",
    });

  ACROSS.forEach((c, i) => {
    bead(
      c,
      "outside",
      "bottom",
      i === 0
        ? "On an open mitre the outside seam moves the frame least and makes it stiff for the others."
        : `Across from ${ACROSS[i - 1]}: the heat and the pull go to the far end.`,
    );
  });
  put({
    key: "wait/outside",
    kind: "wait",
    up: "bottom",
    say: "Wait until all four corners can be touched",
    why: "A hot side reads long (40 K over 2 m is about 1 mm) and the next bead pulls more on hot steel.",
    caution: "Mark the corners hot until they are cool.",
  });
  for (const corner of ACROSS)
    bead(
      corner,
      "bottom",
      "bottom",
      "One face all round, across each time: equal lifts at four corners fit together. Two corners started on top against two below would twist the frame.",
    );
  flip(1, "top");
  for (const corner of ACROSS)
    bead(corner, "top", "top", "Takes back most of what the bottom bead at this corner lifted.");
  for (const corner of ACROSS)
    bead(corner, "inside", "top", "The inside pulls a corner hardest, so it goes last, when three faces already hold.");
  const tees = teesJumping(frame);
  const why: Record<TeeFace, string> = {
    near: "Jumping about, so that no side collects its pull in one place.",
    far: "Opposes the bead on the other side of the same member.",
    top: "Before the flip, while this face is up.",
    bottom: "Takes back the bow of the bead on the other face.",
  };
  for (const face of ["near", "far", "top"] as const) for (const tee of tees) bead(tee.name, face, "top", why[face]);
  if (tees.length > 0) {
    flip(2, "bottom");
    for (const tee of tees) bead(tee.name, "bottom", "bottom", why.bottom);
  }
  const last = tees.length > 0 ? "bottom" : "top";
  put({
    key: "wait/cold",
    kind: "wait",
    up: last,
    say: "Leave it clamped until it is cold all over",
    why: "Clamps that come off hot let the frame take a set; readings on hot steel are long.",
  });
  put({
    key: "release/all",
    kind: "release",
    up: last,
    say: "Release the clamps slowly, one corner at a time",
    why: "What the clamps held now shows, and the cold readings are of the frame as it will be used.",
    caution: "A clamped frame stores energy: stand clear, release from the clamp side.",
  });
  put({
    key: "measure/cold",
    kind: "measure",
    up: last,
    gate: "cold",
    say: "Measure cold: four sides, both diagonals, four corner heights",
    why: "Only a cold frame can be held against its limits.",
  });
  return steps;
}
