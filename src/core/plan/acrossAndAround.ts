import type { MitreFace, ResolvedFrame, TeeFace } from "../frame";
import { faceWords } from "./faces";
import { ACROSS, teesJumping } from "./hingeFirst";
import type { Step } from "./step";

/**
 * Welding, school "across and around": outside seams first, always to the opposite corner, then top and bottom
 * alternately, insides last, cross members jumping about.
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
  const [a, c, b, d] = ACROSS;
  for (const corner of [a, c])
    bead(
      corner,
      "bottom",
      "bottom",
      "First pair, opposite corners: equal lifts at A and C are taken back from the other face.",
    );
  flip(1, "top");
  for (const corner of [a, c, b, d])
    bead(
      corner,
      "top",
      "top",
      corner === a || corner === c
        ? "Takes back what the bottom bead at this corner lifted."
        : "Goes in before the bottom here, so that the two pairs lift opposite ways.",
    );
  flip(2, "bottom");
  for (const corner of [b, d]) bead(corner, "bottom", "bottom", "Takes back what the top bead at this corner lifted.");
  for (const corner of ACROSS)
    bead(
      corner,
      "inside",
      "bottom",
      "The inside pulls a corner hardest, so it goes last, when three faces already hold.",
    );
  const tees = teesJumping(frame);
  const faces: [TeeFace, "top" | "bottom"][] = [
    ["near", "bottom"],
    ["far", "bottom"],
    ["bottom", "bottom"],
  ];
  for (const [face, up] of faces)
    for (const tee of tees)
      bead(
        tee.name,
        face,
        up,
        face === "near"
          ? "Jumping about, so that no side collects its pull in one place."
          : face === "far"
            ? "Opposes the bead on the other side of the same member."
            : "Before the flip, while this face is up.",
      );
  if (tees.length > 0) {
    flip(3, "top");
    for (const tee of tees) bead(tee.name, "top", "top", "Takes back the bow of the bead on the other face.");
  }
  put({
    key: "wait/cold",
    kind: "wait",
    up: tees.length > 0 ? "top" : "bottom",
    say: "Leave it clamped until it is cold all over",
    why: "Clamps that come off hot let the frame take a set; readings on hot steel are long.",
  });
  put({
    key: "release/all",
    kind: "release",
    up: tees.length > 0 ? "top" : "bottom",
    say: "Release the clamps slowly, one corner at a time",
    why: "What the clamps held now shows, and the cold readings are of the frame as it will be used.",
    caution: "A clamped frame stores energy: stand clear, release from the clamp side.",
  });
  put({
    key: "measure/cold",
    kind: "measure",
    up: tees.length > 0 ? "top" : "bottom",
    gate: "cold",
    say: "Measure cold: four sides, both diagonals, four corner heights",
    why: "Only a cold frame can be held against its limits.",
  });
  return steps;
}
