import type { Structure, StructureFace, StructureJoint } from "../frame";
import type { Vec3 } from "../numeric";
import type { Step } from "./step";

/** A face looks down when its way is this far below level: it wants the frame turned over. */
const DOWN = -0.7;

/**
 * Joints so that each comes far from the last ones: no heat and no pull collects in one place.
 * @returns the same joints, from the one nearest to the frame's corner on.
 */
export function jumpingAbout(joints: readonly StructureJoint[]): StructureJoint[] {
  const left = [...joints];
  const out: StructureJoint[] = [];
  // Plain arithmetic: this is asked for every pair of joints.
  const far = (a: Vec3, b: Vec3): number => Math.sqrt((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2);
  while (left.length > 0) {
    const [last, before] = [out.at(-1), out.at(-2)];
    const worth = (j: StructureJoint): number =>
      last ? far(j.at, last.at) + (before ? 0.5 * far(j.at, before.at) : 0) : -(j.at[0] + j.at[1] + j.at[2]);
    let next = left[0] as StructureJoint;
    let most = Number.NEGATIVE_INFINITY;
    for (const j of left) {
      const w = worth(j);
      if (w > most + 1e-6) {
        most = w;
        next = j;
      }
    }
    out.push(next);
    left.splice(left.indexOf(next), 1);
  }
  return out;
}

const looksDown = (f: StructureFace): boolean => f.toward[2] < DOWN;
const opposite = {
  inside: "outside",
  outside: "inside",
  top: "bottom",
  bottom: "top",
  plus: "minus",
  minus: "plus",
} as const;

/**
 * The whole order for any frame. Tacking after "hinge first": one tack at each joint, measure and close, lock each on the
 * face across, then the other faces; after the turn the faces that looked down. Welding jumps about: outsides and sides
 * first, then what lies up, insides last, then the turn and the faces below. Faces without a bead get none.
 */
export function structureOrder(structure: Structure): Step[] {
  const steps: Step[] = [];
  const joints = jumpingAbout(structure.joints);
  const corners = joints.filter((j) => j.kind === "mitre");
  const others = joints.filter((j) => j.kind !== "mitre");
  const mass = structure.massKg.toFixed(0);
  const put = (step: Partial<Step> & Pick<Step, "key" | "kind" | "part" | "say" | "why">) =>
    steps.push({ joint: null, face: null, up: "top", gate: null, caution: null, ...step });
  const at = (j: StructureJoint, f: StructureFace): string => `${j.id}, ${f.words}`;
  const tack = (j: StructureJoint, f: StructureFace | undefined, why: string, up: Step["up"] = "top") => {
    if (f?.bead)
      put({
        key: `tack/${j.id}/${f.line}`,
        kind: "tack",
        part: "tack",
        joint: j.id,
        face: f.line,
        up,
        say: `Tack ${at(j, f)}`,
        why,
      });
  };
  const bead = (j: StructureJoint, f: StructureFace | undefined, why: string, up: Step["up"] = "top") => {
    if (!f?.bead) return;
    const flush = f.care === "grind flush" ? " It is ground flush afterwards: keep it full and small." : "";
    put({
      key: `bead/${j.id}/${f.line}`,
      kind: "bead",
      part: "weld",
      joint: j.id,
      face: f.line,
      up,
      say: `Weld ${at(j, f)}`,
      why: `${why}${flush}`,
    });
  };
  const face = (j: StructureJoint, line: string) => j.faces.find((f) => f.line === line);
  /** The face that is tacked first: the inside of a corner, the side of a branch that can be reached. */
  const first = (j: StructureJoint): StructureFace | undefined => {
    const order =
      j.kind === "mitre" || face(j, "inside")
        ? ["inside", "outside", "top", "bottom"]
        : ["plus", "minus", "top", "bottom"];
    const open = order.flatMap((l) => face(j, l) ?? []).filter((f) => f.bead);
    return open.find((f) => !looksDown(f)) ?? open[0];
  };
  const across = (j: StructureJoint): StructureFace | undefined => {
    const f = first(j);
    return f && face(j, opposite[f.line]);
  };
  const below = joints.some((j) => j.faces.some((f) => f.bead && looksDown(f)));

  put({
    key: "hold/clamp",
    kind: "hold",
    part: "tack",
    say: "Clamp what lies on the bed, joints free to be reached; hold what stands up square to it",
    why: "The bed gives the flat; what stands up wants a square and a clamp of its own until it is tacked.",
    caution: "Vent any closed tube before welding: trapped gas blows out through the last bead.",
  });
  put({
    key: "measure/dry fit",
    kind: "measure",
    part: "tack",
    gate: "dry fit",
    say: "Measure sizes and diagonals, dry",
    why: "An error found now costs a nudge. After the beads it costs a cut.",
  });
  for (const j of [...corners, ...others])
    tack(
      j,
      first(j),
      j.kind === "mitre"
        ? "One tack inside lets the corner hinge, so that it can still be squared."
        : "One tack holds it and lets it still be turned square.",
      "top",
    );
  put({
    key: "measure/tacked",
    kind: "measure",
    part: "tack",
    gate: "tacked",
    closes: true,
    say: "Measure across and close the error while the joints still turn",
    why: "Each tack pulled toward its side. On one tack a joint still turns; after the next it does not.",
  });
  for (const j of [...corners, ...others]) {
    const f = across(j);
    if (f && !looksDown(f)) tack(j, f, "Locks the joint against its first tack: the two pulls oppose.");
  }
  const done = new Set(steps.map((s) => `${s.joint}/${s.face}`));
  for (const j of corners)
    for (const f of j.faces)
      if (!looksDown(f) && !done.has(`${j.id}/${f.line}`))
        tack(j, f, "Holds the corner against lifting when the first face is welded.");
  if (below) {
    put({
      key: "flip/tack-bottom",
      kind: "flip",
      part: "tack",
      up: "bottom",
      say: `Release, turn the frame over (${mass} kg), clamp again`,
      why: "Faces that looked down want a tack before any bead, or the first beads lift them.",
      caution:
        structure.massKg > 25
          ? `${mass} kg: plan the lift, two people or a hoist.`
          : "Springs back when the clamps come off: stand clear, release slowly.",
    });
    for (const j of joints)
      for (const f of j.faces) if (looksDown(f)) tack(j, f, "Opposes the tack above; now every side holds.", "bottom");
    put({
      key: "flip/tack-top",
      kind: "flip",
      part: "tack",
      up: "top",
      say: `Turn it back, top up (${mass} kg), clamp again`,
      why: "The sides and the top are welded first, from where they can be reached.",
    });
  }
  put({
    key: "measure/tacked-2",
    kind: "measure",
    part: "tack",
    gate: "tacked",
    say: "Measure again, all tacked",
    why: "Last moment to cut a tack and put it right cheaply: accept, nudge, or cut and re-fit.",
  });

  for (const j of corners)
    bead(
      j,
      face(j, "outside"),
      "The outside seam moves a corner least and makes it stiff for the others. Jumping about, so that no side collects its pull.",
    );
  put({
    key: "wait/outside",
    kind: "wait",
    part: "weld",
    say: "Wait until every joint can be touched",
    why: "A hot side reads long (40 K over 2 m is about 1 mm) and the next bead pulls more on hot steel.",
    caution: "Mark the joints hot until they are cool.",
  });
  for (const j of others) bead(j, first(j), "Far from the last one, so that no member collects its pull in one place.");
  for (const j of others) {
    const f = across(j);
    if (f && !looksDown(f)) bead(j, f, "Opposes the bead on the other side of the same joint.");
  }
  const beaded = new Set(steps.filter((s) => s.kind === "bead").map((s) => `${s.joint}/${s.face}`));
  const remaining = (j: StructureJoint, f: StructureFace): boolean => !beaded.has(`${j.id}/${f.line}`) && !looksDown(f);
  for (const j of others)
    for (const f of j.faces)
      if (remaining(j, f)) bead(j, f, "What is left of this joint that can be reached from above.");
  for (const j of corners)
    for (const f of j.faces)
      if (f.line !== "inside" && remaining(j, f))
        bead(j, f, "One face goes all round before the turn: faces in turn twist the frame.");
  for (const j of corners) {
    const f = face(j, "inside");
    if (f && remaining(j, f))
      bead(j, f, "The inside pulls a corner hardest, so it goes last, when the others already hold.");
  }
  if (below) {
    put({
      key: "flip/weld-1",
      kind: "flip",
      part: "weld",
      up: "bottom",
      say: `Turn the frame over, bottom up (${mass} kg), clamp again`,
      why: "The faces below take back most of the bow that those above have made.",
      caution: structure.massKg > 25 ? `${mass} kg: plan the lift, two people or a hoist.` : null,
    });
    for (const j of joints)
      for (const f of j.faces)
        if (looksDown(f)) bead(j, f, "Takes back the bow of the bead on the other face.", "bottom");
  }
  const last: Step["up"] = below ? "bottom" : "top";
  put({
    key: "wait/cold",
    kind: "wait",
    part: "weld",
    up: last,
    say: "Leave it clamped until it is cold all over",
    why: "Clamps that come off hot let the frame take a set; readings on hot steel are long.",
  });
  put({
    key: "release/all",
    kind: "release",
    part: "weld",
    up: last,
    say: "Release the clamps slowly, one at a time",
    why: "What the clamps held now shows, and the cold readings are of the frame as it will be used.",
    caution: "A clamped frame stores energy: stand clear, release from the clamp side.",
  });
  put({
    key: "measure/cold",
    kind: "measure",
    part: "weld",
    up: last,
    gate: "cold",
    say: "Measure cold: sizes, diagonals, heights",
    why: "Only a cold frame can be held against its limits.",
  });
  return steps;
}
