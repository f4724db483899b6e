import { norm3 } from "../numeric";
import type { Problem } from "../units";
import { lineIndex, type WeldedModel } from "../weld";
import type { SimulationStep } from "./simulationSteps";

/**
 * What is wrong with steps for this frame, each at its place (`steps/3`).
 * @returns errors, and warnings for what is allowed but worth saying (a bead before any tack).
 */
export function stepProblems(model: WeldedModel, steps: readonly SimulationStep[]): Problem[] {
  const found: Problem[] = [];
  const held = new Set<string>();
  const clamps = new Map<string, string>();
  const strongbacks = new Map<string, string>();
  const stops = new Map<string, string>();
  let said = false;
  const check = (step: SimulationStep, i: number): void => {
    const put = (message: string, severity: Problem["severity"] = "error") =>
      found.push({ path: `steps/${i}`, message, severity });
    const point = (member: string, name: string) => {
      if (!model.nodes.some((n) => n.member === member && n.point === name))
        put(`Step ${i + 1}: ${member} has no point ${name}.`);
    };
    const putOn = (there: Map<string, string>, what: string, name: string, place: string) => {
      const same = [...there].find(([, p]) => p === place)?.[0];
      if (there.has(name)) put(`Step ${i + 1}: ${what} ${name} is already on.`);
      else if (same !== undefined) put(`Step ${i + 1}: ${what} ${name} would sit where ${same} already is.`);
      there.set(name, place);
    };
    if (step.do === "tack" || step.do === "bead" || step.do === "chord") {
      const joint = model.joints.find((j) => j.id === step.joint);
      if (!joint) {
        put(`Step ${i + 1}: there is no joint ${step.joint}.`);
        return;
      }
      if (lineIndex(joint.spec.kind, step.line) < 0) {
        put(
          `Step ${i + 1}: ${step.joint} has no face ${step.line}. A ${joint.spec.kind} has ${joint.faces.kind.lines.join(", ")}.`,
        );
        return;
      }
      if (step.do === "chord") {
        if (joint.chords.length === 0) put(`Step ${i + 1}: ${step.joint} has no member that runs through.`);
        return;
      }
      const given = step.heatJPerMm ?? step.closingMm;
      if (given === undefined || !(given >= 0) || !Number.isFinite(given))
        put(`Step ${i + 1}: the heat of ${step.joint} ${step.line} must be zero or more.`);
      if (step.do === "tack" && !(step.lengthMm > 0 && Number.isFinite(step.lengthMm)))
        put(`Step ${i + 1}: a tack needs a length.`);
      if (step.do === "bead" && step.share !== undefined && !(step.share > 0 && step.share <= 1))
        put(`Step ${i + 1}: a bead lies along some of ${step.joint} ${step.line}, at most along all of it.`);
      if (step.do === "bead" && !held.has(step.joint) && !said) {
        said = true;
        put(`Step ${i + 1}: ${step.joint} is beaded before any tack holds it. It will pull far.`, "warning");
      }
      held.add(step.joint);
    } else if (step.do === "clamp") {
      point(step.member, step.point);
      putOn(clamps, "clamp", step.clamp, `${step.member}/${step.point}/${step.direction.join()}`);
      if (!(step.stiffnessNPerMm > 0)) put(`Step ${i + 1}: clamp ${step.clamp} has no stiffness.`);
      if (!(norm3(step.direction) > 0)) put(`Step ${i + 1}: clamp ${step.clamp} has no direction.`);
    } else if (step.do === "unclamp") {
      if (!clamps.delete(step.clamp)) put(`Step ${i + 1}: clamp ${step.clamp} is not on.`);
    } else if (step.do === "strongback on") {
      point(...step.from);
      point(...step.to);
      putOn(strongbacks, "strongback", step.strongback, `${step.from.join("/")}/${step.to.join("/")}`);
    } else if (step.do === "strongback off") {
      if (!strongbacks.delete(step.strongback)) put(`Step ${i + 1}: strongback ${step.strongback} is not on.`);
    } else if (step.do === "stop on") {
      point(step.member, step.point);
      if (step.against) point(...step.against);
      putOn(
        stops,
        "stop",
        step.stop,
        `${step.member}/${step.point}/${step.push.join()}/${step.against?.join("/") ?? ""}`,
      );
      if (Math.abs(norm3(step.push) - 1) > 1e-6) put(`Step ${i + 1}: stop ${step.stop} has no direction of length 1.`);
      if (!Number.isFinite(step.gapMm ?? 0)) put(`Step ${i + 1}: stop ${step.stop} stands off by no length.`);
    } else if (step.do === "stop off") {
      // A stop is taken away once: after that there is nothing to say.
      stops.delete(step.stop);
    } else if (step.do === "square up") {
      if (!(step.residualShare >= 0 && step.residualShare <= 1))
        put(`Step ${i + 1}: what is left after squaring up lies between 0 and 1.`);
      for (const m of step.members ?? []) if (!model.members.has(m)) put(`Step ${i + 1}: there is no member ${m}.`);
    } else if (step.do === "load") {
      point(step.member, step.point);
      if (step.and) point(step.and.member, step.and.point);
    }
  };
  steps.forEach(check);
  const open = model.joints.filter((j) => !held.has(j.id));
  if (steps.length > 0 && open.length > 0)
    found.push({
      path: `joints/${open[0]?.id}`,
      message: `${open.map((j) => j.id).join(", ")} ${open.length === 1 ? "has" : "have"} no weld line in this order: only contact holds there.`,
      severity: "warning",
    });
  return found;
}
