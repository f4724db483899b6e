import type { Structure } from "../frame";
import type { Problem } from "../units";
import type { HeldWeld, Hold } from "./holdSchema";
import type { HoldUntil } from "./holdUntil";
import { type Step, stepKey } from "./step";
import type { StepId } from "./stepSchema";
import { weldWords } from "./stepWords";

/** A hold with its id. */
export const holdOf = (weld: HeldWeld, after: HeldWeld, until: HoldUntil): Hold => ({
  id: `${stepKey(weld)} ${stepKey(after)}`,
  weld,
  after,
  until,
});

/** A weld that a step lays, whichever time it is laid. */
const refOf = (id: StepId): string | null =>
  id.do === "tack" || id.do === "bead" ? stepKey({ do: id.do, joint: id.joint, line: id.line }) : null;

/** Whether a step ends what a hold waits for. */
function ends(id: StepId, until: HoldUntil): boolean {
  switch (until) {
    case "laid":
      return true;
    case "touch":
      return id.do === "wait";
    case "cold":
      return id.do === "wait" && id.until === "cold";
    case "measured":
      return id.do === "measure";
  }
}

/** Whether so many steps leave a hold kept for a weld that comes next. */
export function isFree(hold: Hold, before: readonly StepId[]): boolean {
  const key = stepKey(hold.after);
  const at = before.findLastIndex((s) => refOf(s) === key);
  return at >= 0 && (hold.until === "laid" || before.slice(at + 1).some((s) => ends(s, hold.until)));
}

/** Holds that an order does not keep; those of welds that are not in it are kept. */
export function brokenHolds(ids: readonly StepId[], holds: readonly Hold[]): Hold[] {
  const first = new Map<string, number>();
  ids.forEach((id, i) => {
    const ref = refOf(id);
    if (ref !== null && !first.has(ref)) first.set(ref, i);
  });
  return holds.filter((hold) => {
    const at = first.get(stepKey(hold.weld));
    return at !== undefined && first.has(stepKey(hold.after)) && !isFree(hold, ids.slice(0, at));
  });
}

/** Welds that wait for each other in a circle, in its order; null where none do. */
export function circleOf(holds: readonly Hold[]): HeldWeld[] | null {
  const next = new Map<string, HeldWeld[]>();
  const refs = new Map<string, HeldWeld>();
  for (const { weld, after } of holds) {
    next.set(stepKey(weld), [...(next.get(stepKey(weld)) ?? []), after]);
    refs.set(stepKey(weld), weld);
  }
  const clear = new Set<string>();
  const walk = (ref: HeldWeld, path: readonly HeldWeld[]): HeldWeld[] | null => {
    const key = stepKey(ref);
    const at = path.findIndex((p) => stepKey(p) === key);
    if (at >= 0) return path.slice(at);
    if (clear.has(key)) return null;
    for (const after of next.get(key) ?? []) {
      const found = walk(after, [...path, ref]);
      if (found) return found;
    }
    clear.add(key);
    return null;
  };
  for (const ref of refs.values()) {
    const found = walk(ref, []);
    if (found) return found;
  }
  return null;
}

const UNTIL_WORDS: Record<HoldUntil, string> = {
  laid: "is laid",
  touch: "can be touched",
  cold: "is cold",
  measured: "is laid and the frame measured",
};

/** What a hold waits for, in words, by itself. */
export const holdUntilWords = (until: HoldUntil): string => UNTIL_WORDS[until];

/** A hold in words. */
export const holdWords = (structure: Structure, { weld, after, until }: Hold): string =>
  `${weldWords(structure, weld)}: not before ${weldWords(structure, after)} ${UNTIL_WORDS[until]}`;

/** What is wrong with holds, on a frame and in its order. */
export function holdProblems(structure: Structure, steps: readonly Step[], holds: readonly Hold[]): Problem[] {
  const found: Problem[] = [];
  const say = (message: string): void => void found.push({ path: "order", message, severity: "warning" });
  const isThere = ({ joint, line }: HeldWeld): boolean =>
    structure.joints.some((j) => j.id === joint && j.faces.some((f) => f.line === line));
  for (const hold of holds)
    if (!isThere(hold.weld) || !isThere(hold.after))
      say(`A hold speaks of a weld that the frame no longer has: ${holdWords(structure, hold)}.`);
  const circle = circleOf(holds);
  if (circle) {
    say(
      `These wait for each other in a circle, so that none can begin: ${[...circle, circle[0] as HeldWeld].map((r) => weldWords(structure, r)).join(" waits for ")}. Take one of the holds away.`,
    );
    return found;
  }
  for (const hold of brokenHolds(
    steps.map((s) => s.id),
    holds,
  ))
    say(`Not kept in this order: ${holdWords(structure, hold)}.`);
  return found;
}

/**
 * Welds in an order that keeps the holds, else as they were: each as soon as it may.
 * @param holds without a circle; one in a circle leaves its welds as they were.
 */
export function heldBack<T extends StepId>(welds: readonly T[], holds: readonly Hold[]): T[] {
  if (holds.length === 0) return [...welds];
  const present = new Set(welds.map(refOf));
  const left = [...welds];
  const out: T[] = [];
  const placed = new Set<string | null>();
  while (left.length > 0) {
    const at = left.findIndex((id) => {
      const ref = refOf(id);
      return holds.every(
        (h) => stepKey(h.weld) !== ref || placed.has(stepKey(h.after)) || !present.has(stepKey(h.after)),
      );
    });
    const [next] = left.splice(Math.max(0, at), 1) as [T];
    placed.add(refOf(next));
    out.push(next);
  }
  return out;
}
