import type { Structure } from "../frame";
import { finishedFrame, type StructureMechanics } from "../mechanics";
import { type Sparse, sparseDot, type Vec3 } from "../numeric";
import { type ShrinkFactors, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compilingLoads } from "./compileSteps";
import type { SimulationStep } from "./simulationSteps";

/** How stiff a frame is against a gap at one joint being drawn shut, N/mm. */
export interface GapStiffness {
  /** The frame, its other joints welded, this one open. */
  frameNPerMm: number;
  /** What its tacks add when they hold it shut. */
  jointNPerMm: number;
}

/**
 * Draws the two parts of a joint together by a unit force: open, and tacked on two faces across from each other.
 * @returns null for a joint that the mechanics has none of.
 */
export function* gapStiffness(
  structure: Structure,
  { frame }: StructureMechanics,
  factors: ShrinkFactors,
  joint: string,
  tackMm: number,
): Generator<number, GapStiffness | null> {
  const model = weldedModel(frame);
  const own = model.joints.find((j) => j.id === joint);
  const spec = structure.joints.find((j) => j.id === joint);
  if (!own || !spec) return null;
  const held = model.joints
    .filter((j) => j !== own)
    .flatMap((j) =>
      j.faces.kind.lines.map(
        (line): SimulationStep => ({ id: `${j.id}/${line}`, do: "bead", joint: j.id, line, closingMm: 0 }),
      ),
    );
  const tacks = own.faces.kind.lines
    .slice(0, 2)
    .map((line): SimulationStep => ({ id: `tack/${line}`, do: "tack", joint, line, lengthMm: tackMm, closingMm: 0 }));
  const n = own.faces.normal;
  const pull = (member: string, node: number, sign: number): SimulationStep => ({
    id: `pull ${member}`,
    do: "load",
    member,
    point: model.nodes[node].point,
    wrench: [sign * n[0], sign * n[1], sign * n[2], 0, 0, 0],
  });
  const pulls = [pull(own.spec.b, own.nodeB, -1), pull(own.spec.a, own.nodeA, 1)];
  const stiffness = function* (steps: readonly SimulationStep[]): Generator<number, number> {
    const plan = yield* compilingLoads(new CompileCache(model, factors), steps);
    const done = steps.length - pulls.length;
    const movedBy = finishedFrame(plan, done);
    yield 0.5;
    return 1 / Math.abs(pulls.reduce((sum, _, i) => sum + sparseDot(along(own.rows, n), movedBy(done + i)), 0));
  };
  // Seams that touch would hold against the pull: here they stand apart.
  const apart = yield* stiffness([...held, ...pulls]);
  const tacked = yield* stiffness([...held, ...tacks, ...pulls]);
  return { frameNPerMm: apart, jointNPerMm: Math.max(0, tacked - apart) };
}

/** The first three rows of a joint along a direction. */
function along(rows: readonly Sparse[], way: Vec3): Sparse {
  const out: Sparse = { at: [], value: [] };
  for (let i = 0; i < 3; i++)
    rows[i].at.forEach((f, k) => {
      out.at.push(f);
      out.value.push(way[i] * rows[i].value[k]);
    });
  return out;
}
