import type { Bar } from "./held";
import type { Reason } from "./reason";
import type { Order } from "./schools";
import { type Step, stepKey } from "./step";
import type { StepId } from "./stepSchema";

const isBar = (id: StepId): id is Extract<StepId, { bar: string }> => id.do === "brace" || id.do === "unbrace";

/** A step of a bar, beside the one that it comes after. */
function barStep(id: Extract<StepId, { bar: string }>, why: Reason, beside: Step): Step {
  return {
    id,
    key: stepKey(id),
    part: beside.part,
    joint: null,
    line: null,
    up: beside.up,
    gate: null,
    waitsFor: null,
    closes: false,
    why,
    on: beside.on,
  };
}

/** After which step of an order a bar goes on; -1 for before all. */
function placeOn(steps: readonly Step[], bar: Bar): number {
  const laid = steps.findIndex((s) => s.id.do === "hold");
  const bead = steps.findIndex((s) => s.id.do === "bead");
  const tacked = bead < 0 ? steps.length - 1 : bead - 1;
  switch (bar.putOn) {
    case "laid":
      return laid;
    case "square": {
      const square = steps.findLastIndex((s, i) => s.closes && i <= tacked);
      return square < 0 ? laid : square;
    }
    case "tacked":
      return tacked;
  }
}

/** After which step of an order it comes off: when all is tacked, or cold and out of its clamps. */
function placeOff(steps: readonly Step[], bar: Bar): number {
  const bead = steps.findIndex((s) => s.id.do === "bead");
  if (bar.takenOff === "tacked" && bead > 0) return bead - 1;
  const release = steps.findLastIndex((s) => s.id.do === "release");
  const cold = steps.findLastIndex((s) => s.waitsFor === "cold");
  return Math.max(release, cold, -1) < 0 ? steps.length - 1 : Math.max(release, cold);
}

/** An order with what goes on and comes off besides: where somebody put it, else where it belongs; what is there no more goes. */
export function withBars(order: Order, bars: readonly Bar[]): Order {
  const there = (id: StepId): Bar | undefined => (isBar(id) ? bars.find((b) => b.id === id.bar) : undefined);
  const why = (kind: "bar on" | "bar off", bar: Bar): Reason => ({ kind, bar });
  let steps = order.steps.flatMap((s): Step[] => {
    if (!isBar(s.id)) return [s];
    const bar = there(s.id);
    return bar ? [{ ...s, why: why(s.id.do === "brace" ? "bar on" : "bar off", bar) }] : [];
  });
  const has = (id: StepId): boolean => steps.some((s) => s.key === stepKey(id));
  const putAfter = (at: number, id: Extract<StepId, { bar: string }>, reason: Reason): void => {
    const beside = steps[Math.max(0, at)];
    if (!beside || has(id)) return;
    // One after the other, in their own order.
    let to = at + 1;
    while (steps[to] && isBar((steps[to] as Step).id)) to++;
    steps = [...steps.slice(0, to), barStep(id, reason, beside), ...steps.slice(to)];
  };
  for (const bar of bars) putAfter(placeOn(steps, bar), { do: "brace", bar: bar.id }, why("bar on", bar));
  for (const bar of bars) {
    const on = steps.findIndex((s) => s.key === stepKey({ do: "brace", bar: bar.id }));
    putAfter(Math.max(on, placeOff(steps, bar)), { do: "unbrace", bar: bar.id }, why("bar off", bar));
  }
  return { ...order, steps };
}
