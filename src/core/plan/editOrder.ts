import type { Structure } from "../frame";
import { facesLeft } from "./ownOrder";
import type { StepId } from "./stepSchema";
import { faceWords } from "./stepWords";

/** The same steps with one at another place. @param from, @param to places; what is out of reach changes nothing. */
export function withMoved(steps: readonly StepId[], from: number, to: number): StepId[] {
  const out = [...steps];
  const [step] = from >= 0 && to >= 0 && to < steps.length ? out.splice(from, 1) : [];
  if (step) out.splice(to, 0, step);
  return out;
}

/** Something that an order may be given besides. */
export interface Addition {
  id: StepId;
  say: string;
}

const nextNth = (steps: readonly StepId[], is: (s: StepId) => number | null): number =>
  1 + Math.max(0, ...steps.map((s) => is(s) ?? 0));

/** What may still be put into an order: turns, gates, a wait, beads that are missing, tacks. */
export function additionsTo(structure: Structure, steps: readonly StepId[]): Addition[] {
  const words = (joint: string, line: string): string => {
    const j = structure.joints.find((x) => x.id === joint);
    const f = j?.faces.find((x) => x.line === line);
    return j && f ? faceWords(structure, j, f) : `${joint}, ${line}`;
  };
  const beads = facesLeft(structure, steps).map((id) => ({ id, say: `Weld ${words(id.joint, id.line)}` }));
  const tacks = facesLeft(structure, []).map(({ joint, line }): Addition => {
    const nth = nextNth(steps, (s) => (s.do === "tack" && s.joint === joint && s.line === line ? (s.nth ?? 1) : null));
    return nth === 1
      ? { id: { do: "tack", joint, line }, say: `Tack ${words(joint, line)}` }
      : { id: { do: "tack", joint, line, nth }, say: `Tack ${words(joint, line)}, once more` };
  });
  const flip = nextNth(steps, (s) => (s.do === "flip" && s.part === "weld" ? s.nth : null));
  const gate = nextNth(steps, (s) => (s.do === "measure" && s.gate === "tacked" ? s.nth : null));
  const waits = (["touch", "cold"] as const).map((until): Addition => {
    const nth = nextNth(steps, (s) => (s.do === "wait" && s.until === until ? (s.nth ?? 1) : null));
    return {
      id: nth === 1 ? { do: "wait", until } : { do: "wait", until, nth },
      say: until === "touch" ? "Wait until it can be touched" : "Wait until it is cold",
    };
  });
  return [
    ...beads,
    { id: { do: "flip", part: "weld", nth: flip }, say: "Turn the frame over" },
    { id: { do: "measure", gate: "tacked", nth: gate }, say: "Measure, tacked" },
    ...waits,
    ...tacks,
  ];
}

/** The same steps with one more. @param after place of the step that it follows; at the end of the beads when there is none. */
export function withAdded(steps: readonly StepId[], id: StepId, after: number | null): StepId[] {
  const last = steps.findLastIndex((s) => s.do === "bead" || s.do === "tack");
  const at = (after ?? last) + 1;
  return [...steps.slice(0, at), id, ...steps.slice(at)];
}
